import { parentPort, workerData } from "node:worker_threads";
import { accelerationsOf, replicatesOf } from "@/core/resampling/resampler";
import { readAnchor, readyFrom } from "./anchor-job";

/** A warm worker of the two that share a job: draws its half, and the first of them leaves each case out as well. */
const { spec, groups } = readAnchor((workerData as { file: string }).file);
parentPort!.on("message", ({ first, count, jackknife }: { first: number; count: number; jackknife: boolean }) => {
  const boot = readyFrom(spec, groups, "anchor", "kernel");
  const estimates = boot.estimates();
  const { values } = replicatesOf(boot, 1, { first, count });
  const accelerations = jackknife ? accelerationsOf(boot, estimates).figures : null;
  parentPort!.postMessage({ values, estimates, accelerations }, [values.buffer as ArrayBuffer]);
});
parentPort!.postMessage("ready");
