import { createHash } from "node:crypto";
import { createReadStream } from "node:fs";
import { readFile } from "node:fs/promises";
import path from "node:path";
import { z } from "zod";
import type { ColumnChunk } from "@/files/column-builder";
import { columnFacts } from "@/files/column-facts";
import { ImportFaultError } from "@/files/reading/import-fault";
import { joinColumns } from "@/files/join-columns";
import { openTable } from "@/files/reading/open-table";
import { readTable, type TableData } from "@/files/reading/read-table";
import type { GivenOptions } from "@/files/reading/understanding";
import { understandFile } from "@/files/reading/understand-file";
import { type Analyses, loadAnalyses, resultsDocument } from "@/study/analyse/results-document";
import type { ResponseColumn } from "@/study/model/response-column";
import type { RunJob } from "../replicates";
import { workedOut } from "../worked-out";
import type { WorkerPool } from "../worker-pool";
import { threadCount, threadPool } from "./thread-pool";
import { Study } from "@/study/model/study";
import { NewerDocumentError, upgradeStudy } from "@/study/model/upgrade";
import { guessCodebook } from "@/study/prepare/guess-codebook";

/** A mistake in the call or in a file, told in one sentence; exit code 2. */
export class CallError extends Error {}

/**
 * The results document of a study on a data file, with the core the page uses (docs/results.md).
 * @throws CallError when a file cannot be read as what it should be
 */
export async function computeFile(studyFile: string, dataFile: string) {
  const text = await read(studyFile);
  const { data, columns, sha256 } = await readData(dataFile);
  const study = parseStudy(text, studyFile, data);
  const results = await computeStudy(study, columns);
  return { ...results, data: { file: path.basename(dataFile), rows: data.rows, sha256 } };
}

/** Every result of a study on columns that were read. */
export async function computeStudy(study: Study, columns: ReadonlyMap<string, ResponseColumn>) {
  const analyses = await loadAnalyses();
  const worked = await onThreads(study, [...columns.values()], analyses);
  return resultsDocument(study, (name) => columns.get(name), analyses, worked);
}

/** A file of answers as columns. @param given what is known of how it is written @throws CallError */
export async function readData(dataFile: string, given: Pick<GivenOptions, "decimal"> = {}) {
  const hash = createHash("sha256");
  const chunks: ColumnChunk[] = [];
  let data: TableData;
  try {
    for await (const piece of createReadStream(dataFile)) hash.update(piece as Buffer);
    const { options, fault } = await understandFile(dataFile, given);
    if (fault) throw new ImportFaultError(fault.code, fault.message);
    const file = await openTable(dataFile);
    data = await readTable(file, options, (chunk) => chunks.push(chunk)).finally(() => file.close());
  } catch (error) {
    if (error instanceof ImportFaultError) throw new CallError(`${dataFile}: ${error.message}`);
    throw fileError(error, dataFile);
  }
  const columns = joinColumns(data, chunks);
  return { data, columns, sha256: hash.digest("hex") };
}

/** What takes long of every object, on all processors. */
async function onThreads(study: Study, columns: ResponseColumn[], analyses: Analyses) {
  const ground = { rows: columns[0]?.values.length ?? 0, file: columns.map((column) => column.name) };
  let pool: WorkerPool | null = null;
  const run: RunJob = (job) => (pool ??= threadPool()).run(job, "data", columns);
  try {
    return await workedOut(study, ground, analyses, run, threadCount());
  } finally {
    (pool as WorkerPool | null)?.close();
  }
}

async function read(file: string): Promise<string> {
  try {
    return await readFile(file, "utf8");
  } catch (error) {
    throw fileError(error, file);
  }
}

function fileError(error: unknown, file: string): unknown {
  const code = error instanceof Error && "code" in error ? error.code : null;
  if (code === "ENOENT") return new CallError(`${file}: there is no such file.`);
  if (code === "EACCES" || code === "EISDIR") return new CallError(`${file}: this cannot be read as a file.`);
  return error;
}

/** The document, its codebook completed by guesses for columns it does not mention. */
function parseStudy(text: string, file: string, data: TableData): Study {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    throw new CallError(`${file}: this is not valid JSON.`);
  }
  const Partial = z.looseObject({
    codebook: z.array(z.looseObject({ name: z.string() })).default([]),
    derived: z.array(z.looseObject({ name: z.string() })).default([]),
  });
  const partial = Partial.safeParse(upgraded(raw, file));
  if (!partial.success) throw new CallError(`${file}: ${z.prettifyError(partial.error)}`);
  const known = new Set(partial.data.codebook.map((v) => v.name.trim())); // as the study's door does
  const taken = data.columns.find(({ name }) => partial.data.derived.some((d) => d.name === name))?.name;
  if (taken !== undefined)
    throw new CallError(
      `${file}: "${taken}" is worked out by the study and is a column of the data as well. Give one of them another name.`,
    );
  const guessed = guessCodebook(data.columns.map(columnFacts));
  const whole = Study.safeParse({ ...partial.data, codebook: [...partial.data.codebook, ...guessed.filter((v) => !known.has(v.name))] });
  if (!whole.success) throw new CallError(`${file}: ${z.prettifyError(whole.error)}`);
  return whole.data;
}

function upgraded(raw: unknown, file: string): unknown {
  try {
    return upgradeStudy(raw);
  } catch (error) {
    if (error instanceof NewerDocumentError) throw new CallError(`${file}: ${error.message}`);
    throw error;
  }
}
