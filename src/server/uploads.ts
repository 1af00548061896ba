import { createHash, randomUUID } from "node:crypto";
import { createWriteStream } from "node:fs";
import { mkdir, readdir, readFile, rm, stat, writeFile } from "node:fs/promises";
import path from "node:path";
import { type Readable, Transform } from "node:stream";
import { pipeline } from "node:stream/promises";
import { z } from "zod";
import { ImportFaultError } from "@/files/reading/import-fault";
import { dataFolder } from "./data-folder";
import { NotFoundError } from "./errors";
import { parseStored } from "./parse-stored";

/** The largest file taken in. */
const MOST_BYTES = 2_000_000_000;
/** A file that was looked at and never taken goes after this long. */
const KEEP_MS = 24 * 3600_000;

/** An upload of which nothing arrives for so long has ended. */
const SILENT_MS = 30_000;

const Kept = z.strictObject({ name: z.string(), bytes: z.int(), sha256: z.string() });

/** A file that has arrived and waits to be looked at and taken in. */
export interface Upload extends z.infer<typeof Kept> {
  id: string;
  path: string;
}

const Id = z.uuid();
const folderOf = (folder: string) => path.join(folder, "uploads");

/**
 * Saves a file on its way in, without reading it.
 * @param file.expected bytes announced by the sender; an upload that ends early is refused
 * @throws ImportFaultError; then nothing of it stays
 */
export async function saveUpload(
  bytes: Readable,
  file: { name: string; expected: number | null },
  folder = dataFolder(),
  silent = SILENT_MS,
): Promise<Upload> {
  const id = randomUUID();
  await mkdir(folderOf(folder), { recursive: true, mode: 0o700 });
  const to = path.join(folderOf(folder), id);
  const hash = createHash("sha256");
  let size = 0;
  const stalled = new AbortController();
  let silence = setTimeout(() => stalled.abort(), silent);
  const count = new Transform({
    transform(piece: Buffer, _encoding, done) {
      clearTimeout(silence);
      silence = setTimeout(() => stalled.abort(), silent);
      size += piece.length;
      hash.update(piece);
      if (size > MOST_BYTES)
        done(new ImportFaultError("too-large", "The file is larger than 2 GB. Keep the columns you need and drop it again."));
      else done(null, piece);
    },
  });
  try {
    await pipeline(bytes, count, createWriteStream(to, { mode: 0o600 }), { signal: stalled.signal }).catch((error: unknown) => {
      throw stalled.signal.aborted
        ? new ImportFaultError(
            "stalled",
            `Nothing more of the file arrived for ${silent / 1000} seconds. Nothing was kept; please drop it again.`,
          )
        : error;
    });
    if (file.expected !== null && size !== file.expected)
      throw new ImportFaultError("cut-short", "The file did not arrive whole. Nothing was kept; please drop it again.");
    const kept = { name: file.name, bytes: size, sha256: hash.digest("hex") };
    await writeFile(`${to}.json`, JSON.stringify(kept), { mode: 0o600 });
    return { id, path: to, ...kept };
  } catch (error) {
    await discardUpload(id, folder);
    throw error;
  } finally {
    clearTimeout(silence);
  }
}

/** @throws NotFoundError when it is not, or no longer, there */
export async function findUpload(id: string, folder = dataFolder()): Promise<Upload> {
  const file = path.join(folderOf(folder), Id.parse(id));
  const kept = await readFile(`${file}.json`, "utf8").catch(() => {
    throw new NotFoundError({ what: "uploaded file", id });
  });
  return { id, path: file, ...parseStored(Kept, kept, { table: "uploads", id }) };
}

export async function discardUpload(id: string, folder = dataFolder()): Promise<void> {
  const file = path.join(folderOf(folder), Id.parse(id));
  await Promise.all([rm(file, { force: true }), rm(`${file}.json`, { force: true })]);
}

/** Removes files that were looked at a day ago or more and never taken in. */
export async function sweepUploads(folder = dataFolder(), now = Date.now()): Promise<void> {
  for (const name of await readdir(folderOf(folder)).catch(() => [])) {
    const file = path.join(folderOf(folder), name);
    const facts = await stat(file).catch(() => null);
    if (facts && now - facts.mtimeMs > KEEP_MS) await rm(file, { force: true });
  }
}
