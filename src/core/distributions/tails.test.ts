import { chiSquaredCritical, chiSquaredUpperTail } from "./chi-squared-distribution";
import { fQuantile, fUpperTail } from "./f-distribution";
import { normalQuantile, normalUpperTail } from "./normal-distribution";
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
    [1e23, 28], // 1e-306
    [7e8, 76],
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

/** Worked out by a separate program in 60-digit arithmetic; the arguments are the doubles as written. */
describe("upper tails against values of 60-digit arithmetic, to 1e-10 relative", () => {
  test.each([
    [1, 1.0, 3.1731050786291409e-1],
    [1, 12.313708498984761, 4.4964371777044167e-4],
    [5, 1.8377223398316207, 8.71112562154716e-1],
    [5, 14.486832980505138, 1.2795523007079541e-2],
    [5, 118.84199576606166, 5.5205013429854656e-24],
    [50, 50.0, 4.7339846855634937e-1],
    [50, 130.0, 4.8135158946104357e-9],
    [200, 140.0, 9.9956962740502009e-1],
    [200, 220.0, 1.5827867006008708e-1],
    [200, 600.0, 1.4110215102111522e-41],
    [999, 954.301006722746, 8.4142814090588602e-1],
    [999, 1133.0969798317622, 1.9253279635692163e-3],
    [999, 2608.1637579811445, 6.2300618339299659e-144],
    [2000, 2000.0, 4.9579475581978449e-1],
    [2000, 2505.9644256269407, 5.831229554663752e-14],
    [2000, 4276.839915321233, 5.3376536111684764e-167],
    [100000, 98658.35921350012, 9.987024652985167e-1],
    [100000, 100447.21359549995, 1.5865444991893185e-1],
    [100000, 108944.27190999915, 1.9714028175191721e-84],
    [100000, 116099.68943799849, 3.9262500902534198e-257],
    [1000000, 998585.7864376269, 8.4134482680664602e-1],
    [1000000, 1004242.6406871193, 1.3666602638577317e-3],
    [1000000, 1050911.6882454315, 6.6491514772161579e-275],
    [1, 1300.0, 1.1303728441492743e-284],
  ])("χ² with %d degrees of freedom beyond %d", (df, x, exact) => {
    expect(error(chiSquaredUpperTail(x, df), exact)).toBeLessThan(1e-10);
  });

  test.each([
    [0.5, 3, 20, 6.8651861283640303e-1],
    [3.3, 4, 137, 1.2876680708801238e-2],
    [12.0, 5, 900, 2.8864510161088151e-11],
    [80.0, 12, 200, 1.7201235215457597e-69],
    [400.0, 3, 1000, 1.1472687855999032e-170],
    [1.0, 40, 40, 5.0e-1],
    [2500, 1, 500, 1.1319912889543492e-196],
    [1.02, 300, 100000, 3.9357295983656837e-1],
    [25.0, 7, 1000000, 2.2297573952743847e-34],
  ])("F beyond %d with %d and %d degrees of freedom", (x, df1, df2, exact) => {
    expect(error(fUpperTail(x, df1, df2), exact)).toBeLessThan(1e-10);
  });

  test.each([
    [0.1, 5, 9.242301411546604e-1],
    [2.0, 10, 7.3388034770740365e-2],
    [1.98, 120, 4.999207557754104e-2],
    [6.5, 183, 7.4019808539514039e-10],
    [37.0, 1000000, 1.8299730861802262e-299],
    [40.0, 500, 6.29064291825824e-158],
    [1000.0, 98, 2.9732561890194199e-198],
    [12.7, 1, 5.0024327689344159e-2],
    [1e160, 1, 6.3661977236758134e-161],
    [1e200, 1, 6.3661977236758134e-201],
    [1e120, 2, 1.0000000000000001e-240],
  ])("t beyond %d with %d degrees of freedom, two-sided", (t, df, exact) => {
    expect(error(tTwoSided(t, df), exact)).toBeLessThan(1e-10);
  });

  test.each([
    [0.0, 5.0e-1],
    [0.5, 3.0853753872598688e-1],
    [1.0, 1.5865525393145705e-1],
    [1.959963984540054, 2.5000000000000012e-2],
    [3.0, 1.3498980316300946e-3],
    [8.0, 6.2209605742717839e-16],
    [20.0, 2.7536241186062337e-89],
    [37.0, 5.7255712225245771e-300],
    [-1.5, 9.3319279873114191e-1],
  ])("normal beyond %d", (z, exact) => {
    expect(error(normalUpperTail(z), exact)).toBeLessThan(1e-10);
  });

  test.each([
    [0.3, -0.524400512708040816],
    [0.025, -1.9599639845400542118],
    [1e-5, -4.2648907939228246102],
    [1e-12, -7.0344838253011319326],
    [1e-100, -21.273453560965324294],
    [1e-300, -37.047096299361199237],
  ])("normal quantile of %d", (p, exact) => {
    expect(error(normalQuantile(p), exact)).toBeLessThan(1e-12);
  });

  test.each([
    [0.05, 1, 3.8414588206941258653],
    [0.05, 10, 18.307038053275146693],
    [0.001, 4, 18.466826952903171415],
    [0.95, 7, 2.1673499092980578312],
    [0.5, 100, 99.334129235988455754],
  ])("χ² with a share %d above it, %d degrees of freedom", (p, df, exact) => {
    expect(error(chiSquaredCritical(p, df), exact)).toBeLessThan(1e-11);
  });

  test("the ends: nothing lies beyond infinity, all beyond 0", () => {
    expect([chiSquaredUpperTail(0, 3), chiSquaredUpperTail(Infinity, 3), normalQuantile(0.5)]).toEqual([1, 0, -0]);
  });
});
