import type { ResponseSource } from "@/study/model/response-column";
import type { StudyContext } from "@/study/model/study";
import type { RunJob } from "../bootstrap";
import type { Job } from "../protocol/jobs";
import { runJob, type Shelves } from "../run-job";

/** Does jobs right here, one shelf for all of them. */
export function runHere(source: ResponseSource): RunJob {
  const shelves: Shelves = { eigenvalues: new Map(), resamplings: new Map() };
  return async (job) => runJob(job, source, null, undefined, shelves) as never;
}

/** The part of a study jobs depend on. */
export function contextOf({
  codebook,
  scales,
  corrections = [],
  derived = [],
  filters = [],
}: StudyContext): Extract<Job, { context: unknown }>["context"] {
  return { codebook, scales, corrections, derived, filters };
}
