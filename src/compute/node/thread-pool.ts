import os from "node:os";
import { Worker } from "node:worker_threads";
import type { FromWorker, ToWorker } from "../protocol/messages";
import { type WorkerLike, WorkerPool } from "../worker-pool";

/** Threads of this process: one a processor, at most eight. */
export const threadCount = () => Math.max(1, Math.min(8, os.availableParallelism()));

/** The pool of the page, on threads of this process. */
export function threadPool(): WorkerPool {
  return new WorkerPool(() => thread().like, threadCount());
}

/** A thread that does jobs, and the part of it the pool knows. */
export function thread(): { worker: Worker; like: WorkerLike } {
  const worker = new Worker(new URL("./start-thread.mjs", import.meta.url));
  const like: WorkerLike = {
    postMessage: (message: ToWorker, transfer: ArrayBuffer[] = []) => worker.postMessage(message, transfer),
    terminate: () => {
      like.onerror = null;
      void worker.terminate();
    },
    onmessage: null,
    onerror: null,
  };
  worker.on("message", (data: FromWorker) => like.onmessage?.({ data }));
  worker.on("error", (error) => like.onerror?.(error));
  // one that was ended from outside says nothing else
  worker.on("exit", () => like.onerror?.(new Error("the thread ended")));
  return { worker, like };
}
