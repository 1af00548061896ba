import { formatCount } from "@/study/report/format-number";
import { ImportFaultError } from "./import-fault";
import type { TableFacts } from "./table-facts";
import type { Cell, RowBatch } from "./table-options";
import { xmlEvents } from "./xml-events";
import { percentOf } from "./xlsx-rows";
import type { ZipFile } from "./zip-file";

const BATCH = 500;
const MOST_COLUMNS = 16_384;
/** Sheets end in one row repeated to the bottom; a row of answers is hardly ever repeated a thousand times. */
const MOST_REPEATED = 20_000;
/** Cells that repeats may make of a file: one that is built to fill a disk makes billions. */
const MOST_REPEATED_CELLS = 20_000_000;
const MOST_SHEETS = 1000;

/** The names of the tables of an OpenDocument spreadsheet, in their order. @throws ImportFaultError */
export async function odsSheets(zip: ZipFile): Promise<string[]> {
  const names: string[] = [];
  let depth = 0;
  const events = xmlEvents(
    zip.stream("content.xml"),
    {
      // a table inside a table is a part of its cell
      open: (name, a) => void (name === "table:table" && depth++ === 0 && names.push(a["table:name"] ?? "")),
      close: (name) => void (name === "table:table" && depth--),
    },
    "The spreadsheet",
  );
  for await (const _ of events) void _;
  if (names.length > MOST_SHEETS)
    throw new ImportFaultError(
      "too-many-sheets",
      `The spreadsheet has more than ${formatCount(MOST_SHEETS)} tables. Save the one you need as CSV and drop that here.`,
    );
  if (names.length === 0) throw new ImportFaultError("no-sheets", "The spreadsheet has no table.");
  return names;
}

/** The rows of a table. Dates become ISO text, percentages the number before the sign; notes on cells are left out. */
export async function* odsRows(zip: ZipFile, sheet: string | null, facts: TableFacts): AsyncGenerator<RowBatch> {
  let rows: Cell[][] = [];
  let first = 1;
  let emptyBefore = 0; // empty rows count only when something follows
  let table = -1;
  let found = false;
  let inTable = false;
  let depth = 0;
  let repeated = 0; // cells that stand in the file once and in the table again and again
  let note = 0;
  let row: Cell[] = [];
  let repeatRow = 1;
  let cell: { attributes: Record<string, string>; paragraphs: string[]; repeat: number } | null = null;
  let inParagraph = 0;
  const say = (text: string) => {
    if (cell && inParagraph > 0 && note === 0) cell.paragraphs[cell.paragraphs.length - 1] += text;
  };
  const endCell = (ended: NonNullable<typeof cell>) => {
    const value = cellOf(ended, row.length, facts);
    if (value === null && ended.repeat > 1000) return; // the empty rest of a row
    if (row.length + ended.repeat > MOST_COLUMNS)
      throw new ImportFaultError("too-many-columns", `A row has more than ${MOST_COLUMNS} cells.`);
    for (let k = 0; k < ended.repeat; k++) row.push(value);
  };
  const endRow = () => {
    while (row.length > 0 && row.at(-1) === null) row.pop();
    if (row.length === 0) {
      emptyBefore += repeatRow;
      return;
    }
    if (emptyBefore + repeatRow > MOST_REPEATED)
      throw new ImportFaultError(
        "repeated-rows",
        `The table repeats one row, or leaves a gap, of more than ${MOST_REPEATED} rows: it is no table of answers.`,
      );
    repeated += (repeatRow - 1) * row.length;
    if (repeated > MOST_REPEATED_CELLS)
      throw new ImportFaultError(
        "repeated-rows",
        `The table repeats its rows to more than ${formatCount(MOST_REPEATED_CELLS)} cells: it is no table of answers.`,
      );
    for (; emptyBefore > 0; emptyBefore--) rows.push([]);
    for (let k = 0; k < repeatRow; k++) rows.push(row);
  };
  const events = xmlEvents(
    zip.stream("content.xml"),
    {
      open: (name, a) => {
        if (name === "table:table") {
          if (depth++ > 0) return;
          table++;
          inTable = sheet === null ? table === 0 : a["table:name"] === sheet;
          found ||= inTable;
        } else if (!inTable || depth > 1) return;
        else if (name === "table:table-row") {
          row = [];
          repeatRow = countOf(a["table:number-rows-repeated"]);
        } else if (name === "table:table-cell" || name === "table:covered-table-cell")
          cell = { attributes: a, paragraphs: [], repeat: countOf(a["table:number-columns-repeated"]) };
        else if (name === "office:annotation") note++;
        else if (name === "text:p" && cell && note === 0) {
          inParagraph++;
          cell.paragraphs.push("");
        } else if (name === "text:s") say(" ".repeat(Math.min(1000, Number(a["text:c"] ?? 1))));
        else if (name === "text:tab") say("\t");
        else if (name === "text:line-break") say("\n");
      },
      text: (text) => depth <= 1 && say(text),
      close: (name) => {
        if (name === "table:table" && --depth === 0) inTable = false;
        if (!inTable || depth > 1) return;
        if (name === "office:annotation") note--;
        else if (name === "text:p" && note === 0) inParagraph--;
        else if ((name === "table:table-cell" || name === "table:covered-table-cell") && cell) {
          endCell(cell);
          cell = null;
        } else if (name === "table:table-row") endRow();
      },
    },
    "The spreadsheet",
  );
  for await (const _ of events) {
    void _;
    if (rows.length < BATCH) continue;
    yield { first, rows };
    first += rows.length;
    rows = [];
  }
  if (!found) throw new ImportFaultError("no-such-sheet", "The file has no such sheet. Choose one of those it has.");
  if (rows.length > 0) yield { first, rows };
}

/** How often a cell or row is repeated. @throws ImportFaultError when it is no number */
function countOf(said: string | undefined): number {
  const count = Number(said ?? 1);
  if (Number.isInteger(count) && count >= 1) return count;
  throw new ImportFaultError(
    "damaged-file",
    "A cell or row says that it is repeated, but not how often. The file is damaged: save it again and drop it here.",
  );
}

function cellOf(
  { attributes: a, paragraphs }: { attributes: Record<string, string>; paragraphs: string[] },
  column: number,
  facts: TableFacts,
): Cell {
  const number = Number(a["office:value"]);
  switch (a["office:value-type"]) {
    case "float":
    case "currency":
      return Number.isFinite(number) ? number : (a["office:value"] ?? null);
    case "percentage":
      facts.percents.add(column);
      return Number.isFinite(number) ? percentOf(number) : null;
    case "date":
      facts.dates.add(column);
      return a["office:date-value"] ?? null;
    case "boolean":
      return a["office:boolean-value"] === "true" ? "TRUE" : "FALSE";
    default: {
      const text = paragraphs.join("\n");
      if (text === "" && a["table:formula"] !== undefined) facts.formulasWithoutValue++;
      return text === "" ? null : text;
    }
  }
}
