import { ConstantItemsError, SingularCorrelationsError, TooFewCasesError, TooManyFactorsError } from "../errors";
import { randomStream } from "../random/random-stream";
import { correlationMatrix, type CorrelationMatrix } from "./correlation-matrix";
import { mostFactors } from "./extraction";
import { type ExtractionMethod, factorSolution } from "./factor-solution";
import { inverseCorrelations } from "./inverse-correlations";
import { leadingAbove, randomCorrelations, randomEigenvalues } from "./parallel-analysis";
import { samplingAdequacy } from "./sampling-adequacy";
import { sphericity } from "./sphericity";

const namesOf = (k: number) => Array.from({ length: k }, (_, i) => `q${i + 1}`);
const given = (rows: number[][], n = 200): CorrelationMatrix => ({ r: Float64Array.from(rows.flat()), items: rows.length, n });
const solve = (matrix: CorrelationMatrix, extraction: ExtractionMethod, factors: number) =>
  factorSolution(matrix, { extraction, rotation: "none", factors }, namesOf(matrix.items));

/** Correlations that two factors make exactly, with loadings 0.5 to 0.8 and a few crossings. */
const LOADINGS = [
  [0.8, 0],
  [0.7, 0.1],
  [0.6, -0.2],
  [0.75, 0.05],
  [0.1, 0.7],
  [0, 0.65],
  [-0.15, 0.8],
  [0.2, 0.5],
];
const modelled = given(LOADINGS.map((a, i) => LOADINGS.map((b, j) => (i === j ? 1 : a[0]! * b[0]! + a[1]! * b[1]!))));

test.each<[ExtractionMethod, number]>([
  ["maximum-likelihood", 1e-8],
  ["minimum-residual", 1e-8],
  ["principal-axis", 1e-4],
])("law: correlations that two factors make are explained by two factors to the last digit (%s)", (method, tolerance) => {
  const { unrotated, communalityExtracted, heywood, settled } = solve(modelled, method, 2);
  expect([heywood, settled]).toEqual([[], true]);
  LOADINGS.forEach((a, i) => {
    expect(Math.abs(communalityExtracted[i]! - (a[0]! ** 2 + a[1]! ** 2))).toBeLessThan(tolerance);
    LOADINGS.forEach((b, j) => {
      const made = unrotated.pattern[2 * i]! * unrotated.pattern[2 * j]! + unrotated.pattern[2 * i + 1]! * unrotated.pattern[2 * j + 1]!;
      expect(Math.abs(made - (a[0]! * b[0]! + a[1]! * b[1]!))).toBeLessThan(tolerance);
    });
  });
});

test("law: the search ends where no uniqueness can be moved to a lower misfit, also on its bound", () => {
  // r12·r13/r23 > 1: one factor would have to explain more of item 1 than there is
  const matrix = given([
    [1, 0.9, 0.85],
    [0.9, 1, 0.6],
    [0.85, 0.6, 1],
  ]);
  const misfit = (psi: readonly number[], l: readonly number[]) => {
    const sigma = l.map((a, i) => l.map((b, j) => a * b + (i === j ? psi[i]! : 0)));
    const [[a, b, c], [, d, e], [, , f]] = sigma as [[number, number, number], [number, number, number], [number, number, number]];
    const det = a * (d * f - e * e) - b * (b * f - c * e) + c * (b * e - c * d);
    const inverse = [
      [d * f - e * e, c * e - b * f, b * e - c * d],
      [c * e - b * f, a * f - c * c, b * c - a * e],
      [b * e - c * d, b * c - a * e, a * d - b * b],
    ];
    return Math.log(det) + inverse.flat().reduce((sum, x, at) => sum + (x / det) * matrix.r[at]!, 0);
  };
  const { uniqueness, unrotated, heywood } = solve(matrix, "maximum-likelihood", 1);
  expect(heywood).toEqual([0]);
  expect(uniqueness[0]).toBeCloseTo(0.005, 12);
  const least = misfit(Array.from(uniqueness), Array.from(unrotated.pattern));
  for (let i = 0; i < 3; i++) {
    for (const move of [-1e-3, 1e-3]) {
      const psi = Array.from(uniqueness, (x, j) => (i === j ? Math.max(0.005, x + move) : x));
      const l = Array.from(unrotated.pattern, (x, j) => (i === j ? x + move : x));
      expect(misfit(psi, Array.from(unrotated.pattern))).toBeGreaterThanOrEqual(least - 1e-12);
      expect(misfit(Array.from(uniqueness), l)).toBeGreaterThanOrEqual(least - 1e-12);
    }
  }
  expect(solve(matrix, "principal-axis", 1).heywood).toContain(0);
  expect(solve(matrix, "minimum-residual", 1).heywood).toContain(0);
});

test("law: all components together give the correlations back, with every communality 1", () => {
  const { unrotated, communalityExtracted } = solve(modelled, "principal-components", 8);
  for (let i = 0; i < 8; i++) {
    expect(communalityExtracted[i]).toBeCloseTo(1, 12);
    for (let j = 0; j < 8; j++) {
      let made = 0;
      for (let m = 0; m < 8; m++) made += unrotated.pattern[i * 8 + m]! * unrotated.pattern[j * 8 + m]!;
      expect(made).toBeCloseTo(modelled.r[i * 8 + j]!, 12);
    }
  }
});

test("two items: adequacy is one half, and sphericity is that of a single r", () => {
  const r = 0.37;
  const matrix = given([
    [1, r],
    [r, 1],
  ]);
  const inverse = inverseCorrelations(matrix, namesOf(2), "x");
  expect(samplingAdequacy(matrix, inverse)!.overall).toBeCloseTo(0.5, 14);
  expect(sphericity(matrix, inverse)).toMatchObject({ df: 1 });
  expect(sphericity(matrix, inverse)!.chi2).toBeCloseTo(-(199 - 1.5) * Math.log(1 - r * r), 10);
  const none = given([
    [1, 0],
    [0, 1],
  ]);
  expect(samplingAdequacy(none, inverseCorrelations(none, namesOf(2), "x"))).toBeNull();
  expect(sphericity(given([[1, 0.1], [0.1, 1]], 2), inverse)).toBeNull(); // prettier-ignore
});

describe("what cannot be factored", () => {
  const random = randomStream(8);
  const normal = (n: number) => Float64Array.from({ length: n }, () => random.normal());
  test("constant items and too few cases are refused by name", () => {
    expect(() => correlationMatrix([normal(9), new Float64Array(9).fill(2)], ["a", "b"])).toThrow(ConstantItemsError);
    expect(() => correlationMatrix([normal(2), normal(2)], ["a", "b"])).toThrow(TooFewCasesError);
  });
  test("a sum of other items is named; principal axis and minimum residuals go on without the inverse", () => {
    const [a, b, c] = [normal(80), normal(80), normal(80)];
    const matrix = correlationMatrix([a, b, c, a.map((x, i) => x + b[i]!), normal(80)], ["a", "b", "c", "sum", "d"]);
    expect(() => inverseCorrelations(matrix, ["a", "b", "c", "sum", "d"], "The test")).toThrow(
      expect.objectContaining({ details: { purpose: "The test", item: "sum", fewCases: false } }),
    );
    expect(() => solve(matrix, "maximum-likelihood", 1)).toThrow(SingularCorrelationsError);
    for (const method of ["principal-axis", "minimum-residual"] as const) {
      const { initialFrom, unrotated } = solve(matrix, method, 1);
      expect(initialFrom).toBe("largest-correlation");
      expect(unrotated.pattern.every(Number.isFinite)).toBe(true);
    }
  });
  test("fewer respondents than items: said so", () => {
    const matrix = correlationMatrix(Array.from({ length: 12 }, () => normal(8)), namesOf(12)); // prettier-ignore
    expect(() => inverseCorrelations(matrix, namesOf(12), "The test")).toThrow(
      expect.objectContaining({ details: expect.objectContaining({ fewCases: true }) }),
    );
    expect(solve(matrix, "principal-axis", 2).unrotated.pattern.every(Number.isFinite)).toBe(true);
  });
  test("no more factors than the items can tell apart", () => {
    // Ledermann's bound: 3 items 1, 5 items 2, 6 items 3, 10 items 6
    expect([2, 3, 4, 5, 6, 10, 20].map(mostFactors)).toEqual([1, 1, 1, 2, 3, 6, 14]);
    expect(() => solve(modelled, "principal-axis", 5)).toThrow(TooManyFactorsError);
  });
});

describe("parallel analysis", () => {
  const eigenvalueOf = (matrix: CorrelationMatrix) => solve(matrix, "principal-components", 1).unrotated.variance[0]!;

  test.each([
    [30, 6],
    [5, 8], // fewer cases than items
  ])("law: random correlations of %i cases and %i items are spread like those of normal data", (n, k) => {
    const sets = 1500;
    const drawn = Array.from({ length: sets }, (_, s) => eigenvalueOf({ r: randomCorrelations(k, n, randomStream(3, s)), items: k, n }));
    const made = Array.from({ length: sets }, (_, s) => {
      const random = randomStream(4, s);
      const items = Array.from({ length: k }, () => Float64Array.from({ length: n }, () => random.normal()));
      return eigenvalueOf(correlationMatrix(items, namesOf(k)));
    });
    // Kolmogorov and Smirnov's distance of two samples: beyond 1.95·√(2/sets) one run in a thousand
    const [a, b] = [drawn.sort((x, y) => x - y), made.sort((x, y) => x - y)];
    const below = (sorted: number[], x: number) => sorted.filter((v) => v <= x).length / sets;
    const distance = Math.max(...a.map((x) => Math.abs(below(a, x) - below(b, x))));
    expect(distance).toBeLessThan(1.95 * Math.sqrt(2 / sets));
  });

  test("the same seed gives the same percentiles, another seed others; retained is the leading run", () => {
    const run = (seed: number) => randomEigenvalues(3, 100, { sets: 50, seed, share: 0.95 });
    expect(run(1)).toEqual(run(1));
    expect(run(1)).not.toEqual(run(2));
    const kept = (...eigenvalues: number[]) => leadingAbove(Float64Array.from(eigenvalues), run(1));
    expect(kept(2, 0.5, 0.5)).toBe(1);
    expect(kept(1, 1.9, 0.1)).toBe(0); // the second lies above its percentile, but the run has ended
    expect(kept(9, 9, 9)).toBe(3);
  });

  test("it tells after each set how far it is", () => {
    const told: number[] = [];
    randomEigenvalues(2, 50, { sets: 4, seed: 1, share: 0.95 }, (done) => told.push(done));
    expect(told).toEqual([1, 2, 3, 4]);
  });
});
