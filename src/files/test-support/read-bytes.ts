import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import type { ColumnChunk } from "../column-builder";
import { joinColumns } from "../join-columns";
import { delimitedRows } from "../reading/delimited-rows";
import { type OpenedFile, openTable } from "../reading/open-table";
import { readTable } from "../reading/read-table";
import type { TableOptions } from "../reading/table-options";
import { decodeText } from "../reading/text-stream";
import { understandFile } from "../reading/understand-file";
import type { GivenOptions } from "../reading/understanding";

/** The bytes as a file on disk while something is done with it. */
export async function withFile<T>(content: string | Uint8Array, work: (path: string) => Promise<T>): Promise<T> {
  const folder = mkdtempSync(path.join(tmpdir(), "beta-step-file-"));
  const file = path.join(folder, "file");
  writeFileSync(file, content);
  return work(file).finally(() => rmSync(folder, { recursive: true }));
}

/**
 * A file as it is understood and read.
 * @param size delimited text comes in pieces of so many bytes, so that every character and quote is cut somewhere
 */
export function readBytes(content: string | Uint8Array, { given = {}, size = null }: { given?: GivenOptions; size?: number | null } = {}) {
  return withFile(content, async (path) => {
    const understanding = await understandFile(path, given);
    const opened = await openTable(path);
    const file = size === null || opened.format !== "delimited" ? opened : inPieces(opened, size);
    const chunks: ColumnChunk[] = [];
    const data = await readTable(file, understanding.options, (chunk) => chunks.push(chunk)).finally(() => opened.close());
    return { understanding, data, columns: joinColumns(data, chunks) };
  });
}

function inPieces(opened: OpenedFile, size: number): OpenedFile {
  async function* pieces() {
    for await (const bytes of opened.bytes(null)) for (let at = 0; at < bytes.length; at += size) yield bytes.subarray(at, at + size);
  }
  return { ...opened, rows: (options: TableOptions) => delimitedRows(decodeText(pieces(), options.encoding), options.delimiter) };
}
