import { askedKind } from "@/study/kinds/kinds";
import type { StudyContext } from "@/study/model/context";
import type { ResponseSource } from "@/study/model/response-column";
import type { RunJob } from "../replicates";
import { kindOf } from "../protocol/kind-of";
import { runJob, type Shelves } from "../run-job";

/** Does jobs right here, one shelf for all of them. */
export function runHere(source: ResponseSource): RunJob {
  const shelves: Shelves = new Map();
  return async (job) => {
    const kind = kindOf(job);
    const analysis = kind === null ? null : (await askedKind(kind).load()).analysis;
    return runJob(job, analysis, source, null, undefined, shelves) as never;
  };
}

/** What jobs stand on: the part of a study they depend on, and how many rows the data have. */
export function groundOf({ codebook, scales, corrections = [], readings = [], derived = [], filters = [] }: StudyContext, rows = 0) {
  return { context: { codebook, scales, corrections, readings, derived, filters }, rows };
}
