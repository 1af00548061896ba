import fc from "fast-check";
import { TooFewCasesError, TooManyCasesError } from "../errors";
import { randomStream } from "../random/random-stream";
import { shapiroWilk } from "./shapiro-wilk";

const normal = (n: number, seed: number) => {
  const random = randomStream(seed);
  return Float64Array.from({ length: n }, () => random.normal());
};

test("W and p do not depend on order, unit, zero point or sign", () => {
  fc.assert(
    fc.property(fc.integer({ min: 3, max: 200 }), fc.integer({ min: 1, max: 1e6 }), fc.constantFrom(-1e6, 0.01, 250), (n, seed, unit) => {
      const values = normal(n, seed);
      const found = shapiroWilk(values)!;
      const moved = shapiroWilk(values.map((v) => unit * v + 12).reverse())!;
      expect(moved.W).toBeCloseTo(found.W, 9);
      expect(moved.p).toBeCloseTo(found.p, 7);
      expect(found.W > 0 && found.W <= 1 && found.p >= 0 && found.p <= 1).toBe(true);
    }),
  );
});

test("normal samples are rejected about as often as the level says, skewed ones nearly always", () => {
  const samples = Array.from({ length: 400 }, (_, seed) => normal(80, seed + 1));
  const rejected = (change: (v: number) => number) => samples.filter((s) => shapiroWilk(s.map(change))!.p < 0.05).length / 400;
  expect(rejected((v) => v)).toBeGreaterThan(0.02);
  expect(rejected((v) => v)).toBeLessThan(0.085); // .05 ± 3 standard errors
  expect(rejected(Math.exp)).toBeGreaterThan(0.98);
});

test("three values: W runs from ¾, two alike, to 1, evenly spaced", () => {
  expect(shapiroWilk(Float64Array.of(0, 0, 1))).toEqual({ W: expect.closeTo(0.75, 12), p: expect.closeTo(0, 7) });
  expect(shapiroWilk(Float64Array.of(5, 6, 7))).toEqual({ W: expect.closeTo(1, 12), p: expect.closeTo(1, 6) });
});

test("values that do not vary have no test; two are too few, 5,001 too many", () => {
  expect(shapiroWilk(new Float64Array(9).fill(4))).toBeNull();
  expect(() => shapiroWilk(Float64Array.of(1, 2))).toThrow(TooFewCasesError);
  expect(() => shapiroWilk(normal(5001, 1))).toThrow(TooManyCasesError);
  expect(shapiroWilk(normal(5000, 1))!.W).toBeGreaterThan(0.99);
});
