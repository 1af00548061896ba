import { replicatesOf } from "@/core/resampling/resampler";
import { jackknifeOf, limitsOf } from "@/study/analyse/resampling";
import type { AnyAnalysis, Desk, Ready } from "@/study/kinds/kind";
import type { ResponseSource } from "@/study/model/response-column";
import { type ColumnCache, StudyColumns } from "@/study/prepare/study-columns";
import type { Job, JobResults } from "./protocol/jobs";

/** What a worker keeps ready besides columns, by what it is kept for. */
export type Shelves = Map<string, Map<string, unknown>>;

/**
 * Does one job. The same function runs in a browser worker, in Node and in a test.
 * @param analysis of the kind that the job is about: kindOf says which; null where it is about none
 * @param cache, shelves keep from job to job what takes long to make
 * @param progress told how many parts of a long job are done; may throw to stop it
 * @throws what the kind's analysis throws
 */
export function runJob(
  job: Job,
  analysis: AnyAnalysis | null,
  responses: ResponseSource,
  cache: ColumnCache | null = null,
  progress: (done: number, of: number) => void = () => {},
  shelves: Shelves = new Map(),
): JobResults[keyof JobResults] {
  if (job.kind === "limits") return limitsOf(job.values, job.figures, job.expected, job.pairs, job);
  const desk: Desk = {
    study: job.context,
    responses,
    columns: new StudyColumns(job.context, responses, cache),
    rows: job.rows,
    objects: () => [],
    progress,
    shelf: <T>(of: string) => shelfOf<T>(shelves, of),
  };
  switch (job.kind) {
    case "replicates":
    case "jackknife": {
      const { ready } = analysis!;
      const known = shelfOf<Ready>(shelves, "made ready to be resampled");
      const key = JSON.stringify([job.context, job.of, job.everything]);
      const made = known.get(key) ?? ready!(job.of.spec, desk, job.everything);
      known.clear(); // one thing at a time: it is large
      known.set(key, made);
      return job.kind === "jackknife" ? jackknifeOf(made, job) : replicatesOf(made, job.seed, job, (done) => progress(done, job.count));
    }
    case "parts":
      return analysis!.dealt?.count(job.of.spec, desk) ?? 0;
    case "part":
      return analysis!.dealt!.range(job.of.spec, desk, job);
    default:
      return analysis!.run(job.spec, desk) as JobResults[keyof JobResults];
  }
}

function shelfOf<T>(shelves: Shelves, of: string): Map<string, T> {
  const shelf = shelves.get(of) ?? new Map<string, unknown>();
  shelves.set(of, shelf);
  return shelf as Map<string, T>;
}
