import betaln from "@stdlib/math-base-special-betaln";
import tCdf from "@stdlib/stats-base-dists-t-cdf";
import tQuantile from "@stdlib/stats-base-dists-t-quantile";

/** Beyond this the square of t leaves double precision; the tail is its leading term to every digit long before. */
const FAR = 1e140;

/**
 * Two-sided p of a t value: P(|T| ≥ |t|), taken from the lower tail so that a small p keeps its digits.
 * @param df degrees of freedom > 0
 * Accuracy: about 1e-13 relative, checked down to 1e-300.
 */
export function tTwoSided(t: number, df: number): number {
  const size = Math.abs(t);
  if (size > FAR && df < FAR) return Math.exp((df / 2) * Math.log(df) - df * Math.log(size) - Math.log(df / 2) - betaln(df / 2, 0.5));
  return Math.min(1, 2 * tCdf(-size, df));
}

/**
 * The t value with `confidence` of the distribution between −t and t.
 * @param confidence from .001 to 1, as .95 (below that the package's quantile loses its digits)
 * @param df degrees of freedom > 0
 */
export function tCritical(confidence: number, df: number): number {
  return -tQuantile((1 - confidence) / 2, df);
}
