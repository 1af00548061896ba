import { ColumnBuilder, chunkRowsFor, type ColumnChunk } from "../column-builder";
import type { ReadSummary } from "../read-summary";
import { formatCount } from "@/study/report/format-number";
import { ImportFaultError } from "./import-fault";
import type { OpenedFile } from "./open-table";
import { isTotalsRow } from "./header-rows";
import { noFacts, type TableFacts } from "./table-facts";
import type { Cell, TableOptions } from "./table-options";

/** More columns than any questionnaire has: a sign that the file is something else. */
const MOST_COLUMNS = 5000;
/** A million respondents with 200 answers each. */
const MOST_CELLS = 200_000_000;
/** Different texts, and letters in them, that all columns together may hold: they stay in memory while the file is read. */
const MOST_TEXTS = 1_000_000;
const MOST_LETTERS = 40_000_000;
/** Lines of totals below a table, at most. */
const MOST_TOTALS = 4;
/** A cell longer than this holds a whole document. */
const LONGEST_CELL = 4_000_000;

export interface ReadColumn {
  name: string;
  /** As the row of wordings has it; "" for none. */
  wording: string;
  texts: string[];
  summary: ReadSummary;
}

/** A table that was read: its columns, whose chunks were handed out on the way. */
export interface TableData {
  options: TableOptions;
  rows: number;
  chunkRows: number;
  columns: ReadColumn[];
  facts: TableFacts;
}

/**
 * Reads a table in one pass; memory holds one chunk a column.
 * @param chunk takes each filled piece of a column as it comes
 * @param progress rows read so far
 * @throws ImportFaultError with the row: unequal rows, empty or repeated names, no rows, and what the format's reader finds.
 *   Chunks handed out before are then worthless: the caller drops them. The signal's reason
 */
export async function readTable(
  file: OpenedFile,
  options: TableOptions,
  chunk: (chunk: ColumnChunk) => void,
  { signal, progress }: { signal?: AbortSignal | undefined; progress?: (rows: number) => void | Promise<void> } = {},
): Promise<TableData> {
  const facts = noFacts();
  const sheetLike = options.format === "xlsx" || options.format === "ods";
  let names: string[] | null = null;
  let builders: ColumnBuilder[] = [];
  let chunkRows = 0;
  let rows = 0;
  let emptyRows = 0; // since the last row with something in it: a sheet's empty end is no gap
  let wordings: readonly Cell[] = [];
  const lastHeader = Math.max(options.headerRow ?? 0, options.wordingRow ?? 0, ...options.leftOutRows);
  const waiting: { row: Cell[]; number: number }[] = []; // the last rows may be totals
  const begin = (header: string[]) => {
    names = header;
    chunkRows = chunkRowsFor(header.length);
    builders = header.map((_, position) => new ColumnBuilder(position, options.decimal, chunkRows, chunk));
  };
  const take = (row: Cell[], number: number) => {
    if (row.length <= 1 && isEmpty(row)) {
      emptyRows++;
      return;
    }
    if (builders.length === 1) {
      // where there is one column, an empty line between others is an answer not given
      for (; emptyRows > 0; emptyRows--, rows++) builders[0]!.add(null);
    }
    facts.emptyRows += emptyRows;
    emptyRows = 0;
    if (row.length !== builders.length) fitRow(row, builders.length, number, options, sheetLike);
    for (let k = 0; k < builders.length; k++) {
      const cell = row[k] ?? null;
      if (typeof cell === "string" && cell.length > LONGEST_CELL) throw longCell(number, k);
      builders[k]!.add(cell);
    }
    rows++;
  };
  for await (const batch of file.rows(options, facts, signal)) {
    signal?.throwIfAborted();
    for (let i = 0; i < batch.rows.length; i++) {
      const row = options.width === null ? batch.rows[i]! : narrowed(batch.rows[i]!, options.width);
      const number = batch.first + i;
      if (number === options.wordingRow) wordings = row;
      if (number === options.headerRow && !isEmpty(row)) begin(columnNames(row, number, options));
      if (number <= lastHeader) continue;
      if (names === null) {
        if (isEmpty(row)) continue;
        begin(columnNames(row, number, options));
        if (options.headerRow !== null) continue;
      }
      if (options.totals === "keep") take(row, number);
      else {
        waiting.push({ row, number });
        if (waiting.length > MOST_TOTALS) {
          const first = waiting.shift()!;
          take(first.row, first.number);
        }
      }
    }
    if (rows * builders.length > MOST_CELLS) throw tooLarge(`more than ${formatCount(MOST_CELLS)} cells`);
    const [texts, letters] = builders.reduce(([t, l], b) => [t + b.texts, l + b.letters], [0, 0]);
    if (texts > MOST_TEXTS) throw tooLarge(`more than ${formatCount(MOST_TEXTS)} different texts`);
    if (letters > MOST_LETTERS) throw tooLarge(`more than ${formatCount(MOST_LETTERS)} letters in its different texts`);
    await progress?.(rows);
  }
  let kept = waiting.length;
  for (let at = kept - 1; at >= 0 && (isTotalsRow(waiting[at]!.row) || isEmpty(waiting[at]!.row)); at--)
    if (!isEmpty(waiting[at]!.row)) kept = at;
  facts.totals.push(...waiting.splice(kept).flatMap(({ row, number }) => (isEmpty(row) ? [] : [number])));
  for (const { row, number } of waiting) take(row, number);
  if (names === null) throw new ImportFaultError("empty-file", "The file is empty: it has neither a header nor rows.");
  if (rows === 0) throw new ImportFaultError("no-rows", "The file has a header but no rows of answers below it.", 1);
  const columns = builders.map((builder, i) => ({ name: names![i]!, wording: wordingOf(wordings[i]), ...builder.finish() }));
  return { options, rows, chunkRows, columns, facts };
}

/** A wording is no longer than this. */
const wordingOf = (cell: Cell | undefined) => (cell === null || cell === undefined ? "" : String(cell).trim().slice(0, 2000));

/** Without the empty cells beyond the last column. */
function narrowed(row: Cell[], width: number): Cell[] {
  return row.length > width && isEmpty(row.slice(width)) ? row.slice(0, width) : row;
}

const tooLarge = (what: string) =>
  new ImportFaultError("too-large", `The table has ${what}. Keep the columns you need and drop the file again.`);

const longCell = (row: number, column: number) =>
  new ImportFaultError(
    "long-record",
    `Row ${row} is longer than ${LONGEST_CELL / 1e6} million letters: its cell ${column + 1} holds a whole document. Mend it in the file and drop it again.`,
    row,
  );

const isEmpty = (row: readonly Cell[]) => row.every((cell) => cell === null || (typeof cell === "string" && cell.trim() === ""));

/** Rows of a sheet end where their cells end; in a text a row of another length is a fault, unless only empty cells are too many. */
function fitRow(row: Cell[], wanted: number, number: number, options: TableOptions, sheetLike: boolean): void {
  if (row.length > wanted && isEmpty(row.slice(wanted))) return;
  if (row.length < wanted && (sheetLike || options.shortRows === "fill")) return;
  const cells = row.length === 1 ? "1 cell" : `${row.length} cells`;
  throw new ImportFaultError(
    row.length < wanted ? "short-row" : "long-row",
    row.length < wanted
      ? `Row ${number} has ${cells}; the header has ${wanted}. Mend that row in the file, or let missing cells count as empty.`
      : `Row ${number} has ${cells}; the header has ${wanted}. Mend that row in the file and drop it again.`,
    number,
  );
}

/** The names of the columns: those given, or those of the header row, or numbered ones. @throws ImportFaultError */
function columnNames(row: readonly Cell[], number: number, options: TableOptions): string[] {
  if (options.names !== null) {
    if (options.names.length < row.length && !isEmpty(row.slice(options.names.length)))
      throw new ImportFaultError("too-few-names", `There are ${options.names.length} names for ${row.length} columns.`, number);
    return checkedNames(options.names, number);
  }
  if (options.headerRow === null)
    return checkedNames(
      row.map((_, i) => `v${i + 1}`),
      number,
    );
  const cells = [...row];
  if (options.format !== "delimited") while (cells.length > 0 && (cells.at(-1) ?? "") === "") cells.pop();
  return checkedNames(
    cells.map((cell) => (cell === null ? "" : String(cell)).trim()),
    number,
  );
}

function checkedNames(names: string[], row: number): string[] {
  if (names.length > MOST_COLUMNS)
    throw new ImportFaultError(
      "too-many-columns",
      `The header has ${names.length} columns; at most ${MOST_COLUMNS} can be taken in. Keep the ones you need and drop the file again.`,
      row,
    );
  const first = new Map<string, number>();
  names.forEach((name, i) => {
    if (name === "")
      throw new ImportFaultError("empty-name", `Column ${i + 1} has no name in the header (row ${row}). Name it here or in the file.`, row);
    if (name.length > 200)
      throw new ImportFaultError(
        "long-name",
        `The name of column ${i + 1} is longer than 200 characters (row ${row}). Is this row the header?`,
        row,
      );
    if (name === "__proto__")
      throw new ImportFaultError(
        "unprintable-name",
        `Column ${i + 1} is called "${name}", a name that programs keep for themselves (row ${row}). Name it anew.`,
        row,
      );
    if (CONTROL.test(name))
      throw new ImportFaultError(
        "unprintable-name",
        `The name of column ${i + 1} holds a sign that cannot be seen (row ${row}). Name it anew.`,
        row,
      );
    const before = first.get(name.toLowerCase());
    if (before !== undefined) {
      const differ =
        names[before] === name ? `are both called "${name}"` : `are called "${names[before]}" and "${name}", which differ in capitals only`;
      throw new ImportFaultError(
        "repeated-name",
        `Columns ${before + 1} and ${i + 1} ${differ} (row ${row}). Give each its own name.`,
        row,
      );
    }
    first.set(name.toLowerCase(), i);
  });
  return names;
}

/** Control characters and marks that change the direction of the text around them. */
const CONTROL = /[\u0000-\u001f\u007f\u200e\u200f\u202a-\u202e\u2066-\u2069]/;

/** The names of a header with every fault mended: empty ones numbered, repeated ones counted, invisible signs taken out. */
export function mendedNames(row: readonly Cell[]): string[] {
  const taken = new Set<string>();
  return row.map((cell, i) => {
    const plain =
      (cell === null || cell === "__proto__" ? "" : String(cell))
        .replace(new RegExp(CONTROL, "g"), " ")
        .replace(/\s+/g, " ")
        .trim()
        .slice(0, 200) || `column_${i + 1}`;
    let name = plain;
    for (let k = 2; taken.has(name.toLowerCase()); k++) name = `${plain.slice(0, 190)}_${k}`;
    taken.add(name.toLowerCase());
    return name;
  });
}
