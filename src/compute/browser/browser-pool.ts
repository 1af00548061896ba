import { WorkerPool, type WorkerLike } from "../worker-pool";

let pool: WorkerPool | null = null;

/** Workers of the page: one a processor, at most eight. */
export const poolSize = () => Math.max(1, Math.min(8, navigator.hardwareConcurrency));

/** The page's one pool. */
export function browserPool(): WorkerPool {
  pool ??= new WorkerPool(
    () => new Worker(new URL("./calc.worker.ts", import.meta.url), { type: "module" }) as unknown as WorkerLike,
    poolSize(),
  );
  return pool;
}
