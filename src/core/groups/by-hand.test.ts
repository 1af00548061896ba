import fc from "fast-check";
import { normalUpperTail } from "../distributions/normal-distribution";
import { randomStream } from "../random/random-stream";
import type { Predictor } from "../regression/design-matrix";
import { groupDifferences } from "./differences";
import { type GroupFit, groupedStep, groupFits } from "./grouped-step";
import { alikeTest } from "./omnibus";

/** Least squares by plain normal equations and elimination: slow, short, and nothing of the house in it. */
function byHand(x: number[][], y: number[]): { b: number[]; covariance: number[][] } {
  const rows = x.map((row) => [1, ...row]);
  const k = rows[0]!.length;
  const product = (f: (row: number[], i: number) => number) => rows.reduce((sum, row, i) => sum + f(row, i), 0);
  const xtx = Array.from({ length: k }, (_, a) => Array.from({ length: k }, (__, c) => product((row) => row[a]! * row[c]!)));
  const inverse = inverted(xtx);
  const xty = Array.from({ length: k }, (_, a) => product((row, i) => row[a]! * y[i]!));
  const b = inverse.map((row) => row.reduce((sum, v, c) => sum + v * xty[c]!, 0));
  const sse = product((row, i) => (y[i]! - row.reduce((sum, v, c) => sum + v * b[c]!, 0)) ** 2);
  return { b, covariance: inverse.map((row) => row.map((v) => (v * sse) / (rows.length - k))) };
}

function inverted(a: number[][]): number[][] {
  const n = a.length;
  const m = a.map((row, i) => [...row, ...Array.from({ length: n }, (_, j) => (i === j ? 1 : 0))]);
  for (let c = 0; c < n; c++) {
    let pivot = c;
    for (let i = c; i < n; i++) if (Math.abs(m[i]![c]!) > Math.abs(m[pivot]![c]!)) pivot = i;
    [m[c], m[pivot]] = [m[pivot]!, m[c]!];
    const unit = m[c]![c]!;
    m[c] = m[c]!.map((v) => v / unit);
    for (let i = 0; i < n; i++) if (i !== c) { const times = m[i]![c]!; m[i] = m[i]!.map((v, j) => v - times * m[c]![j]!); } // prettier-ignore
  }
  return m.map((row) => row.slice(n));
}

/** Groups of random sizes with two predictors, their product and random slopes. */
function madeUp(seed: number, groups: number) {
  const random = randomStream(seed);
  const sizes = Array.from({ length: groups }, () => 12 + random.below(40));
  const labels = Int32Array.from(sizes.flatMap((size, g) => new Array<number>(size).fill(g)));
  const n = labels.length;
  const x = Float64Array.from({ length: n }, () => 3 + 2 * random.normal());
  const m = Float64Array.from({ length: n }, (_, i) => 0.3 * x[i]! + random.normal());
  const slopes = Array.from({ length: groups }, () => random.normal());
  const y = Float64Array.from({ length: n }, (_, i) => slopes[labels[i]!]! * x[i]! + 0.5 * m[i]! + (1 + labels[i]!) * random.normal());
  return { variables: new Map<string, Predictor>([["x", x], ["m", m], ["y", y]]), x, m, y, labels }; // prettier-ignore
}

const TERMS = [["x"], ["m"], ["x", "m"]].map((components) => ({ components }));
const COLUMNS = ["x", "m", "x*m"];

test("law: whatever the groups, b, SE, z, p and χ² are those of plain normal equations on each group's own rows", () => {
  fc.assert(
    fc.property(fc.nat(), fc.integer({ min: 2, max: 5 }), (seed, groups) => {
      const { variables, x, m, y, labels } = madeUp(seed, groups);
      const [cx, cm] = [x, m].map((v) => v.reduce((sum, one) => sum + one, 0) / v.length) as [number, number];
      const hand = Array.from({ length: groups }, (_, g) => {
        const own = [...labels.keys()].filter((i) => labels[i] === g);
        return byHand(own.map((i) => [x[i]! - cx, m[i]! - cm, (x[i]! - cx) * (m[i]! - cm)]), own.map((i) => y[i]!)); // prettier-ignore
      });
      const fits = groupFits(
        groupedStep({ outcome: "y", centring: "mean", confidence: 0.95 }, TERMS, variables, labels, groups),
      ) as GroupFit[];
      const of = fits.map((fit) => (column: string) => fit.coefficients.find((c) => c.column === column)!.b);
      hand.forEach(({ b, covariance }, g) => {
        COLUMNS.forEach((column, c) => {
          const found = of[g]!(column)!;
          expect(found.estimate).toBeCloseTo(b[c + 1]!, 8);
          expect(found.se! / Math.sqrt(covariance[c + 1]![c + 1]!)).toBeCloseTo(1, 7);
        });
      });
      for (const d of groupDifferences(COLUMNS, of, 0.95)) {
        const c = COLUMNS.indexOf(d.column) + 1;
        const [one, two] = [hand[d.first]!, hand[d.second]!];
        const z = (one.b[c]! - two.b[c]!) / Math.sqrt(one.covariance[c]![c]! + two.covariance[c]![c]!);
        expect(d.z).toBeCloseTo(z, 6);
        expect(d.p).toBeCloseTo(2 * normalUpperTail(Math.abs(z)), 8);
        expect(d.pHolm!).toBeGreaterThanOrEqual(d.p!);
        expect(d.pHolmColumn!).toBeLessThanOrEqual(d.pHolm! + 1e-12);
      }
      // Σ (b − b̄)′W(b − b̄), b̄ the mean weighted by W
      const slopes = hand.map(({ b }) => b.slice(1));
      const weights = hand.map(({ covariance }) => inverted(covariance.slice(1).map((row) => row.slice(1))));
      const times = (w: number[][], v: number[]) => w.map((row) => row.reduce((sum, one, i) => sum + one * v[i]!, 0));
      const total = inverted(COLUMNS.map((_, i) => COLUMNS.map((__, j) => weights.reduce((sum, w) => sum + w[i]![j]!, 0))));
      const mean = times(total, COLUMNS.map((_, i) => weights.reduce((sum, w, g) => sum + times(w, slopes[g]!)[i]!, 0))); // prettier-ignore
      const chi2 = weights.reduce((sum, w, g) => {
        const d = slopes[g]!.map((v, i) => v - mean[i]!);
        return sum + times(w, d).reduce((s, v, i) => s + v * d[i]!, 0);
      }, 0);
      const test = alikeTest(fits, COLUMNS);
      expect(test.df).toBe((groups - 1) * 3);
      expect(test.chi2! / chi2).toBeCloseTo(1, 6);
    }),
    { numRuns: 25 },
  );
});

test("of a group whose coefficients have no error, a difference has its size and no test", () => {
  const estimate = (value: number, se: number | null) => () => ({ estimate: value, se, t: null, p: null, lower: null, upper: null });
  const found = groupDifferences(["x"], [estimate(1, null), estimate(3, 0.5), null, estimate(2, 0.5), () => null], 0.95);
  expect(found.map(({ first, second }) => [first, second])).toEqual([[0, 1], [0, 3], [0, 4], [1, 3], [1, 4], [3, 4]]); // prettier-ignore
  expect(found[0]).toMatchObject({ estimate: -2, se: null, z: null, p: null, pHolm: null });
  expect(found[2]).toMatchObject({ estimate: null, p: null });
  expect(found[3]!.z).toBeCloseTo(1 / Math.hypot(0.5, 0.5), 12);
  expect(found[3]!.pHolm).toBe(found[3]!.p); // the only one that is tested
});
