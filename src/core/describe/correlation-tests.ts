import { normalQuantile, normalUpperTail } from "../distributions/normal-distribution";
import { tTwoSided } from "../distributions/t-distribution";

/** A correlation with its test. Null: there are too few cases, or the two are one and the same line. */
export interface CorrelationTest {
  readonly n: number;
  readonly r: number;
  readonly df: number;
  readonly t: number | null;
  readonly p: number | null;
  readonly lower: number | null;
  readonly upper: number | null;
}

/**
 * t with n − 2 − controls degrees of freedom; interval on Fisher's z with standard error 1/√(n − controls − 3).
 * @param confidence as .95; null: no interval (of ranks)
 * @param controls how many were held constant
 * @returns null where r is not a number
 * Source of z: Fisher (1921), Metron 1, 3–32.
 */
export function correlationTest(r: number, n: number, confidence: number | null, controls = 0): CorrelationTest | null {
  if (Number.isNaN(r)) return null;
  const df = n - 2 - controls;
  const line = Math.abs(r) >= 1;
  const t = df > 0 && !line ? r * Math.sqrt(df / ((1 - r) * (1 + r))) : null;
  const known = { n, r, df, t, p: t === null ? null : tTwoSided(t, df) };
  if (confidence === null || n - controls <= 3) return { ...known, lower: null, upper: null };
  if (line) return { ...known, lower: r, upper: r };
  const half = -normalQuantile((1 - confidence) / 2) / Math.sqrt(n - controls - 3);
  return { ...known, lower: Math.tanh(Math.atanh(r) - half), upper: Math.tanh(Math.atanh(r) + half) };
}

/** The correlation of two columns in one group minus that in another, independent one, on Fisher's z. */
export interface CorrelationDifference {
  readonly first: { readonly n: number; readonly r: number };
  readonly second: { readonly n: number; readonly r: number };
  /** atanh r₁ − atanh r₂. */
  readonly difference: number;
  readonly se: number;
  readonly z: number;
  readonly p: number;
}

/** Null: fewer than four cases in one of them, or a correlation that is not there or is 1. */
export function correlationDifference(
  first: { readonly n: number; readonly r: number },
  second: { readonly n: number; readonly r: number },
): CorrelationDifference | null {
  if (first.n < 4 || second.n < 4 || !(Math.abs(first.r) < 1) || !(Math.abs(second.r) < 1)) return null;
  const difference = Math.atanh(first.r) - Math.atanh(second.r);
  const se = Math.sqrt(1 / (first.n - 3) + 1 / (second.n - 3));
  const z = difference / se;
  return { first, second, difference, se, z, p: 2 * normalUpperTail(Math.abs(z)) };
}
