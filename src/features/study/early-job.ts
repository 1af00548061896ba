import { browserPool } from "@/compute/browser/browser-pool";
import type { Job } from "@/compute/protocol/jobs";
import type { Progress, Urgency } from "@/compute/worker-pool";
import type { ResponseColumn } from "@/study/model/response-column";

interface Early {
  result: Promise<unknown>;
  stop: AbortController;
  heard: { progress?: Progress };
}

/**
 * Jobs that were begun while the page still woke up, by what they are of. They wait here and not among the page's results: what is drawn while it wakes up must be what
 * the server has drawn, without numbers.
 */
const begun = new Map<string, Early>();

const keyOf = (job: Job, dataset: string) => `${dataset} ${JSON.stringify(job)}`;

/** Begins a job that the page will ask for in a moment. Should it not, or should the columns not come, nothing is lost but the moment. */
export function beginEarly(job: Job, dataset: string, columns: Promise<readonly ResponseColumn[]>): void {
  const heard: Early["heard"] = {};
  const stop = new AbortController();
  const result = columns.then((data) =>
    browserPool().run(job, dataset, data, stop.signal, (done, of) => heard.progress?.(done, of), "now"),
  );
  result.catch(() => undefined); // told to whoever asks
  begun.set(keyOf(job, dataset), { result, stop, heard });
}

/** A job's result: of the one that was begun early where there is one, which is then nobody else's. @throws JobError */
export function runBegun(
  job: Job,
  dataset: string,
  columns: readonly ResponseColumn[],
  signal: AbortSignal,
  progress: Progress,
  urgency: Urgency,
): Promise<unknown> {
  const key = keyOf(job, dataset);
  const early = begun.get(key);
  if (!early) return browserPool().run(job, dataset, columns, signal, progress, urgency);
  begun.delete(key);
  early.heard.progress = progress;
  signal.addEventListener("abort", () => early.stop.abort(), { once: true });
  return early.result;
}
