import { randomStream } from "../random/random-stream";
import { factorReliability } from "../reliability/omega";
import type { CorrelationMatrix } from "./correlation-matrix";
import { type ExtractionMethod, factorSolution, type RotationMethod } from "./factor-solution";

/** Correlations of k items with two factors behind them, and of the same items in another order: alike but for the rounding of their last digits. */
function madeUp(seed: number, k: number) {
  const stream = randomStream(seed);
  const rows = Array.from({ length: 150 }, () => {
    const f = [stream.normal(), stream.normal()];
    return Array.from({ length: k }, (_, j) => 0.7 * f[j % 2]! + 0.4 * f[0]! + (0.6 + 0.1 * j) * stream.normal());
  });
  const means = Array.from({ length: k }, (_, j) => rows.reduce((sum, row) => sum + row[j]!, 0) / rows.length);
  const product = (a: number, b: number) => rows.reduce((sum, row) => sum + (row[a]! - means[a]!) * (row[b]! - means[b]!), 0);
  return (order: readonly number[]): CorrelationMatrix => {
    const r = new Float64Array(k * k);
    order.forEach((a, i) => order.forEach((b, j) => (r[i * k + j] = i === j ? 1 : product(a, b) / Math.sqrt(product(a, a) * product(b, b))))); // prettier-ignore
    return { r, items: k, n: rows.length };
  };
}
const SETS = Array.from({ length: 24 }, (_, i) => ({ k: 5 + (i % 6), correlations: madeUp(100 + i, 5 + (i % 6)) }));
const inOrder = (k: number) => Array.from({ length: k }, (_, i) => i);
const called = (k: number) => inOrder(k).map((i) => `q${i + 1}`);

const EXTRACTIONS: ExtractionMethod[] = ["maximum-likelihood", "minimum-residual", "principal-axis", "principal-components"];
const ROTATIONS: RotationMethod[] = ["none", "varimax", "promax", "oblimin"];

test.each(EXTRACTIONS.flatMap((extraction) => ROTATIONS.map((rotation) => [extraction, rotation] as const)))(
  "law: with %s and %s the order of the items moves loadings by no more than rounding, not by where a search happened to stop",
  (extraction, rotation) => {
    for (const { k, correlations } of SETS) {
      const spec = { extraction, rotation, factors: 2 };
      const [one, other] = [inOrder(k), inOrder(k).reverse()].map((order) => factorSolution(correlations(order), spec, called(k)));
      expect(one!.settled).toBe(other!.settled);
      // factors may change places and signs
      const loadings = ({ rotated }: NonNullable<typeof one>, i: number) => [0, 1].map((f) => Math.abs(rotated.pattern[i * 2 + f]!)).sort((a, b) => a - b); // prettier-ignore
      for (const i of inOrder(k))
        loadings(one!, i).forEach((loading, f) => expect(Math.abs(loading - loadings(other!, k - 1 - i)[f]!)).toBeLessThan(1e-11));
    }
  },
);

test("law: neither does it move ω, composite reliability and what they stand on", () => {
  for (const { k, correlations } of SETS) {
    const sds = inOrder(k).map((i) => 1 + i / 3);
    const one = factorReliability(correlations(inOrder(k)), sds, called(k));
    const other = factorReliability(correlations(inOrder(k).reverse()), [...sds].reverse(), called(k));
    for (const what of ["omega", "compositeReliability", "averageVarianceExtracted"] as const)
      expect(Math.abs(one[what] - other[what])).toBeLessThan(1e-12);
    one.loadings.forEach((loading, i) => expect(Math.abs(loading - other.loadings[k - 1 - i]!)).toBeLessThan(1e-12));
  }
});
