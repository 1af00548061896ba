import { randomStream } from "@/core/random/random-stream";
import { fitLadder } from "@/core/regression/ladder";

/**
 * `npm run bench:ladder`: a ladder of 5 steps and 12 columns at several sizes, without and with a product (which adds a
 * second fit in the z metric). Prints the median of the warm runs in ms, and each size's time per row as a ratio to the first.
 */
const random = randomStream(1);
const names = Array.from({ length: 12 }, (_, i) => `x${i}`);
let perRow: number | null = null;
for (const n of [500, 5_000, 100_000]) {
  const data = new Map(
    [...names, "y"].map((name) => [name, Float64Array.from({ length: n }, () => Math.round(100 * random.normal()) / 10)]),
  );
  const median = (last: string) => {
    const steps = [names.slice(0, 3), names.slice(3, 6), names.slice(6, 9), names.slice(9, 11), [last]];
    const spec = {
      outcome: "y",
      steps: steps.map((s) => s.map((t) => ({ components: t.split("*") }))),
      centring: "mean" as const,
      confidence: 0.95,
    };
    const times = Array.from({ length: 9 }, () => {
      const from = performance.now();
      fitLadder(spec, data);
      return performance.now() - from;
    });
    return times.slice(2).sort((a, b) => a - b)[3]!;
  };
  const [plain, product] = [median("x11"), median("x0*x1")];
  perRow ??= plain / n;
  process.stdout.write(
    `n ${n}: ${plain.toFixed(1)} ms, with a product ${product.toFixed(1)} ms; per row ${(plain / n / perRow).toFixed(2)}\n`,
  );
}
