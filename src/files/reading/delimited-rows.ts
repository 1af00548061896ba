import Papa from "papaparse";
import { ImportFaultError } from "./import-fault";
import type { Delimiter, RowBatch } from "./table-options";

/** A record longer than this is a document in a cell, or a quotation mark that is never closed. */
const LONGEST_RECORD = 4_000_000;

/** The parser takes a text and tells how far it came; the rest is put before the next piece. */
interface Parsed {
  data: string[][];
  errors: { code: string; row?: number }[];
  meta: { cursor: number };
}

/**
 * Delimited text to rows, piece by piece. Line ends of any kind, also mixed ones; quoted cells may hold line ends and delimiters.
 * An empty line is a row of one empty cell: it counts, so that rows have the numbers a spreadsheet gives them.
 * @throws ImportFaultError with the row, for a quotation mark that is not closed or stands in the wrong place
 */
export async function* delimitedRows(text: AsyncIterable<string>, delimiter: Delimiter): AsyncGenerator<RowBatch> {
  let rest = "";
  let heldReturn = "";
  let first = 1;
  const parse = (input: string, last: boolean): RowBatch => {
    const parsed = new Papa.Parser({ delimiter, newline: "\n", quoteChar: '"' }).parse(input, 0, !last) as Parsed;
    const fault = parsed.errors.find((e) => e.code === "InvalidQuotes" || (last && e.code === "MissingQuotes"));
    if (fault) throw quoteFault(fault.code, first + (fault.row ?? 0));
    rest = input.slice(parsed.meta.cursor);
    const batch = { first, rows: parsed.data };
    first += parsed.data.length;
    return batch;
  };
  for await (const piece of text) {
    let next = heldReturn + piece;
    heldReturn = "";
    if (next.endsWith("\r")) {
      next = next.slice(0, -1);
      heldReturn = "\r"; // its line feed may stand in the next piece
    }
    if (next.includes("\r")) next = next.replace(/\r\n?/g, "\n");
    const batch = parse(rest + next, false);
    if (batch.rows.length > 0) yield batch;
    if (rest.length > LONGEST_RECORD)
      throw new ImportFaultError(
        "long-record",
        `Row ${first} is longer than ${LONGEST_RECORD / 1e6} million letters: a cell holds a whole document, or a quotation mark in it is never closed. Mend it in the file and drop it again.`,
        first,
      );
  }
  if (heldReturn !== "") rest += "\n";
  if (rest.endsWith("\n")) {
    const batch = parse(rest, false);
    if (batch.rows.length > 0) yield batch;
  }
  if (rest !== "") yield parse(rest, true);
}

function quoteFault(code: string, row: number): ImportFaultError {
  return code === "InvalidQuotes"
    ? new ImportFaultError(
        "stray-quote",
        `Row ${row} has a quotation mark after the end of a quoted cell. Mend it in the file and drop it again.`,
        row,
      )
    : new ImportFaultError(
        "open-quote",
        `A quotation mark is opened at row ${row} or later and never closed. Mend it in the file and drop it again.`,
        row,
      );
}
