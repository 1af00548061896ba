import { createHash, randomUUID } from "node:crypto";
import { createReadStream, createWriteStream } from "node:fs";
import { mkdir, rm } from "node:fs/promises";
import path from "node:path";
import { type Readable, Transform } from "node:stream";
import { pipeline } from "node:stream/promises";
import { columnFacts } from "@/files/column-facts";
import { ImportFaultError } from "@/files/import-fault";
import { type DelimitedData, readDelimited } from "@/files/read-delimited";
import type { Study } from "@/study/model/study";
import { guessCodebook } from "@/study/prepare/guess-codebook";
import { type Database, dataFolder } from "./database";
import { responsesRepository } from "./repositories/responses-repository";
import type { SavedStudy } from "./repositories/studies-repository";
import { openStudy } from "./study-door";

/** The largest file taken in. */
const MOST_BYTES = 2_000_000_000;

/**
 * Takes in a file as a new study: saves the upload to a temporary file, then reads that in one pass. The study appears
 * whole or not at all; the temporary file goes in either case.
 * @param upload the file's bytes
 * @param file.expected bytes announced by the sender; an upload that ends early is refused
 * @param signal when the sender goes away, the import ends and leaves nothing
 * @throws ImportFaultError with what to do; the signal's reason
 */
export async function importAsStudy(
  db: Database,
  upload: Readable,
  file: { name: string; expected: number | null },
  folder = dataFolder(),
  signal?: AbortSignal,
): Promise<SavedStudy> {
  const temporary = path.join(folder, "uploads", randomUUID());
  await mkdir(path.dirname(temporary), { recursive: true });
  const datasetId = randomUUID();
  const responses = responsesRepository(db);
  try {
    const source = await save(upload, temporary, file.expected);
    responses.begin(datasetId, file.name);
    const data = await readDelimited(createReadStream(temporary, { signal }), (chunk) => responses.addChunk(datasetId, chunk));
    signal?.throwIfAborted();
    return db.transaction((tx) => {
      responsesRepository(tx).finish(datasetId, data, source);
      return openStudy(tx, randomUUID(), firstStudy(file.name, data), { id: datasetId, fileName: file.name });
    });
  } catch (error) {
    responses.abandon(datasetId);
    throw error;
  } finally {
    await rm(temporary, { force: true });
  }
}

async function save(upload: Readable, to: string, expected: number | null): Promise<{ bytes: number; sha256: string }> {
  const hash = createHash("sha256");
  let bytes = 0;
  const count = new Transform({
    transform(piece: Buffer, _encoding, done) {
      bytes += piece.length;
      hash.update(piece);
      if (bytes > MOST_BYTES)
        done(new ImportFaultError("too-large", "The file is larger than 2 GB. Keep the columns you need and drop it again."));
      else done(null, piece);
    },
  });
  await pipeline(upload, count, createWriteStream(to));
  if (expected !== null && bytes !== expected) {
    throw new ImportFaultError("cut-short", "The file did not arrive whole. Nothing was kept; please drop it again.");
  }
  return { bytes, sha256: hash.digest("hex") };
}

/** A study named after its file, with guessed kinds and nothing else decided. */
function firstStudy(fileName: string, data: DelimitedData): Study {
  const name =
    fileName
      .replace(/\.(csv|tsv|txt)$/i, "")
      .replace(/[_-]+/g, " ")
      .trim() || "New study";
  const codebook = guessCodebook(data.columns.map(columnFacts));
  return { format: "beta-step-study", version: 1, name: name.slice(0, 200), codebook, scales: [], ladders: [], comparisons: [] };
}
