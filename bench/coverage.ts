import { ladderModels, type LadderSpec } from "@/core/regression/ladder";
import { randomStream } from "@/core/random/random-stream";
import type { Figure } from "@/core/resampling/figures/figure";
import { bcaLimits, percentileLimits } from "@/core/resampling/interval-limits";
import { ladderBootstrap } from "@/core/resampling/ladder-bootstrap";
import { accelerationsOf, replicatesOf } from "@/core/resampling/resampler";

/**
 * `npm run bench:coverage [samples] [n]`: how often bootstrap intervals hold the truth. Made-up samples with a product and strongly skewed errors (χ² of three
 * degrees of freedom, skewness 1.6) whose β, R² and ΔR² are known exactly; 2,000 replicates each, 95 %.
 */
const samples = Number(process.argv[2] ?? 1000);
const n = Number(process.argv[3] ?? 100);
const B = 2000;
const RHO = 0.3;
const [bx, bm, bp] = [0.3, 0.2, 0.2];
// x and m are normal: each is uncorrelated with their product, whose variance is 1 + ρ²
const main = bx * bx + bm * bm + 2 * bx * bm * RHO;
const product = bp * bp * (1 + RHO * RHO);
const variance = main + product + 1;
const truth: [string, Figure, number][] = [
  ["β of x", { kind: "beta", step: 1, column: "x" }, bx / Math.sqrt(variance)],
  ["β of x × m", { kind: "beta", step: 1, column: "x*m" }, bp / Math.sqrt(variance)],
  ["b of x × m", { kind: "b", step: 1, column: "x*m" }, bp],
  ["R² of step 1", { kind: "R2", step: 0 }, main / variance],
  ["ΔR² of step 2", { kind: "dR2", step: 1 }, product / variance],
];
const spec: LadderSpec = {
  outcome: "y",
  centring: "mean",
  confidence: 0.95,
  steps: [["x", "m"], ["x*m"]].map((terms) => terms.map((term) => ({ components: term.split("*") }))),
};
const figures = truth.map(([, figure]) => figure);
const held = truth.map(() => ({ bca: 0, percentile: 0, below: 0, above: 0, width: 0 }));
for (let s = 0; s < samples; s++) {
  const random = randomStream(1, s);
  const x = Float64Array.from({ length: n }, () => random.normal());
  const m = x.map((v) => RHO * v + Math.sqrt(1 - RHO * RHO) * random.normal());
  const e = () => (random.normal() ** 2 + random.normal() ** 2 + random.normal() ** 2 - 3) / Math.sqrt(6);
  const y = x.map((v, i) => bx * v + bm * m[i]! + bp * v * m[i]! + e());
  const boot = ladderBootstrap(ladderModels(spec, new Map([["x", x], ["m", m], ["y", y]])), { by: "cases" }, figures); // prettier-ignore
  const estimates = boot.estimates();
  const { values } = replicatesOf(boot, s + 1, { first: 0, count: B });
  const accelerations = accelerationsOf(boot, estimates).figures;
  truth.forEach(([, , value], k) => {
    const own = values.subarray(k * B, (k + 1) * B);
    const percentile = percentileLimits(own, 0.95);
    const bca = bcaLimits(own, estimates[k]!, accelerations[k]!, 0.95) ?? percentile;
    const count = held[k]!;
    if (percentile.lower <= value && value <= percentile.upper) count.percentile++;
    if (bca.lower <= value && value <= bca.upper) count.bca++;
    if (value < bca.lower) count.below++;
    if (value > bca.upper) count.above++;
    count.width += (bca.upper - bca.lower) / samples;
  });
}
const share = (count: number) => ((100 * count) / samples).toFixed(1);
truth.forEach(([name], k) => {
  const { bca, percentile, below, above, width } = held[k]!;
  process.stdout.write(
    `${name}: BCa holds the truth in ${share(bca)} % (lies wholly above it in ${share(below)}, below it in ${share(above)}; mean width ${width.toFixed(3)}), percentile in ${share(percentile)} %\n`,
  );
});
