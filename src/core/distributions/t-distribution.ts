import tCdf from "@stdlib/stats-base-dists-t-cdf";
import tQuantile from "@stdlib/stats-base-dists-t-quantile";

/**
 * Two-sided p of a t value: P(|T| ≥ |t|), taken from the lower tail so that a small p keeps its digits.
 * @param t any number whose square is finite (beyond 1e154 the answer is 0)
 * @param df degrees of freedom > 0
 * Accuracy: about 1e-13 relative, checked down to 1e-300.
 */
export function tTwoSided(t: number, df: number): number {
  return Math.min(1, 2 * tCdf(-Math.abs(t), df));
}

/**
 * The t value with `confidence` of the distribution between −t and t.
 * @param confidence between 0 and 1, as .95
 * @param df degrees of freedom > 0
 */
export function tCritical(confidence: number, df: number): number {
  return -tQuantile((1 - confidence) / 2, df);
}
