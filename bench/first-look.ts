import { lowess } from "@/core/describe/lowess";
import { correlationTest } from "@/core/describe/correlation-tests";
import { pairCorrelations } from "@/core/describe/pair-correlations";
import { randomStream } from "@/core/random/random-stream";

/**
 * `npm run bench:look [rounds]`: correlations of 60 variables with p and intervals, and a smooth line, on 100,000 rows, one thread; in turns with one pass of
 * products over as many numbers as the correlations take. Prints medians and ratios to that pass.
 */
const rounds = Number(process.argv[2] ?? 3);
const [K, N] = [60, 100_000];
const random = randomStream(1);
const factor = Float64Array.from({ length: N }, () => random.normal());
const values = Array.from({ length: K }, () => factor.map((f) => 0.5 * f + random.normal()));
const whole = values.map((column) => ({ values: column, missing: new Uint8Array(N) }));
const gaps = values.map((column) => ({ values: column, missing: Uint8Array.from(column, () => (random.uniform() < 0.05 ? 1 : 0)) }));

function tested(columns: typeof whole, by: "pearson" | "spearman"): number {
  const { r, n } = pairCorrelations(columns, by);
  let sum = 0;
  for (let i = 0; i < K; i++) for (let j = 0; j < i; j++) sum += correlationTest(r[i * K + j]!, n[i * K + j]!, 0.95)!.p!;
  return sum;
}

let kept = 0;
const jobs: Record<string, () => void> = {
  "one pass of products a pair": () => {
    for (let i = 0; i < K; i++) {
      for (let j = 0; j < i; j++) {
        const [a, b] = [values[i]!, values[j]!];
        let sum = 0;
        for (let row = 0; row < N; row++) sum += a[row]! * b[row]!;
        kept += sum;
      }
    }
  },
  "r of 60 variables, nothing missing": () => (kept += tested(whole, "pearson")),
  "r of 60 variables, 5 % missing, pairwise": () => (kept += tested(gaps, "pearson")),
  "ranks of 60 variables, 5 % missing, pairwise": () => (kept += tested(gaps, "spearman")),
  "LOWESS of 100,000 points": () => (kept += lowess(values[0]!, values[1]!)[0]!),
};
const times = new Map(Object.keys(jobs).map((name) => [name, [] as number[]]));
for (let round = 0; round <= rounds; round++) {
  for (const [name, work] of Object.entries(jobs)) {
    const from = performance.now();
    work();
    if (round > 0) times.get(name)!.push(performance.now() - from);
  }
}
const median = (of: number[]) => of.toSorted((a, b) => a - b)[Math.floor(of.length / 2)]!;
const one = median(times.get(Object.keys(jobs)[0]!)!);
for (const [name, of] of times)
  process.stdout.write(`${name}: ${Math.round(median(of))} ms, ${(median(of) / one).toFixed(1)} × one pass\n`);
if (Number.isNaN(kept)) throw new Error("not a number");
