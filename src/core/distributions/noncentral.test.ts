import { readFileSync } from "node:fs";
import { fUpperTail } from "./f-distribution";
import { noncentralF } from "./noncentral-f";
import { noncentralT } from "./noncentral-t";

const { expected } = JSON.parse(readFileSync("reference/planning/planning.json", "utf8"));
const error = (got: number, wanted: number) => Math.abs(got - wanted) / wanted;

/** Largest relative error of both tails at all points of a block; tails below its floor are no values. */
function worst(block: any, at: (point: any) => { lower: number; upper: number }): number {
  return Math.max(
    ...Object.entries<any>(block.points).flatMap(([name, point]) => {
      const { lower, upper } = at(point);
      const { cdf, upper: above } = block.values[name];
      return [[lower, cdf], [upper, above]].map(([got, wanted]) => (wanted < block.tolerance.floor ? 0 : error(got!, wanted!))); // prettier-ignore
    }),
  );
}

test("noncentral F: both tails to 1e-10 of independent values", () => {
  expect(worst(expected.noncentral_F, ({ f, df1, df2, ncp }) => noncentralF(f, df1, df2, ncp))).toBeLessThan(1e-10);
});

test("noncentral t: both tails to 1e-10 of independent values", () => {
  expect(worst(expected.noncentral_t, ({ t, df, ncp }) => noncentralT(t, df, ncp))).toBeLessThan(1e-10);
});

test("law: the square of a noncentral t is a noncentral F; without a noncentrality both are the central ones", () => {
  for (const [t, df, ncp] of [
    [0.4, 7, 0.3],
    [2.1, 30, 1.4],
    [3.7, 200, 3],
  ] as const) {
    // prettier-ignore
    const f = noncentralF(t * t, 1, df, ncp * ncp);
    expect(error(f.upper, noncentralT(t, df, ncp).upper + noncentralT(-t, df, ncp).lower)).toBeLessThan(1e-10);
    expect(error(noncentralF(t, 3, df, 0).upper, fUpperTail(t, 3, df))).toBeLessThan(1e-12);
  }
  expect(noncentralT(Infinity, 5, 1)).toEqual({ lower: 1, upper: 0 });
  expect(noncentralF(0, 2, 5, 1)).toEqual({ lower: 0, upper: 1 });
});
