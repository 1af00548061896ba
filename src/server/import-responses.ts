import { randomUUID } from "node:crypto";
import type { Readable } from "node:stream";
import type { ColumnChunk } from "@/files/column-builder";
import { ImportFaultError } from "@/files/reading/import-fault";
import type { TableOptions } from "@/files/reading/table-options";
import { Study } from "@/study/model/study";
import { type Variable } from "@/study/model/variable";
import { dataFolder } from "./data-folder";
import { type Database, giveBack } from "./database";
import { readUpload, understandUpload } from "./reader/reader";
import { type ImportedTable, responsesRepository } from "./repositories/responses-repository";
import type { SavedStudy } from "./repositories/studies-repository";
import { openStudy } from "./study-door";
import { discardUpload, saveUpload, type Upload } from "./uploads";

/** How far a reading is, and how to end it. */
export interface Watch {
  signal?: AbortSignal | undefined;
  progress?: ((rows: number) => void) | undefined;
}

/** A table that was read into a dataset of its own, which nothing stands on yet. */
export interface ReadResponses {
  datasetId: string;
  rows: number;
  /** What came with the file, or is guessed from the columns. */
  codebook: Variable[];
  title: string;
}

/**
 * Reads a file into a new dataset, in one pass, chunk by chunk. When anything goes wrong nothing of it stays.
 * @throws ImportFaultError with what to do; the signal's reason
 */
export async function readResponses(db: Database, upload: Upload, options: TableOptions, watch: Watch = {}): Promise<ReadResponses> {
  const datasetId = randomUUID();
  const responses = responsesRepository(db);
  responses.begin(datasetId, upload.name);
  const take = (chunks: ColumnChunk[]) => db.transaction((tx) => responsesRepository(tx).addChunks(datasetId, chunks));
  try {
    const table = await readUpload(upload.path, options, take, watch);
    watch.signal?.throwIfAborted();
    const { rows, codebook, title } = table;
    await describe(db, datasetId, table.columns);
    watch.signal?.throwIfAborted();
    responses.finish(datasetId, { rows, chunkRows: table.chunkRows, options }, { bytes: upload.bytes, sha256: upload.sha256 });
    return { datasetId, rows, codebook, title };
  } catch (error) {
    await responses.abandonSlowly(datasetId);
    await giveBack(db);
    throw error;
  }
}

/** So many columns are described in one go, so that others are served in between. */
const DESCRIBED_AT_ONCE = 100;

/** Describes the columns of an import, before it is whole. */
export async function describe(db: Database, datasetId: string, columns: ImportedTable["columns"]): Promise<void> {
  for (let at = 0; at < columns.length; at += DESCRIBED_AT_ONCE) {
    db.transaction((tx) => responsesRepository(tx).describeColumns(datasetId, at, columns.slice(at, at + DESCRIBED_AT_ONCE)));
    await new Promise(setImmediate);
  }
}

/**
 * A file that has arrived becomes a new study, whole or not at all.
 * @throws ImportFaultError with what to do; the signal's reason
 */
export async function beginStudy(db: Database, upload: Upload, options: TableOptions, watch: Watch = {}): Promise<SavedStudy> {
  const { datasetId, rows, codebook, title } = await readResponses(db, upload, options, watch);
  const study = Study.parse({
    format: "beta-step-study",
    version: 1,
    name: (title.trim() || studyName(upload.name)).slice(0, 200),
    responses: { dataset: datasetId, fileName: upload.name, rows },
    codebook,
  });
  return db.transaction((tx) => openStudy(tx, randomUUID(), study));
}

/** Takes in a file as a new study just as it is understood, without showing it first: for programs, not for people. */
export async function importAsStudy(
  db: Database,
  bytes: Readable,
  file: { name: string; expected: number | null },
  folder = dataFolder(),
  signal?: AbortSignal,
): Promise<SavedStudy> {
  const upload = await saveUpload(bytes, file, folder);
  try {
    const { options, fault } = await understandUpload(upload.path);
    if (fault) throw new ImportFaultError(fault.code, fault.message);
    return await beginStudy(db, upload, options, { signal });
  } finally {
    await discardUpload(upload.id, folder);
  }
}

function studyName(fileName: string): string {
  const plain = fileName
    .replace(/\.(csv|tsv|txt|xlsx|ods|json|jsonl|zip)$/i, "")
    .replace(/[_-]+/g, " ")
    .trim();
  return plain || "New study";
}
