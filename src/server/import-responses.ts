import { randomUUID } from "node:crypto";
import type { Readable } from "node:stream";
import { columnFacts } from "@/files/column-facts";
import { ImportFaultError } from "@/files/reading/import-fault";
import { openTable } from "@/files/reading/open-table";
import { readTable, type TableData } from "@/files/reading/read-table";
import type { TableOptions } from "@/files/reading/table-options";
import { understandFile } from "@/files/reading/understand-file";
import { Study } from "@/study/model/study";
import { type Variable } from "@/study/model/variable";
import { guessCodebook } from "@/study/prepare/guess-codebook";
import { dataFolder } from "./data-folder";
import type { Database } from "./database";
import { responsesRepository } from "./repositories/responses-repository";
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
  data: TableData;
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
  const file = await openTable(upload.path);
  try {
    responses.begin(datasetId, upload.name);
    const data = await readTable(file, options, (chunk) => responses.addChunk(datasetId, chunk), watch);
    watch.signal?.throwIfAborted();
    db.transaction((tx) => responsesRepository(tx).finish(datasetId, data, { bytes: upload.bytes, sha256: upload.sha256 }));
    return { datasetId, data, codebook: firstCodebook(data, file.codebook(options.sheet)), title: file.title };
  } catch (error) {
    responses.abandon(datasetId);
    throw error;
  } finally {
    file.close();
  }
}

/** What came with the file, completed by guesses; a column of percentages has their sign for its unit. */
function firstCodebook(data: TableData, said: readonly Variable[]): Variable[] {
  const described = new Map(said.map((v) => [v.name, v]));
  return guessCodebook(data.columns.map(columnFacts)).map((guess, at) => {
    const unit = data.facts.percents.has(at) ? "%" : guess.unit;
    return described.get(guess.name) ?? { ...guess, unit };
  });
}

/**
 * A file that has arrived becomes a new study, whole or not at all.
 * @throws ImportFaultError with what to do; the signal's reason
 */
export async function beginStudy(db: Database, upload: Upload, options: TableOptions, watch: Watch = {}): Promise<SavedStudy> {
  const { datasetId, data, codebook, title } = await readResponses(db, upload, options, watch);
  const study = Study.parse({
    format: "beta-step-study",
    version: 1,
    name: (title.trim() || studyName(upload.name)).slice(0, 200),
    responses: { dataset: datasetId, fileName: upload.name, rows: data.rows },
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
    const { options, fault } = await understandFile(upload.path);
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
