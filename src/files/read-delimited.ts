import { Readable } from "node:stream";
import { CsvError, parse } from "csv-parse";
import { ColumnBuilder, type ColumnChunk, type ColumnSummary } from "./column-builder";
import { type DelimitedFormat, findFormat } from "./delimited-format";
import { ImportFaultError } from "./import-fault";
import { decodeText } from "./text-stream";

/** More columns than any questionnaire has: a sign that the file is something else. */
const MOST_COLUMNS = 5000;
/** A record longer than this means a quotation mark that is never closed. */
const LONGEST_RECORD = 4_000_000;
const HEAD_CHARACTERS = 262_144;

export interface ReadColumn {
  name: string;
  texts: string[];
  summary: ColumnSummary;
}

export interface DelimitedData {
  format: DelimitedFormat;
  rows: number;
  columns: ReadColumn[];
}

/**
 * Reads a delimited file (comma, semicolon or tab; UTF-8; quoted cells) in one pass; memory holds one chunk a column.
 * @param bytes the file, in pieces of any size
 * @param chunk takes each filled piece of a column as it comes
 * @throws ImportFaultError with the line: unequal rows, empty or repeated names, no rows, an open quote, no text.
 *   Chunks handed out before are then worthless: the caller drops them.
 */
export async function readDelimited(bytes: AsyncIterable<Uint8Array>, chunk: (chunk: ColumnChunk) => void): Promise<DelimitedData> {
  const text = decodeText(bytes);
  const { head, rest } = await takeHead(text);
  if (head.trim() === "") throw new ImportFaultError("empty-file", "The file is empty: it has neither a header nor rows.");
  const format = findFormat(head);
  const parser = parse({
    delimiter: format.delimiter,
    relax_column_count: true,
    skip_empty_lines: true,
    info: true,
    max_record_size: LONGEST_RECORD,
  });
  const source = Readable.from(rest);
  source.on("error", (error) => parser.destroy(error)); // a pipe does not hand a fault of its source on
  source.pipe(parser);
  let names: string[] | null = null;
  let builders: ColumnBuilder[] = [];
  let rows = 0;
  try {
    for await (const { record, info } of parser as AsyncIterable<{ record: string[]; info: { lines: number } }>) {
      if (names === null) {
        names = headerNames(record, info.lines);
        builders = names.map((_, position) => new ColumnBuilder(position, format.decimal, chunk));
        continue;
      }
      if (record.length !== names.length) {
        throw new ImportFaultError(
          "unequal-rows",
          `Line ${info.lines} has ${cells(record.length)}; the header has ${names.length}. Mend that line in the file and drop it again.`,
          info.lines,
        );
      }
      for (let i = 0; i < record.length; i++) builders[i]!.add(record[i]!);
      rows++;
    }
  } catch (error) {
    throw faultOf(error);
  } finally {
    source.destroy();
    parser.destroy();
  }
  if (names === null || rows === 0) throw new ImportFaultError("no-rows", "The file has a header but no rows of answers below it.", 1);
  const columns = builders.map((builder, i) => ({ name: names[i]!, ...builder.finish() }));
  return { format, rows, columns };
}

function cells(count: number): string {
  return count === 1 ? "1 cell" : `${count} cells`;
}

function headerNames(record: readonly string[], line: number): string[] {
  if (record.length > MOST_COLUMNS) {
    throw new ImportFaultError(
      "too-many-columns",
      `The header has ${record.length} columns; at most ${MOST_COLUMNS} can be taken in. Keep the ones you need and drop the file again.`,
      line,
    );
  }
  const names = record.map((name) => name.trim());
  const first = new Map<string, number>();
  names.forEach((name, i) => {
    if (name === "")
      throw new ImportFaultError(
        "empty-name",
        `Column ${i + 1} has no name in the header (line ${line}). Name it in the file and drop it again.`,
        line,
      );
    if (name.length > 200)
      throw new ImportFaultError(
        "long-name",
        `The name of column ${i + 1} is longer than 200 characters (line ${line}). Is the header the first line of the file?`,
        line,
      );
    const before = first.get(name);
    if (before !== undefined) {
      throw new ImportFaultError(
        "repeated-name",
        `Columns ${before + 1} and ${i + 1} are both called "${name}" (line ${line}). Give each its own name and drop the file again.`,
        line,
      );
    }
    first.set(name, i);
  });
  return names;
}

/** The first characters of a text, and the whole text again. */
async function takeHead(text: AsyncGenerator<string>): Promise<{ head: string; rest: AsyncIterable<string> }> {
  let head = "";
  while (head.length < HEAD_CHARACTERS) {
    const next = await text.next();
    if (next.done) break;
    head += next.value;
  }
  async function* all() {
    if (head !== "") yield head;
    yield* text;
  }
  return { head, rest: all() };
}

/** The parser's own faults in our words; its message would repeat the cell. */
function faultOf(error: unknown): unknown {
  if (!(error instanceof CsvError)) return error;
  const lines: unknown = error["lines"];
  const line = typeof lines === "number" ? lines : null;
  const where = line === null ? "" : ` (near line ${line})`;
  if (error.code === "CSV_QUOTE_NOT_CLOSED" || error.code === "CSV_MAX_RECORD_SIZE") {
    return new ImportFaultError(
      "open-quote",
      `A quotation mark is opened and never closed${where}. Mend it in the file and drop it again.`,
      line,
    );
  }
  return new ImportFaultError(
    "stray-quote",
    `A quotation mark stands inside a cell that is not quoted as a whole${where}. Mend it in the file and drop it again.`,
    line,
  );
}
