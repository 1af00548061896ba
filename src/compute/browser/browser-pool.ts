import { WorkerPool, type WorkerLike } from "./worker-pool";

let pool: WorkerPool | null = null;

/** The page's one pool: a worker a processor, at most four for work this light. */
export function browserPool(): WorkerPool {
  pool ??= new WorkerPool(
    () => new Worker(new URL("./calc.worker.ts", import.meta.url), { type: "module" }) as unknown as WorkerLike,
    Math.max(1, Math.min(4, navigator.hardwareConcurrency)),
  );
  return pool;
}
