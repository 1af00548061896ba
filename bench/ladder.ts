import { randomStream } from "@/core/random/random-stream";
import { ladderModels, type LadderSpec, ladderTables } from "@/core/regression/ladder";

/**
 * `npm run bench:ladder [n …]`: a ladder of 5 steps and 12 columns, the last a product, from columns to every table. One line of
 * JSON a size: median of the warm runs, its parts, and what the process holds at its peak beyond what it held before.
 */
const sizes = process.argv.slice(2).map(Number);
const names = Array.from({ length: 11 }, (_, i) => `x${i}`);
const steps = [names.slice(0, 3), names.slice(3, 6), names.slice(6, 9), names.slice(9, 11), ["x0*x1"]];
const spec: LadderSpec = {
  outcome: "y",
  steps: steps.map((terms) => terms.map((term) => ({ components: term.split("*") }))),
  centring: "mean",
  confidence: 0.95,
};

for (const n of sizes.length > 0 ? sizes : [500, 5_000, 100_000, 1_000_000]) {
  const random = randomStream(1);
  const data = new Map(
    [...names, "y"].map((name) => [name, Float64Array.from({ length: n }, () => Math.round(100 * random.normal()) / 10)]),
  );
  const before = process.memoryUsage().rss;
  const runs = Array.from({ length: n < 1_000_000 ? 9 : 4 }, () => {
    const from = performance.now();
    const models = ladderModels(spec, data);
    const fitted = performance.now();
    ladderTables(models);
    const done = performance.now();
    return { all: done - from, fit: fitted - from, tables: done - fitted };
  })
    .slice(n < 1_000_000 ? 2 : 1)
    .sort((a, b) => a.all - b.all);
  const median = runs[Math.floor(runs.length / 2)]!;
  const peak = (process.resourceUsage().maxRSS * 1024 - before) / 1e6;
  const round = (value: number) => Math.round(value * 10) / 10;
  process.stdout.write(
    `${JSON.stringify({ n, ms: round(median.all), fit: round(median.fit), tables: round(median.tables), peakMB: Math.round(peak) })}\n`,
  );
}
