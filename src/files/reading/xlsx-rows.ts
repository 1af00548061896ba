import { formatCount } from "@/study/report/format-number";
import { ImportFaultError } from "./import-fault";
import type { Cell, RowBatch } from "./table-options";
import type { TableFacts } from "./table-facts";
import { localName, readXml, xmlEvents } from "./xml-events";
import type { ZipFile } from "./zip-file";

// Read with a zip and an XML library rather than a spreadsheet library: those hold the whole sheet in memory and do not
// tell a percentage from a plain number.

const BATCH = 500;
/** The most columns a sheet can have. */
const MOST_COLUMNS = 16_384;
const MOST_SHEETS = 1000;
/** Rows that a table of answers may leave out in a row. */
const MOST_GAP = 20_000;
/** Texts, and letters in all of them, that a workbook may share: a fraction of a reading's memory. */
const MOST_STRINGS = 1_000_000;
const MOST_LETTERS = 60_000_000;
/** Days a date can have: to the end of the year 9999. */
const LAST_DAY = 2_958_466;
/** The longest number format the standard knows. */
const LONGEST_FORMAT = 255;

/** What a cell's style makes of its number. */
type NumberKind = "plain" | "date" | "percent";

interface Workbook {
  sheets: { name: string; part: string }[];
  from1904: boolean;
  strings: string[];
  kinds: NumberKind[];
}

/** The names of a workbook's sheets, in their order. @throws ImportFaultError */
export async function xlsxSheets(zip: ZipFile): Promise<string[]> {
  return (await sheetsOf(zip)).sheets.map((sheet) => sheet.name);
}

/** The rows of a sheet. Dates become ISO text, percentages the number before the sign; of a formula its last value counts. */
export async function* xlsxRows(zip: ZipFile, sheet: string | null, facts: TableFacts): AsyncGenerator<RowBatch> {
  const { sheets, from1904 } = await sheetsOf(zip);
  const chosen = sheet === null ? sheets[0] : sheets.find((s) => s.name === sheet);
  if (!chosen) throw new ImportFaultError("no-such-sheet", "The file has no such sheet. Choose one of those it has.");
  const workbook: Workbook = { sheets, from1904, ...(await partsOf(zip)) };
  let rows: Cell[][] = [];
  let first = 1;
  let row: Cell[] = [];
  let at = 0; // number of the row being read
  let cell: { column: number; type: string; style: number; value: string; formula: boolean } | null = null;
  let inValue = false;
  const events = xmlEvents(
    zip.stream(chosen.part),
    {
      open: (tag, attributes) => {
        const name = localName(tag);
        if (name === "row") {
          const number = Number(attributes["r"] ?? at + 1);
          if (number - at > MOST_GAP)
            throw new ImportFaultError(
              "repeated-rows",
              `The sheet leaves a gap of more than ${formatCount(MOST_GAP)} rows after row ${at}: it is no table of answers.`,
              at + 1,
            );
          while (at + 1 < number) {
            rows.push([]); // rows without a cell are left out of the file but count
            at++;
          }
          row = [];
        } else if (name === "c") {
          const column = columnOf(attributes["r"]) ?? row.length;
          if (column >= MOST_COLUMNS)
            throw new ImportFaultError("too-many-columns", `Row ${at + 1} has a cell beyond column ${MOST_COLUMNS}.`, at + 1);
          cell = { column, type: attributes["t"] ?? "n", style: Number(attributes["s"] ?? 0), value: "", formula: false };
        } else if (name === "f" && cell) cell.formula = true;
        else if (name === "v" || name === "t") inValue = true;
        else if (name === "rPh") inValue = false;
      },
      text: (text) => {
        if (inValue && cell) cell.value += text;
      },
      close: (tag) => {
        const name = localName(tag);
        if (name === "v" || name === "t") inValue = false;
        else if (name === "c" && cell) {
          while (row.length < cell.column) row.push(null);
          row[cell.column] = cellOf(cell, workbook, facts);
          if (cell.formula && cell.value === "") facts.formulasWithoutValue++;
          cell = null;
        } else if (name === "row") {
          rows.push(row);
          at++;
        }
      },
    },
    `The sheet "${chosen.name}"`,
  );
  for await (const _ of events) {
    void _;
    if (rows.length < BATCH) continue;
    yield { first, rows };
    first += rows.length;
    rows = [];
  }
  if (rows.length > 0) yield { first, rows };
}

function cellOf(cell: { column: number; type: string; style: number; value: string }, workbook: Workbook, facts: TableFacts): Cell {
  const { value } = cell;
  if (value === "") return null;
  switch (cell.type) {
    case "s": {
      const text = workbook.strings[Number(value)];
      if (text === undefined)
        throw new ImportFaultError(
          "damaged-file",
          "A cell names a text that the workbook does not hold. The file is damaged: save it again and drop it here.",
        );
      return text === "" ? null : text;
    }
    case "b":
      return value === "1" ? "TRUE" : "FALSE";
    case "n": {
      const number = Number(value);
      if (!Number.isFinite(number)) return value;
      const kind = workbook.kinds[cell.style] ?? "plain";
      const date = kind === "date" && isDay(number, workbook.from1904);
      if (date) facts.dates.add(cell.column);
      if (kind === "percent") facts.percents.add(cell.column);
      return date ? dateOf(number, workbook.from1904) : kind === "percent" ? percentOf(number) : number;
    }
    default:
      return value; // text of a formula, inline text, an error such as #N/A, an ISO date
  }
}

/** 0.45 written as 45 % is the number 45; the digits that binary fractions lose are given back. */
export function percentOf(share: number): number {
  return Number((share * 100).toPrecision(15));
}

/** Whether a number can be shown as a date: others that are only styled so stay numbers. */
function isDay(serial: number, from1904: boolean): boolean {
  return serial >= 0 && serial + (from1904 ? 1462 : 0) < LAST_DAY;
}

/** A day number as ISO text: a date, a date with its time, or a time alone. */
export function dateOf(serial: number, from1904: boolean): string {
  // the day numbers of 1900 count a 29 February that never was
  const days = from1904 ? serial + 1462 : serial < 60 && serial >= 1 ? serial + 1 : serial;
  const iso = new Date(Math.round((days - 25_569) * 86_400) * 1000).toISOString();
  if (days < 1) return iso.slice(11, 19);
  return Number.isInteger(serial) ? iso.slice(0, 10) : iso.slice(0, 19);
}

/** `BC12` → 54; undefined without an address. */
function columnOf(address: string | undefined): number | undefined {
  const letters = /^[A-Z]{1,4}/.exec(address ?? "")?.[0];
  if (letters === undefined) return undefined;
  let column = 0;
  for (const letter of letters) column = column * 26 + letter.charCodeAt(0) - 64;
  return column - 1;
}

async function sheetsOf(zip: ZipFile): Promise<{ sheets: Workbook["sheets"]; from1904: boolean }> {
  const targets = new Map<string, string>();
  const part = "xl/workbook.xml";
  readXml(
    await zip.text("xl/_rels/workbook.xml.rels"),
    {
      open: (tag, a) => {
        if (localName(tag) === "Relationship") targets.set(a["Id"] ?? "", a["Target"] ?? "");
      },
    },
    "The list of sheets",
  );
  const sheets: Workbook["sheets"] = [];
  let from1904 = false;
  readXml(
    await zip.text(part),
    {
      open: (tag, a) => {
        const name = localName(tag);
        if (name === "workbookPr") from1904 = a["date1904"] === "1" || a["date1904"] === "true";
        if (name !== "sheet") return;
        const reference = Object.keys(a).find((key) => key.endsWith(":id")); // the prefix is the document's own
        const target = targets.get(a[reference ?? ""] ?? "");
        if (target !== undefined) sheets.push({ name: a["name"] ?? "", part: target.startsWith("/") ? target.slice(1) : `xl/${target}` });
      },
    },
    "The workbook",
  );
  const there = sheets.filter((sheet) => zip.has(sheet.part));
  if (there.length > MOST_SHEETS)
    throw new ImportFaultError(
      "too-many-sheets",
      `The workbook has more than ${formatCount(MOST_SHEETS)} sheets. Save the one you need as CSV and drop that here.`,
    );
  if (there.length === 0) throw new ImportFaultError("no-sheets", "The workbook has no sheet that can be read.");
  return { sheets: there, from1904 };
}

type Parts = Pick<Workbook, "strings" | "kinds">;
/** Read once a workbook: its first rows are looked at several times. */
const parts = new WeakMap<ZipFile, Promise<Parts>>();

function partsOf(zip: ZipFile): Promise<Parts> {
  let known = parts.get(zip);
  if (!known) {
    known = (async () => ({ strings: await sharedStrings(zip), kinds: await numberKinds(zip) }))();
    parts.set(zip, known);
  }
  return known;
}

async function sharedStrings(zip: ZipFile): Promise<string[]> {
  const part = "xl/sharedStrings.xml";
  const strings: string[] = [];
  if (!zip.has(part)) return strings;
  let text = "";
  let letters = 0;
  let [inText, phonetic] = [false, false];
  const events = xmlEvents(
    zip.stream(part, 500_000_000),
    {
      open: (tag) => {
        const name = localName(tag);
        if (name === "si") text = "";
        else if (name === "t") inText = true;
        else if (name === "rPh") phonetic = true;
      },
      text: (piece) => {
        if (inText && !phonetic) text += piece;
      },
      close: (tag) => {
        const name = localName(tag);
        if (name === "si") {
          letters += text.length;
          if (strings.push(text) > MOST_STRINGS || letters > MOST_LETTERS)
            throw new ImportFaultError(
              "too-many-texts",
              `The workbook holds more than ${formatCount(MOST_STRINGS)} different texts, or more than ${formatCount(MOST_LETTERS)} letters. Save the sheet as CSV, with the columns you need, and drop that here.`,
            );
        } else if (name === "t") inText = false;
        else if (name === "rPh") phonetic = false;
      },
    },
    "The list of texts",
  );
  for await (const _ of events) void _;
  return strings;
}

/** What each cell style makes of a number. */
async function numberKinds(zip: ZipFile): Promise<NumberKind[]> {
  const part = "xl/styles.xml";
  if (!zip.has(part)) return [];
  const codes = new Map<number, string>();
  const kinds: NumberKind[] = [];
  let inCellStyles = false;
  readXml(
    await zip.text(part),
    {
      open: (tag, a) => {
        const name = localName(tag);
        if (name === "numFmt") codes.set(Number(a["numFmtId"]), a["formatCode"] ?? "");
        else if (name === "cellXfs") inCellStyles = true;
        else if (name === "xf" && inCellStyles) kinds.push(kindOf(Number(a["numFmtId"] ?? 0), codes));
      },
      close: (tag) => {
        if (localName(tag) === "cellXfs") inCellStyles = false;
      },
    },
    "The list of styles",
  );
  return kinds;
}

/** Formats 14 to 22 and 45 to 47 are dates and times in the standard's own list, 9 and 10 percentages; others say it in their code. */
function kindOf(id: number, codes: ReadonlyMap<number, string>): NumberKind {
  const code = codes.get(id);
  if (code === undefined)
    return (id >= 14 && id <= 22) || (id >= 27 && id <= 36) || (id >= 45 && id <= 47) || (id >= 50 && id <= 58)
      ? "date"
      : id === 9 || id === 10
        ? "percent"
        : "plain";
  if (code.length > LONGEST_FORMAT) return "plain";
  const bare = code.replace(/"[^"]*"|\\.|\[[^\]]*\]/g, "").split(";")[0]!;
  if (bare.includes("%")) return "percent";
  return /[ymdhs]/i.test(bare) && !/general/i.test(bare) ? "date" : "plain";
}
