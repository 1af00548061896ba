import { ordersOf } from "@/study/prepare/derive/dates";
import { counted } from "@/study/report/format-number";
import { guessCodebook } from "@/study/prepare/guess-codebook";
import { namesFromWordings, partWordings } from "@/study/prepare/wordings";
import { columnFacts } from "../column-facts";
import type { ColumnChunk } from "../column-builder";
import { DELIMITER_WORDS, findFormat } from "./delimited-format";
import { findHeaderRows, type HeaderRows, isTotalsRow } from "./header-rows";
import { ImportFaultError } from "./import-fault";
import { encodingOf, type OpenedFile, openTable } from "./open-table";
import { mendedNames, readTable, type TableData } from "./read-table";
import { type Cell, TableOptions } from "./table-options";
import { decodeText } from "./text-stream";
import type { GivenOptions, Understanding, Understood } from "./understanding";

const SAMPLE_ROWS = 500;
const SHOWN_ROWS = 12;
/** Sheets that are looked at for a table; of columns that cannot be taken in, so many are shown. */
const MOST_LOOKED_AT = 20;
const SHOWN_AT_FAULT = 100;
const HEAD_CHARACTERS = 262_144;
/** A longer one is no name: the row may not be the header. */
const LONGEST_NAME = 200;
const FORMAT_WORDS = {
  delimited: "delimited text",
  xlsx: "spreadsheet (XLSX)",
  ods: "spreadsheet (ODS)",
  json: "JSON rows",
  package: "data package",
};

/**
 * Looks at a file: what it is, how it is written, and how its first rows would come out.
 * @throws ImportFaultError when nothing at all can be read
 */
export async function understandFile(path: string, given: GivenOptions = {}): Promise<Understanding> {
  const file = await openTable(path);
  try {
    return await understand(file, given);
  } finally {
    file.close();
  }
}

async function understand(file: OpenedFile, given: GivenOptions): Promise<Understanding> {
  const understood: Understood[] = [{ what: "format", found: FORMAT_WORDS[file.format], why: formatReason(file) }];
  const { sheet, why } = given.sheet != null ? { sheet: given.sheet, why: "you said so" } : await findSheet(file);
  if (sheet !== null) understood.push({ what: "sheet", found: sheet, why });
  const notices: string[] = [];
  let options = TableOptions.parse({ format: file.format, sheet });
  const table = file.table(sheet);
  if (file.format === "delimited" || (table && table.part !== null)) {
    options = await understandText(file, sheet, given, options, understood, notices);
  }
  const first = await firstRows(file, options);
  const found = headerOf(first, file, sheet);
  const headerRow = given.headerRow !== undefined ? given.headerRow : found.names;
  const sameHeader = headerRow === found.names;
  const wordingRow = given.wordingRow !== undefined ? given.wordingRow : sameHeader ? found.wordings : null;
  const leftOutRows = given.leftOutRows ?? (sameHeader ? found.leftOut.map(({ row }) => row).filter((row) => row !== wordingRow) : []);
  const said = given.headerRow !== undefined || given.wordingRow !== undefined || given.leftOutRows !== undefined;
  understood.push({
    what: "header",
    found: headerWords(headerRow, wordingRow, leftOutRows),
    why: said ? "you said so" : found.why,
  });
  options = {
    ...options,
    headerRow,
    wordingRow,
    leftOutRows,
    totals: given.totals ?? "leave-out",
    names: given.names ?? null,
    shortRows: given.shortRows ?? "refuse",
  };
  const cells = first.find((row) => row.number === headerRow)?.cells ?? [];
  notices.push(...found.leftOut.filter(({ row }) => leftOutRows.includes(row)).map(({ row, why }) => `Row ${row} is left out: ${why}.`));
  const above = found.above.filter((row) => headerRow !== null && row < headerRow && row !== wordingRow);
  if (above.length > 0 && file.format !== "json")
    notices.push(
      `${above.length === 1 ? `Row ${above[0]} stands` : `Rows ${above[0]} to ${above.at(-1)} stand`} above the table and ${above.length === 1 ? "is" : "are"} left out.`,
    );
  if (file.format !== "json" && headerRow !== null) options = { ...options, ...namesFor(cells, first, options, notices) };
  return { options, sheets: file.sheets, understood, ...(await tryOut(file, options, first, notices)) };
}

function headerWords(header: number | null, wording: number | null, leftOut: readonly number[]): string {
  const names = header === null ? "no row holds names" : wording === header ? `row ${header} holds the wordings` : `row ${header} names`;
  const rest = [
    ...(wording !== null && wording !== header ? [`row ${wording} wordings`] : []),
    ...leftOut.map((row) => `row ${row} left out`),
  ];
  return rest.length === 0 && header !== null && wording !== header ? `row ${header} holds the names` : [names, ...rest].join(", ");
}

/** How many columns are read, and under which names: empty columns at the end are none, names that are at fault are mended, wordings give names. */
function namesFor(
  header: readonly Cell[],
  first: readonly { number: number; cells: Cell[] }[],
  options: TableOptions,
  notices: string[],
): Pick<TableOptions, "width" | "names"> {
  const blank = (cell: Cell | undefined) => cell === null || cell === undefined || String(cell).trim() === "";
  const last = Math.max(options.headerRow ?? 0, options.wordingRow ?? 0, ...options.leftOutRows);
  const answers = first.filter((row) => row.number > last && !isTotalsRow(row.cells));
  const used = Math.max(0, ...[{ cells: header }, ...answers].map(({ cells }) => cells.findLastIndex((cell) => !blank(cell)) + 1));
  const spare = header.length - used;
  const width = used < header.length && used > 0 ? used : null;
  if (width !== null && spare > 0 && options.format === "delimited")
    notices.push(`${counted(spare, "empty column")} at the end ${spare === 1 ? "is" : "are"} left out.`);
  if (options.names !== null) return { width, names: options.names };
  const cells = Array.from({ length: width ?? header.length }, (_, at) => header[at] ?? null);
  if (options.wordingRow === options.headerRow) {
    const names = namesFromWordings(partWordings(cells.map((cell) => (cell === null ? "" : String(cell)))));
    notices.push("Row " + options.headerRow + " holds wordings, which stay as labels; short names were made from them and can be changed.");
    return { width, names };
  }
  const mended = mendedNames(cells);
  const faults = cells.flatMap((cell, at) => (String(cell ?? "").trim() === mended[at] ? [] : [at]));
  const nameless = faults.filter((at) => blank(cells[at]));
  const others = faults.filter((at) => !blank(cells[at]) && String(cells[at]).replace(/\s+/g, " ").trim() !== mended[at]);
  const tooLong = cells.some((cell) => String(cell ?? "").length > LONGEST_NAME);
  if (faults.length === 0 || tooLong) return { width, names: null };
  if (nameless.length > 0)
    notices.push(
      `${nameless.length === 1 ? `Column ${nameless[0]! + 1} has` : `${nameless.length} columns have`} no name in row ${options.headerRow} and ${nameless.length === 1 ? "is" : "are"} called ${listed(nameless.map((at) => mended[at]!))}.`,
    );
  if (others.length > 0)
    notices.push(
      `${others.length === 1 ? "A name comes" : `${others.length} names come`} twice or cannot be used as ${others.length === 1 ? "it is" : "they are"}, and became ${listed(others.map((at) => mended[at]!))}.`,
    );
  return { width, names: mended };
}

/** The first table with at least two rows of at least two cells; a sheet of remarks before it is none. */
async function findSheet(file: OpenedFile): Promise<{ sheet: string | null; why: string }> {
  const { format, sheets } = file;
  if (sheets.length === 0) return { sheet: null, why: "" };
  if (sheets.length === 1) return { sheet: sheets[0]!, why: "it is the only one" };
  for (const sheet of format === "package" ? [] : sheets.slice(0, MOST_LOOKED_AT)) {
    const rows = await firstRows(file, TableOptions.parse({ format, sheet }));
    if (rows.filter((row) => filled(row.cells) >= 2).length >= 2)
      return { sheet, why: `it is the first of ${sheets.length} that holds a table` };
  }
  return { sheet: sheets[0]!, why: `it is the first of ${sheets.length}` };
}

async function understandText(
  file: OpenedFile,
  sheet: string | null,
  given: GivenOptions,
  options: TableOptions,
  understood: Understood[],
  notices: string[],
): Promise<TableOptions> {
  const said = { why: "you said so" };
  const encoding = given.encoding ? { encoding: given.encoding, ...said } : await encodingOf(file, sheet);
  understood.push({ what: "encoding", found: encoding.encoding.toUpperCase(), why: encoding.why });
  const head = await headOf(decodeText(file.bytes(sheet), encoding.encoding));
  if (head.trim() === "") throw new ImportFaultError("empty-file", "The file is empty: it has neither a header nor rows.");
  const format = findFormat(head);
  const hint = file.table(sheet)?.hint;
  const delimiter = given.delimiter ?? hint?.delimiter ?? format.delimiter;
  const decimal = given.decimal ?? hint?.decimal ?? (delimiter === "," ? "." : format.decimal);
  const why = (mine: unknown, hinted: unknown, found: string) => (mine ? said.why : hinted ? "the package says so" : found);
  understood.push(
    { what: "delimiter", found: DELIMITER_WORDS[delimiter], why: why(given.delimiter, hint?.delimiter, format.why.delimiter) },
    { what: "decimal", found: decimal === "," ? "comma" : "point", why: why(given.decimal, hint?.decimal, format.why.decimal) },
  );
  const whole = head.replace(/[\r\n]+$/, ""); // the last one may be cut in two
  const ends = new Set(whole.match(/\r\n|\n|\r/g));
  if (ends.size > 1) notices.push("Lines end in different ways in this file; each way is taken as the end of a row.");
  return { ...options, encoding: encoding.encoding, delimiter, decimal };
}

function formatReason(file: OpenedFile): string {
  switch (file.format) {
    case "delimited":
      return "its first bytes are text";
    case "json":
      return "it begins like JSON";
    case "package":
      return "a description of its tables is in it";
    default:
      return "its parts are those of such a file";
  }
}

async function headOf(text: AsyncIterable<string>): Promise<string> {
  let head = "";
  for await (const piece of text) {
    head += piece;
    if (head.length >= HEAD_CHARACTERS) break;
  }
  return head;
}

/** The first rows of the table with their numbers. */
async function firstRows(file: OpenedFile, options: TableOptions): Promise<{ number: number; cells: Cell[] }[]> {
  const rows: { number: number; cells: Cell[] }[] = [];
  for await (const batch of file.rows(options)) {
    batch.rows.forEach((cells, i) => rows.push({ number: batch.first + i, cells }));
    if (rows.length >= SAMPLE_ROWS) break;
  }
  return rows.slice(0, SAMPLE_ROWS);
}

const filled = (cells: readonly Cell[]) => cells.filter((cell) => cell !== null && String(cell).trim() !== "").length;

/** The rows above the answers; what a description beside the table says goes first. */
function headerOf(rows: readonly { number: number; cells: Cell[] }[], file: OpenedFile, sheet: string | null): HeaderRows {
  const none = { wordings: null, leftOut: [], above: [] };
  if (file.format === "json") return { ...none, names: 1, why: "the names are the keys of the rows" };
  const said = file.table(sheet);
  if (said)
    return said.hint.header ? { ...none, names: 1, why: "the package says so" } : { ...none, names: null, why: "the package says so" };
  return findHeaderRows(rows);
}

/** Reads the first rows as the whole would be read. */
async function tryOut(
  file: OpenedFile,
  options: TableOptions,
  first: readonly { number: number; cells: Cell[] }[],
  notices: string[],
): Promise<Pick<Understanding, "columns" | "rows" | "notices" | "fault" | "mended">> {
  const sample: OpenedFile = {
    ...file,
    rows: async function* (_, facts) {
      // read again, so that what the reader notices is noticed for this reading
      let left = SAMPLE_ROWS;
      for await (const batch of file.rows(options, facts)) {
        yield { first: batch.first, rows: batch.rows.slice(0, left) };
        left -= batch.rows.length;
        if (left <= 0) break;
      }
    },
  };
  const chunks: ColumnChunk[] = [];
  let data: TableData;
  try {
    data = await readTable(sample, options, (chunk) => chunks.push(chunk));
  } catch (error) {
    if (!(error instanceof ImportFaultError)) throw error;
    const header = first.find((row) => row.number === (options.headerRow ?? 1));
    const names = ["empty-name", "repeated-name", "long-name", "unprintable-name"].includes(error.code)
      ? mendedNames(header?.cells ?? [])
      : null;
    const shown = error.code === "too-many-columns" ? SHOWN_AT_FAULT : undefined;
    return {
      columns: (names ?? header?.cells.map((cell) => String(cell ?? "")) ?? [])
        .slice(0, shown)
        .map((name) => ({ name, kind: "text" as const, label: "", question: "" })),
      rows: first
        .filter((row) => row.number > (options.headerRow ?? 0))
        .slice(0, SHOWN_ROWS)
        .map((row) => row.cells.slice(0, shown).map((cell) => clipped(cell === null ? null : String(cell)))),
      notices,
      fault: { code: error.code, message: error.message },
      mended: names,
    };
  }
  const said = new Map(file.codebook(options.sheet).map((v) => [v.name, v]));
  const guessed = new Map(guessCodebook(data.columns.map(columnFacts)).map((v) => [v.name, v]));
  const columns = data.columns.map(({ name }) => {
    const { kind, label, question } = said.get(name) ?? guessed.get(name)!;
    return { name, kind, label, question };
  });
  const rows = Array.from({ length: Math.min(SHOWN_ROWS, data.rows) }, (_, row) =>
    data.columns.map(({ texts }, position) => {
      const chunk = chunks.find((c) => c.position === position && row < c.values.length)!;
      const state = chunk.states[row];
      return state === 1 ? null : state === 2 ? clipped(texts[chunk.values[row]!]!) : String(chunk.values[row]!);
    }),
  );
  return { columns, rows, notices: [...notices, ...noticesOf(data, said)], fault: null, mended: null };
}

/** A long text is shown by its beginning; it is taken in whole. */
function clipped(text: string | null): string | null {
  return text !== null && text.length > 200 ? `${text.slice(0, 200)} …` : text;
}

function noticesOf(data: TableData, said: ReadonlyMap<string, unknown>): string[] {
  const named = (columns: Iterable<number>) => listed([...columns].sort((a, b) => a - b).map((at) => data.columns[at]?.name ?? ""));
  const withText = (test: (text: string) => boolean) => data.columns.flatMap((c, at) => (c.texts.some(test) ? [at] : []));
  const { dates, percents, formulasWithoutValue, emptyRows, totals } = data.facts;
  const notices: string[] = [];
  if (totals.length > 0)
    notices.push(
      `${totals.length === 1 ? `Row ${totals[0]} holds` : `Rows ${totals.join(" and ")} hold`} totals or means of the rows above and ${totals.length === 1 ? "is" : "are"} left out.`,
    );
  if (dates.size > 0) notices.push(`Dates are kept as year-month-day in ${named(dates)}.`);
  if (percents.size > 0) notices.push(`Percentages are kept as the number before the sign in ${named(percents)}: 45 % is 45.`);
  if (formulasWithoutValue > 0)
    notices.push(
      `${counted(formulasWithoutValue, "cell holds", "cells hold")} a formula that was never calculated, and ${formulasWithoutValue === 1 ? "is" : "are"} empty. Calculate and save the sheet to have the value.`,
    );
  if (emptyRows > 0) notices.push(`${counted(emptyRows, "wholly empty row is", "wholly empty rows are")} left out.`);
  const formulas = withText((text) => /^[=+@-].*[A-Za-z(]/.test(text) && !/^-?\d/.test(text));
  if (formulas.length > 0) notices.push(`Cells that look like formulas stay words and are never carried out (${named(formulas)}).`);
  const huge = withText((text) => /^[-+]?\d[\d.,]*[eE]\+?\d{3,}$/.test(text) || /^[-+]?\d{17,}$/.test(text));
  if (huge.length > 0) notices.push(`Numbers too large to be held exactly stay words in ${named(huge)}.`);
  const mixed = data.columns.flatMap(({ texts }, at) => (texts.length >= 3 && datesInSeveralWays(texts) ? [at] : []));
  if (mixed.length > 0)
    notices.push(`Dates are written in more than one way in ${named(mixed)}; they stay words until you say which is which.`);
  const rightToLeft = withText((text) => /[\u0590-\u08ff]/.test(text));
  if (rightToLeft.length > 0) notices.push(`Text that runs from right to left is kept as it is (${named(rightToLeft)}).`);
  const unknown = [...said.keys()].filter((name) => !data.columns.some((c) => c.name === name));
  if (unknown.length > 0) notices.push(`The description names ${listed(unknown)}, which the table does not have.`);
  return notices;
}

/** Most texts are dates, but no single order reads them all. */
function datesInSeveralWays(texts: readonly string[]): boolean {
  const dates = texts.filter((text) => ordersOf([text]).length > 0);
  return dates.length >= 0.8 * texts.length && ordersOf(dates).length === 0;
}

function listed(names: readonly string[]): string {
  const shown = names.slice(0, 5).join(", ");
  return names.length > 5 ? `${shown} and ${names.length - 5} more` : shown;
}
