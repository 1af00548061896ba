import type { RandomEigenvalueShelf } from "@/study/analyse/analyse-structure";
import type { ResamplingShelf } from "@/study/analyse/resampled";
import type { ResponseColumn } from "@/study/model/response-column";
import { type FromWorker, ToWorker } from "./protocol/messages";
import { CoreError } from "@/core/errors";
import { ColumnShelf } from "./column-shelf";
import { transferable } from "./protocol/transferable";
import { runJob } from "./run-job";

/**
 * The worker's side of the protocol: keeps the columns it was sent, answers each job once.
 * @param answer posts a message back, and hands buffers over; the worker's own postMessage, or a port in a test
 */
export function workerDesk(answer: (message: FromWorker, transfer: ArrayBuffer[]) => void): (data: unknown) => void {
  const datasets = new Map<string, { columns: Map<string, ResponseColumn>; shelf: ColumnShelf; resamplings: ResamplingShelf }>();
  const eigenvalues: RandomEigenvalueShelf = new Map();

  return (data) => {
    const message = ToWorker.parse(data);
    if (message.type === "columns") {
      const known = datasets.get(message.dataset) ?? {
        columns: new Map<string, ResponseColumn>(),
        shelf: new ColumnShelf(),
        resamplings: new Map(),
      };
      for (const column of message.columns) known.columns.set(column.name, column);
      datasets.set(message.dataset, known);
      return;
    }
    const known = datasets.get(message.dataset);
    try {
      const progress = (done: number, of: number) => answer({ type: "progress", id: message.id, done, of }, []);
      const result = runJob(message.job, (name) => known?.columns.get(name), known?.shelf ?? null, progress, {
        eigenvalues,
        resamplings: known?.resamplings ?? new Map(),
      });
      answer({ type: "done", id: message.id, result }, transferable(result));
    } catch (error) {
      answer({ type: "failed", id: message.id, code: error instanceof CoreError ? error.code : "job-failed" }, []);
    }
  };
}
