import { ladderShuffles, shuffledRange } from "@/study/analyse/case-results";
import { analyseComparison } from "@/study/analyse/analyse-comparison";
import { jackknifeOf, limitsOf, replicatesOfRange, type ResamplingShelf } from "@/study/analyse/resampled";
import { ladderDepth } from "@/study/analyse/ladder-depth";
import { analyseLadder } from "@/study/analyse/analyse-ladder";
import { analyseScale } from "@/study/analyse/analyse-scale";
import { analyseStructure, type RandomEigenvalueShelf } from "@/study/analyse/analyse-structure";
import { partStrip } from "@/study/analyse/answer-strip";
import { checkResponses } from "@/study/analyse/responses/check-responses";
import { filterResult } from "@/study/analyse/responses/filter-result";
import { missingPattern } from "@/study/analyse/responses/missing-pattern";
import { rowList } from "@/study/analyse/responses/row-list";
import { variableLook } from "@/study/analyse/responses/variable-look";
import type { ResponseSource } from "@/study/model/response-column";
import { type ColumnCache, StudyColumns } from "@/study/prepare/study-columns";
import type { Job, JobResults } from "./protocol/jobs";

/** What a worker keeps ready besides columns. */
export interface Shelves {
  readonly eigenvalues: RandomEigenvalueShelf;
  readonly resamplings: ResamplingShelf;
}

/** What two jobs share that resample the same thing on the same answers. */
const resampledKey = ({ context, of }: Extract<Job, { of: unknown }>) =>
  JSON.stringify([
    context,
    of.what === "ladder" ? { ...of, ladder: { ...of.ladder, intervals: null, confidence: null, seed: null } } : of.scale,
  ]);

/**
 * Does one job. The same function runs in a browser worker, in Node and in a test.
 * @param cache, shelves keep from job to job what takes long to make
 * @param progress told how many parts of a long job are done
 */
export function runJob(
  job: Job,
  responses: ResponseSource,
  cache: ColumnCache | null = null,
  progress: (done: number, of: number) => void = () => {},
  shelves: Shelves = { eigenvalues: new Map(), resamplings: new Map() },
): JobResults[keyof JobResults] {
  if (job.kind === "limits") return limitsOf(job.values, job.figures, job.expected, job.pairs, job);
  const columns = new StudyColumns(job.context, responses, cache);
  switch (job.kind) {
    case "ladder":
      return analyseLadder(job.context, job.ladder, responses, columns);
    case "ladder-depth":
      return ladderDepth(job.ladder, job.step, columns);
    case "replicates":
      return replicatesOfRange(job.of, columns, job, shelves.resamplings, resampledKey(job), (done) => progress(done, job.count));
    case "jackknife":
      return jackknifeOf(job.of, columns, job, shelves.resamplings, resampledKey(job));
    case "shuffles":
      return ladderShuffles(job.ladder, columns);
    case "shuffled":
      return shuffledRange(job.ladder, columns, job);
    case "comparison":
      return analyseComparison(job.context, job.comparison, job.ladders, responses, columns);
    case "scale":
      return analyseScale(job.context, job.scale, responses, columns);
    case "structure":
      return analyseStructure(job.structure, columns, progress, shelves.eigenvalues);
    case "strips":
      return job.variables.map((name) => partStrip(name, columns));
    case "column":
      return columns.column(job.name);
    case "look":
      return variableLook(
        job.name,
        job.context.derived.some((d) => d.name === job.name),
        columns,
      );
    case "checks":
      return checkResponses(job.context, columns, job.rows);
    case "missing":
      return missingPattern(job.names, columns, job.rows);
    case "row-list":
      return rowList(job.context, columns, job.rows, job.shown, job.order);
    case "filter":
      return filterResult(job.filter, columns, job.rows);
  }
}
