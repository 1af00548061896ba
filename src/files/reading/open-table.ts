import { createReadStream } from "node:fs";
import { open, readFile, stat } from "node:fs/promises";
import type { Variable } from "@/study/model/variable";
import { unguarded } from "../spreadsheet-guard";
import { DESCRIPTOR, type PackageTable, readDescriptor } from "./data-package";
import { delimitedRows } from "./delimited-rows";
import { ImportFaultError } from "./import-fault";
import { jsonRows, MOST_JSON_BYTES } from "./json-rows";
import { odsRows, odsSheets } from "./ods-rows";
import { noFacts, type TableFacts } from "./table-facts";
import type { RowBatch, TableOptions } from "./table-options";
import { decodeText, findEncoding } from "./text-stream";
import { xlsxRows, xlsxSheets } from "./xlsx-rows";
import { ZipFile } from "./zip-file";

/** What a file is, by its first bytes and what is inside, never by its name alone. */
export type FileFormat = TableOptions["format"];

/** A file on disk whose tables can be read, again and again. */
export interface OpenedFile {
  format: FileFormat;
  /** Tables there are to choose from. */
  sheets: string[];
  /** The table's part of a data package. */
  table(sheet: string | null): PackageTable | null;
  /** What a description that came with the table says of its columns. */
  codebook(sheet: string | null): Variable[];
  /** Title of a data package. */
  title: string;
  /** The bytes of the delimited text, where there is one. */
  bytes(sheet: string | null, signal?: AbortSignal): AsyncIterable<Uint8Array>;
  rows(options: TableOptions, facts?: TableFacts, signal?: AbortSignal): AsyncIterable<RowBatch>;
  close(): void;
}

const PIECE = 1 << 18;

/**
 * Opens a file for reading. The caller closes it.
 * @throws ImportFaultError when it is damaged or of a kind that cannot be read
 */
export async function openTable(path: string): Promise<OpenedFile> {
  const head = await firstBytes(path, 8);
  if (head.length === 0) throw new ImportFaultError("empty-file", "The file is empty: it has neither a header nor rows.");
  if (head[0] === 0x50 && head[1] === 0x4b) return openPacked(path);
  if (head[0] === 0xd0 && head[1] === 0xcf)
    throw new ImportFaultError(
      "old-spreadsheet",
      "This is a spreadsheet in an old binary format, or one locked with a password. Save it as XLSX, ODS or CSV without a password and drop that here.",
    );
  if (head[0] === 0x25 && head[1] === 0x50 && head[2] === 0x44)
    throw new ImportFaultError("not-a-table", "This is a PDF document. Save the table as CSV, XLSX or ODS and drop that here.");
  if (await looksLikeJson(path)) return openJson(path);
  const bytes = (_: string | null, signal?: AbortSignal) => createReadStream(path, { highWaterMark: PIECE, signal });
  return {
    ...plain,
    format: "delimited",
    bytes,
    rows: (options, _, signal) => delimitedRows(decodeText(bytes(null, signal), options.encoding), options.delimiter),
  };
}

const plain = { sheets: [], title: "", table: () => null, codebook: () => [], close: () => undefined };

async function openPacked(path: string): Promise<OpenedFile> {
  const zip = await ZipFile.open(path);
  const noBytes = () => {
    throw new ImportFaultError("not-a-table", "This part of the file is not text.");
  };
  try {
    if (zip.has("xl/workbook.xml")) {
      const rows = (options: TableOptions, facts = noFacts()) => xlsxRows(zip, options.sheet, facts);
      return { ...plain, format: "xlsx", sheets: await xlsxSheets(zip), bytes: noBytes, rows, close: () => zip.close() };
    }
    if (zip.has("content.xml")) {
      const rows = (options: TableOptions, facts = noFacts()) => odsRows(zip, options.sheet, facts);
      return { ...plain, format: "ods", sheets: await odsSheets(zip), bytes: noBytes, rows, close: () => zip.close() };
    }
    const descriptor = zip.names
      .filter((name) => name.endsWith(DESCRIPTOR) && name.split("/").length <= 2)
      .sort((a, b) => a.length - b.length)[0];
    if (descriptor !== undefined) {
      const folder = descriptor.slice(0, -DESCRIPTOR.length);
      return packageOf(
        await zip.text(descriptor, 50_000_000),
        (part) => zip.stream(folder + part),
        () => zip.close(),
      );
    }
  } catch (error) {
    zip.close();
    throw error;
  }
  zip.close();
  throw new ImportFaultError(
    "not-a-table",
    `This packed file holds neither a spreadsheet (XLSX, ODS) nor a data package (${DESCRIPTOR}). Unpack it and drop the table itself.`,
  );
}

async function openJson(path: string): Promise<OpenedFile> {
  if ((await stat(path)).size > MOST_JSON_BYTES)
    throw new ImportFaultError("too-large", "JSON is read as a whole, up to 25 MB. Save the rows as CSV and drop that here.");
  const text = (await readFile(path, "utf8")).replace(/^\uFEFF/, "");
  if (/"resources"\s*:/.test(text.slice(0, 1_000_000)) && isDescriptor(text)) {
    const lacking = (part: string) => {
      throw new ImportFaultError(
        "missing-part",
        `The description names the table "${part}", which did not come with it. Pack both into one ZIP file and drop that here.`,
      );
    };
    return packageOf(text, lacking, () => undefined);
  }
  const noBytes = () => {
    throw new ImportFaultError("not-a-table", "JSON has no delimiter.");
  };
  return {
    ...plain,
    format: "json",
    bytes: noBytes,
    rows: async function* () {
      yield* jsonRows(text);
    },
  };
}

function isDescriptor(text: string): boolean {
  try {
    return Array.isArray((JSON.parse(text) as { resources?: unknown }).resources);
  } catch {
    return false;
  }
}

function packageOf(text: string, stream: (part: string) => AsyncIterable<Uint8Array>, close: () => void): OpenedFile {
  const { title, tables } = readDescriptor(text);
  const table = (sheet: string | null): PackageTable => {
    const found = sheet === null ? tables[0] : tables.find((t) => t.name === sheet);
    if (!found) throw new ImportFaultError("no-such-sheet", "The package has no such table. Choose one of those it has.");
    return found;
  };
  const bytes = (sheet: string | null) => stream(table(sheet).part!);
  return {
    format: "package",
    sheets: tables.map((t) => t.name),
    title,
    table,
    codebook: (sheet) => table(sheet).codebook,
    bytes,
    rows: async function* (options) {
      const { part, data, guarded } = table(options.sheet);
      const rows =
        part === null
          ? jsonRows(JSON.stringify(data))
          : delimitedRows(decodeText(bytes(options.sheet), options.encoding), options.delimiter);
      for await (const batch of rows)
        yield guarded
          ? { ...batch, rows: batch.rows.map((row) => row.map((cell) => (typeof cell === "string" ? unguarded(cell) : cell))) }
          : batch;
    },
    close,
  };
}

/** The first `most` bytes of a file. */
export async function firstBytes(path: string, most: number): Promise<Uint8Array> {
  const file = await open(path);
  try {
    const { bytesRead, buffer } = await file.read(Buffer.alloc(most), 0, most, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await file.close();
  }
}

async function looksLikeJson(path: string): Promise<boolean> {
  const head = new TextDecoder().decode(await firstBytes(path, 256)).trimStart();
  return /^\{\s*("|\}|$)|^\[\s*([[{\]]|$)/.test(head);
}

/** The encoding of the delimited text of a file, as found from its bytes or said beside it. */
export async function encodingOf(file: OpenedFile, sheet: string | null) {
  const said = file.table(sheet)?.hint.encoding?.toLowerCase();
  if (said !== undefined && /^utf-?8$/.test(said)) return { encoding: "utf-8" as const, why: "the package says so" };
  if (said !== undefined && /^(iso-?8859-?1|latin-?1|windows-?1252|cp1252)$/.test(said))
    return { encoding: "windows-1252" as const, why: "the package says so" };
  return findEncoding(file.bytes(sheet));
}
