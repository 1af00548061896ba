import type { ResponseColumn } from "@/study/model/response-column";
import { type FromWorker, ToWorker } from "./protocol/messages";
import { runJob } from "./run-job";

/**
 * The worker's side of the protocol: keeps the columns it was sent, answers each job once.
 * @param answer posts a message back; the worker's own postMessage, or a port in a test
 */
export function workerDesk(answer: (message: FromWorker) => void): (data: unknown) => void {
  const datasets = new Map<string, Map<string, ResponseColumn>>();
  return (data) => {
    const message = ToWorker.parse(data);
    if (message.type === "columns") {
      const known = datasets.get(message.dataset) ?? new Map<string, ResponseColumn>();
      for (const column of message.columns) known.set(column.name, column);
      datasets.set(message.dataset, known);
      return;
    }
    const columns = datasets.get(message.dataset);
    try {
      answer({ type: "done", id: message.id, result: runJob(message.job, (name) => columns?.get(name)) });
    } catch {
      answer({ type: "failed", id: message.id, code: "worker-crashed" });
    }
  };
}
