import { fQuantile, fUpperTail } from "./f-distribution";
import { tCritical, tTwoSided } from "./t-distribution";

/** Relative error, also of numbers near 1e-300. */
const error = (got: number, expected: number) => Math.abs(got / expected - 1);

describe("upper tails against closed forms of special degrees of freedom", () => {
  // P(F(2, d) > x) = (1 + 2x/d)^(−d/2)
  test.each([
    [0.3, 10],
    [4, 57],
    [80, 200],
    [3000, 120],
    [1e6, 50],
    [1e20, 30],
  ])("F(2, d) beyond %d, d = %d", (x, d) => {
    const exact = Math.exp((-d / 2) * Math.log1p((2 * x) / d));
    expect(error(fUpperTail(x, 2, d), exact)).toBeLessThan(1e-10);
  });

  // P(F(d, 2) > x) = 1 − (dx/(2 + dx))^(d/2)
  test.each([
    [0.01, 4],
    [1, 3],
    [250, 7],
    [1e12, 5],
  ])("F(d, 2) beyond %d, d = %d", (x, d) => {
    const exact = -Math.expm1((d / 2) * Math.log1p(-2 / (2 + d * x)));
    expect(error(fUpperTail(x, d, 2), exact)).toBeLessThan(1e-10);
  });

  // t with one degree of freedom is Cauchy's distribution: P(|T| > t) = (2/π)·atan(1/t)
  test.each([0.2, 3, 1e5, 1e120, 1e150])("t with 1 degree of freedom beyond %d", (t) => {
    expect(error(tTwoSided(t, 1), (2 / Math.PI) * Math.atan(1 / t))).toBeLessThan(1e-10);
  });

  // t with two: P(|T| > t) = 1 − t/√(2 + t²) = 2/(√(2 + t²)·(√(2 + t²) + t))
  test.each([0.5, 12, 1e8, 1e140])("t with 2 degrees of freedom beyond %d", (t) => {
    const root = Math.sqrt(2 + t * t);
    expect(error(tTwoSided(-t, 2), 2 / root / (root + t))).toBeLessThan(1e-10);
  });

  test("t² is F with 1 numerator degree of freedom, far into the tail", () => {
    for (const df of [3, 40, 425, 1e5])
      for (const t of [0.4, 2, 9, 30]) expect(error(tTwoSided(t, df), fUpperTail(t * t, 1, df))).toBeLessThan(1e-9);
  });

  test("the ends: no evidence is p = 1, infinite evidence p = 0", () => {
    expect([tTwoSided(0, 9), fUpperTail(0, 3, 9), fUpperTail(Infinity, 3, 9)]).toEqual([1, 1, 0]);
  });
});

describe("quantiles take their tails back", () => {
  test.each([
    [0.95, 3],
    [0.9, 57],
    [0.999, 424],
    [0.99, 1e6],
  ])("t critical of %d with df %d", (confidence, df) => {
    expect(error(tTwoSided(tCritical(confidence, df), df), 1 - confidence)).toBeLessThan(1e-9);
  });

  test("t critical of one degree of freedom is a tangent", () => {
    expect(error(tCritical(0.95, 1), Math.tan((Math.PI * 0.95) / 2))).toBeLessThan(1e-12);
  });

  test.each([
    [0.975, 297, 1485],
    [0.025, 12, 40],
    [0.5, 1, 1],
  ])("F quantile %d of (%d, %d)", (p, df1, df2) => {
    expect(error(fUpperTail(fQuantile(p, df1, df2), df1, df2), 1 - p)).toBeLessThan(1e-9);
  });
});
