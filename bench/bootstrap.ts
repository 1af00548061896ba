import { spawnSync } from "node:child_process";
import { once } from "node:events";
import { existsSync } from "node:fs";
import path from "node:path";
import { Worker } from "node:worker_threads";
import { readAnchor, limits, wholeJob } from "./anchor-job";

/**
 * `npm run bench:bootstrap [rounds]`: whole bootstrap jobs in turns with the anchors of `bench/anchors` (the same job in C and in numpy; needs gcc,
 * python3-numpy and python3-scipy): 10,000 case resamples, jackknife and BCa limits with the data in memory. Prints medians and their ratios.
 */
const PYTHON = process.env.PYTHON ?? "/usr/bin/python3";
const PROGRAM = path.join("data", "resample");
const folder = path.resolve("bench", "anchors");
const rounds = Number(process.argv[2] ?? 5);
const B = 10_000;
const file = (name: string) => path.join(folder, "data", `${name}.bin`);
const say = (text: string) => process.stdout.write(`${text}\n`);

function made(command: string, args: string[]): void {
  const { status, stderr } = spawnSync(command, args, { cwd: folder, encoding: "utf8" });
  if (status !== 0) throw new Error(`${command}: ${stderr || "not found"}`);
}
if (!existsSync(file("W3"))) made(PYTHON, ["make_data.py"]);
const compiler = ["-O3", "-march=native", "-mprefer-vector-width=512", "-ffast-math", "-pthread"];
made("gcc", [...compiler, "resample.c", "-o", PROGRAM, "-lm"]);

/** ms of the last of two repetitions, the program's own count. */
function anchor(command: string, args: string[]): number {
  const { stdout } = spawnSync(command, args, { cwd: folder, encoding: "utf8", env: { ...process.env, OPENBLAS_NUM_THREADS: "1" } });
  return JSON.parse(stdout.trim().split("\n").at(-1)!).ms;
}
const c = (name: string) => () => anchor(PROGRAM, [file(name), "gemm", "1", "2"]);
const numpy = (name: string) => () => anchor(PYTHON, ["resample_numpy.py", name, "smart", "--reps", "2"]);

async function workersFor(name: string): Promise<Worker[]> {
  const workers = [0, 1].map(() => new Worker(new URL("./start-anchor-thread.mjs", import.meta.url), { workerData: { file: file(name) } }));
  await Promise.all(workers.map((worker) => once(worker, "message")));
  return workers;
}

interface Drawn {
  values: Float64Array;
  estimates: Float64Array;
  accelerations: Float64Array;
}

async function twoWorkers(workers: Worker[]): Promise<number> {
  const from = performance.now();
  const halves = workers.map((worker, k) => {
    worker.postMessage({ first: (k * B) / 2, count: B / 2, jackknife: k === 0 });
    return once(worker, "message");
  });
  const [[one], [two]] = (await Promise.all(halves)) as [Drawn][] as [[Drawn], [Drawn]];
  const figures = one!.estimates.length;
  const values = new Float64Array(figures * B);
  for (let k = 0; k < figures; k++) {
    values.set(one!.values.subarray((k * B) / 2, ((k + 1) * B) / 2), k * B);
    values.set(two!.values.subarray((k * B) / 2, ((k + 1) * B) / 2), k * B + B / 2);
  }
  limits(values, B, one!.estimates, one!.accelerations);
  return performance.now() - from;
}

const median = (times: number[]) => [...times].sort((a, b) => a - b)[times.length >> 1]!;
for (const name of ["W1", "W3", "W2"]) {
  const { spec, groups } = readAnchor(file(name));
  const own = (extent: "anchor" | "all", kind: "kernel" | "plain") => async () => wholeJob(spec, groups, extent, kind, B);
  const workers = name === "W3" ? await workersFor(name) : [];
  const runs: [string, () => number | Promise<number>][] = [
    ["C", c(name)],
    ["numpy", numpy(name)],
    ["kernel", own("anchor", "kernel")],
    ...(name === "W3" ? [["two workers", () => twoWorkers(workers)] as [string, () => Promise<number>]] : []),
    ...(name === "W2" ? [] : [["plain", own("anchor", "plain")] as [string, () => Promise<number>]]),
    ...(name === "W3" ? [] : [["kernel, all figures", own("all", "kernel")] as [string, () => Promise<number>]]),
  ];
  for (const [label, run] of runs.slice(2)) if (!label.startsWith("plain") || name === "W1") for (let i = 0; i < 2; i++) await run(); // warm
  const times = new Map(runs.map(([label]) => [label, [] as number[]]));
  for (let round = 0; round < rounds; round++) for (const [label, run] of runs) times.get(label)!.push(await run());
  const [inC, inNumpy] = [median(times.get("C")!), median(times.get("numpy")!)];
  for (const [label, all] of times) {
    const ms = median(all);
    say(
      `${name}  ${label.padEnd(20)} ${ms.toFixed(0).padStart(6)} ms   ${(ms / inNumpy).toFixed(2)} × numpy   ${(ms / inC).toFixed(1)} × C   (${Math.min(...all).toFixed(0)} to ${Math.max(...all).toFixed(0)})`,
    );
  }
  for (const worker of workers) await worker.terminate();
}
