import { randomUUID } from "node:crypto";
import { z } from "zod";
import { Title } from "@/study/model/names";
import { emptyColumn } from "@/study/model/response-column";
import { Study, type StudyResponses } from "@/study/model/study";
import { Variable } from "@/study/model/variable";
import type { Database } from "./database";
import { describe } from "./import-responses";
import { responsesRepository } from "./repositories/responses-repository";
import type { SavedStudy } from "./repositories/studies-repository";
import { openStudy } from "./study-door";

/** A study that is planned before anybody has answered: a name, and the variables that will be asked for. */
export const PlannedStudy = z.strictObject({ name: Title, codebook: z.array(Variable).min(1, "A plan needs variables.").max(20_000) });
type PlannedStudy = z.infer<typeof PlannedStudy>;

const SUMMARY = { numbers: 0, empties: 0, words: 0, low: null, high: null, wholeNumbers: true, running: false, numberCounts: [] };

/** A new study over responses that hold no row yet: the answers come in as the responses that replace them. */
export async function beginPlan(db: Database, { name, codebook }: PlannedStudy): Promise<SavedStudy> {
  const responses = await withoutAnswers(db, codebook, "no answers yet");
  const study = Study.parse({ format: "beta-step-study", version: 1, name, responses, codebook });
  return db.transaction((tx) => openStudy(tx, randomUUID(), study));
}

/** Responses without a row, with a column for each variable of a codebook. */
export async function withoutAnswers(db: Database, codebook: readonly Variable[], fileName: string): Promise<StudyResponses> {
  const dataset = randomUUID();
  const responses = responsesRepository(db);
  responses.begin(dataset, fileName);
  try {
    codebook.forEach((v, position) => responses.addColumn(dataset, position, emptyColumn(v.name, 0)));
    await describe(db, dataset, codebook.map((v) => ({ name: v.name, texts: "[]", summary: SUMMARY }))); // prettier-ignore
    responses.finish(dataset, { rows: 0, chunkRows: 65_536, options: { delimiter: ",", decimal: "." } }, { bytes: 0, sha256: "" });
    return { dataset, fileName, rows: 0 };
  } catch (error) {
    responses.abandon(dataset);
    throw error;
  }
}
