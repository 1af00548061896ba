import { ladderModels, type LadderSpec } from "@/core/regression/ladder";
import { ladderBootstrap } from "@/core/resampling/ladder-bootstrap";
import { replicatesOf } from "@/core/resampling/resampler";
import { randomStream } from "@/core/random/random-stream";

/**
 * `node --expose-gc --import tsx bench/bootstrap-growth.ts [n …]`: how the time of a replicate grows with the sample, and that of the whole with their number;
 * 12 columns in five steps, a product among them. Memory is that of this process beyond the data: at most while the ladder is made ready, and what is held
 * while replicates are drawn.
 */
const sizes = process.argv.slice(2).map(Number);
const MB = 2 ** 20;
const gc = (globalThis as { gc?: () => void }).gc ?? (() => undefined);
const held = () => {
  gc();
  gc();
  return process.memoryUsage().external / MB;
};
function data(n: number): Map<string, Float64Array> {
  const random = randomStream(n);
  const columns = new Map(Array.from({ length: 11 }, (_, j) => [`x${j + 1}`, Float64Array.from({ length: n }, () => random.normal())]));
  const [a, b] = [columns.get("x1")!, columns.get("x2")!];
  return columns.set(
    "y",
    a.map((v, i) => 0.4 * v + 0.2 * b[i]! + 0.1 * v * b[i]! + random.normal()),
  );
}
const spec: LadderSpec = {
  outcome: "y", centring: "mean", confidence: 0.95,
  steps: [["x3", "x4", "x5"], ["x6", "x7", "x8"], ["x9", "x10", "x11"], ["x1", "x2"], ["x1*x2"]].map((terms) => terms.map((term) => ({ components: term.split("*") }))),
}; // prettier-ignore

for (const n of sizes.length > 0 ? sizes : [100, 1_000, 10_000, 100_000, 1_000_000]) {
  const columns = data(n);
  const before = held();
  const start = performance.now();
  const boot = ladderBootstrap(ladderModels(spec, columns), { by: "cases" });
  const ready = performance.now() - start;
  const many = Math.max(64, Math.min(5_000, Math.round(2e7 / n / 16) * 16));
  replicatesOf(boot, 1, { first: 0, count: Math.min(64, many) }); // warm
  const times = [many, 2 * many].map((count) => {
    const from = performance.now();
    replicatesOf(boot, 1, { first: 0, count });
    return performance.now() - from;
  }) as [number, number];
  const [one, two] = times;
  const kept = held() - before;
  process.stdout.write(
    `n ${n}: ready ${ready.toFixed(0)} ms; ${((two / (2 * many) / n) * 1e6).toFixed(1)} ns a case and replicate; twice the replicates ${(two / one).toFixed(2)} times as long; ${boot.units} units held in ${kept.toFixed(0)} MB beyond the data; process at most ${(process.resourceUsage().maxRSS / 1024).toFixed(0)} MB\n`,
  );
}
