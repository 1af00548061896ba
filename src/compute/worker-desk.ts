import { CoreError } from "@/core/errors";
import type { AnyAnalysis } from "@/study/kinds/kind";
import { askedKind } from "@/study/kinds/kinds";
import type { ResponseColumn } from "@/study/model/response-column";
import { ColumnShelf } from "./column-shelf";
import { type FromWorker, ToWorker } from "./protocol/messages";
import { kindOf } from "./protocol/kind-of";
import { transferable } from "./protocol/transferable";
import { runJob, type Shelves } from "./run-job";

/** A job that somebody stopped while it ran. */
class StoppedError extends CoreError {
  readonly code = "stopped";
  readonly details = {};
}

interface Held {
  columns: Map<string, ResponseColumn>;
  shelf: ColumnShelf;
  shelves: Shelves;
}

/**
 * The worker's side of the protocol: keeps the columns it was sent, answers each job once, in the order they came.
 * @param answer posts a message back, and hands buffers over; the worker's own postMessage, or a port in a test
 */
export function workerDesk(answer: (message: FromWorker, transfer: ArrayBuffer[]) => void): (data: unknown) => void {
  const datasets = new Map<string, Held>();
  // each kind's analysis is loaded with its first job: the page waits for no other
  const analyses = new Map<string, Promise<AnyAnalysis>>();
  const analysisOf = (kind: string) => {
    const load = async (): Promise<AnyAnalysis> => {
      if (kind !== "study-results") return (await askedKind(kind).load()).analysis;
      return (await (await import("@/study/analyse/study-results-analysis")).studyResults()) as AnyAnalysis;
    };
    const known = analyses.get(kind) ?? load();
    analyses.set(kind, known);
    return known;
  };
  let flag: Int32Array | null = null;
  answer({ type: "ready" }, []);

  const hold = (dataset: string): Held => {
    const held = datasets.get(dataset) ?? { columns: new Map(), shelf: new ColumnShelf(), shelves: new Map() };
    datasets.set(dataset, held);
    return held;
  };
  return (data) => {
    const message = ToWorker.parse(data);
    if (message.type === "stop-flag") flag = message.flag;
    else if (message.type === "columns") {
      const { columns } = hold(message.dataset);
      for (const column of message.columns) columns.set(column.name, column);
    } else if (message.type === "forget") datasets.delete(message.dataset);
    else if (message.type === "load") void analysisOf(message.kind).catch(() => analyses.delete(message.kind));
    else {
      const { id, dataset, job } = message;
      const progress = (done: number, of: number) => {
        if (flag !== null && Atomics.load(flag, 0) === id) throw new StoppedError();
        answer({ type: "progress", id, done, of }, []);
      };
      const kind = kindOf(job);
      void Promise.resolve(kind === null ? null : analysisOf(kind))
        .then((analysis) => {
          const { columns, shelf, shelves } = hold(dataset);
          const result = runJob(job, analysis, (name) => columns.get(name), shelf, progress, shelves);
          answer({ type: "done", id, result }, transferable(result));
        })
        .catch((error: unknown) => {
          const [code, details] = error instanceof CoreError ? [error.code, error.details] : ["job-failed", {}];
          answer({ type: "failed", id, code, details }, []);
        });
    }
  };
}
