import fc from "fast-check";
import { TooFewCasesError } from "../errors";
import { randomStream } from "../random/random-stream";
import { completeColumns, referenceSet, relativeError } from "../test-support/reference-set";
import { centredSumOfSquares } from "./centred-sum-of-squares";
import { isConstant } from "./constant";
import { correlation } from "./correlation";
import { describe as describeColumn } from "./description";
import { gridBins } from "./histogram";
import { mean } from "./mean";
import { standardDeviation } from "./standard-deviation";

const set = referenceSet("tide_description");

test("a description moves with unit and zero point, and its shape does not; no unit is too small or too large for it", () => {
  const values = completeColumns(set, ["depth"]).get("depth")!;
  const plain = describeColumn(values);
  for (const [unit, zero] of [
    [12, -5],
    [1e-150, 0],
    [1e150, 0],
  ] as const) {
    const moved = describeColumn(values.map((v) => unit * v + zero));
    for (const key of ["mean", "median", "q1", "q3", "min", "max"] as const)
      expect(relativeError(moved[key]! / unit, plain[key]! + zero / unit)).toBeLessThan(1e-12);
    for (const key of ["sd", "se"] as const) expect(relativeError(moved[key]! / unit, plain[key]!)).toBeLessThan(1e-12);
    for (const key of ["skewness", "kurtosis"] as const) expect(relativeError(moved[key]!, plain[key]!)).toBeLessThan(1e-9);
  }
});

test("tide_description: Pearson correlations of complete pairs", () => {
  let compared = 0;
  for (const [pair, want] of Object.entries<any>(set.expected.correlations_pairwise!.values)) {
    const [a, b] = pair.split(" ~ ") as [string, string];
    const columns = completeColumns(set, [a, b]);
    expect(columns.get(a)).toHaveLength(want.n);
    expect(relativeError(correlation(columns.get(a)!, columns.get(b)!)!, want.r)).toBeLessThan(1e-9);
    compared++;
  }
  expect(compared).toBe(6);
});

test("a huge mean does no harm: offset data keep their variance", () => {
  const small = Float64Array.from([4, 7, 13, 16]); // variance 30
  for (const offset of [0, 1e6, 1e9, -1e12]) expect(standardDeviation(small.map((v) => v + offset)) ** 2).toBeCloseTo(30, 8);
});

test("laws: a mean moves with its values, a sum of squares does not, and grows by the square of a unit", () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: -1000, max: 1000 }), { minLength: 2, maxLength: 60 }),
      fc.integer({ min: -9, max: 9 }),
      (list, k) => {
        const values = Float64Array.from(list);
        expect(mean(values.map((v) => v + k))).toBeCloseTo(mean(values) + k, 9);
        expect(centredSumOfSquares(values.map((v) => v + k))).toBeCloseTo(centredSumOfSquares(values), 6);
        expect(centredSumOfSquares(values.map((v) => v * k))).toBeCloseTo(centredSumOfSquares(values) * k * k, 4);
      },
    ),
  );
});

test("r does not ask for units, keeps its sign rule and survives extreme ones", () => {
  const random = randomStream(5);
  const x = Float64Array.from({ length: 50 }, () => random.normal());
  const y = x.map((v) => 0.5 * v + random.normal());
  const r = correlation(x, y)!;
  for (const unit of [1e-160, 1e-3, 1e160])
    expect(
      correlation(
        x.map((v) => v * unit),
        y,
      ),
    ).toBeCloseTo(r, 12);
  expect(
    correlation(
      x.map((v) => -v),
      y,
    ),
  ).toBeCloseTo(-r, 12);
  expect(correlation(x, x)).toBeCloseTo(1, 14);
});

test("what cannot be answered is null or refused, never NaN", () => {
  const flat = new Float64Array(5).fill(0.1);
  expect(correlation(flat, Float64Array.from([1, 2, 3, 4, 5]))).toBeNull();
  expect(isConstant(flat)).toBe(true);
  expect(isConstant(Float64Array.from([1, 1 + 1e-9]))).toBe(false);
  const { n, ...nothing } = describeColumn(new Float64Array(0));
  expect([n, ...new Set(Object.values(nothing))]).toEqual([0, null]);
  expect(describeColumn(Float64Array.from([3]))).toMatchObject({ mean: 3, sd: null, skewness: null });
  expect(describeColumn(flat)).toMatchObject({ sd: expect.closeTo(0, 12), skewness: null, kurtosis: null });
  expect(() => mean(new Float64Array(0))).toThrow(TooFewCasesError);
  expect(() => standardDeviation(Float64Array.from([1]))).toThrow(TooFewCasesError);
  expect(() => correlation(Float64Array.from([1]), Float64Array.from([1]))).toThrow(TooFewCasesError);
});

test("bins on a grid hold equally many possible scores and lose nobody", () => {
  const sixths = Float64Array.from({ length: 25 }, (_, i) => 1 + i / 6); // every score of six items asked from 1 to 5, once
  const { edges, counts } = gridBins(sixths, 1 / 6, 13);
  expect(counts.reduce((a, b) => a + b)).toBe(25);
  expect(new Set(counts.slice(0, -1))).toEqual(new Set([2]));
  expect(edges).toHaveLength(counts.length + 1);
  expect(gridBins(Float64Array.from([4, 4]), 1, 20)).toEqual({ edges: [3.5, 4.5], counts: [2] });
});
