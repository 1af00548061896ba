import type { Ladder } from "@/study/model/ladder";
import type { Job, JobResults } from "./protocol/jobs";

/** Does a job somewhere: in a worker of the page, or right here. */
export type RunJob = <K extends Job["kind"]>(job: Extract<Job, { kind: K }>) => Promise<JobResults[K]>;

/** Replicates of a ladder so far. */
export interface ReplicatesSoFar {
  values: Float64Array;
  redrawn: number;
  count: number;
  /** How many there will be. */
  of: number;
}

/** So many come first: enough for a first look at every interval. */
const FIRST = 500;

/** So often a range is tried: what breaks down every worker is not the worker's fault. */
const MOST_TRIES = 3;

/**
 * The replicates of a ladder, in ranges that can be dealt out to any number of workers: the numbers are the same.
 * @param at once how many ranges are asked for at a time
 * @param told of the first replicates, and of how many there are
 */
export async function replicatesOf(
  run: RunJob,
  job: Pick<Extract<Job, { kind: "replicates" }>, "context" | "ladder">,
  atOnce: number,
  told: { first: (so: ReplicatesSoFar) => void; progress: (done: number, of: number) => void },
): Promise<ReplicatesSoFar> {
  const { intervals } = job.ladder;
  if (intervals.by === "normal") throw new Error("a ladder with intervals by normal theory has no replicates");
  const of = intervals.replicates;
  const ranges = [...rangesOf(0, FIRST, Math.ceil(FIRST / atOnce)), ...rangesOf(FIRST, of, Math.max(250, Math.ceil(of / 40)))];
  const pieces = new Array<JobResults["replicates"]>(ranges.length);
  let [next, done, firstTold] = [0, 0, false];
  const gathered = (upTo: number): ReplicatesSoFar => {
    const parts = pieces.slice(0, upTo);
    const values = new Float64Array(parts.reduce((sum, p) => sum + p.values.length, 0));
    let at = 0;
    for (const part of parts) {
      values.set(part.values, at);
      at += part.values.length;
    }
    const count = ranges.slice(0, upTo).reduce((sum, r) => sum + r.count, 0);
    return { values, redrawn: parts.reduce((sum, p) => sum + p.redrawn, 0), count, of };
  };
  const firstRanges = ranges.filter((r) => r.first < FIRST).length;
  const work = async () => {
    while (next < ranges.length) {
      const at = next++;
      const range = ranges[at]!;
      pieces[at] = await again(() => run<"replicates">({ kind: "replicates", ...job, ...range }));
      done += range.count;
      told.progress(done, of);
      if (!firstTold && pieces.slice(0, firstRanges).filter(Boolean).length === firstRanges) {
        firstTold = true;
        if (firstRanges < ranges.length) told.first(gathered(firstRanges));
      }
    }
  };
  await Promise.all(Array.from({ length: atOnce }, work));
  return gathered(ranges.length);
}

/** A range whose worker broke down is done again by another: its replicates are the same. */
async function again<T>(work: () => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await work();
    } catch (error) {
      const crashed = (error as { code?: unknown } | null)?.code === "worker-crashed";
      if (!crashed || attempt === MOST_TRIES) throw error;
    }
  }
}

function rangesOf(from: number, to: number, size: number): { first: number; count: number }[] {
  const ranges: { first: number; count: number }[] = [];
  for (let first = from; first < to; first += size) ranges.push({ first, count: Math.min(size, to - first) });
  return ranges;
}

/** What replicates depend on: neither how limits are read from them, nor names. */
export function forReplicates(ladder: Ladder): Ladder {
  const { intervals } = ladder;
  return { ...ladder, confidence: 0.95, intervals: intervals.by === "normal" ? intervals : { ...intervals, by: "bca" } };
}
