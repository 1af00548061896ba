import { chiSquaredUpperTail } from "../distributions/chi-squared-distribution";
import type { CorrelationMatrix } from "./correlation-matrix";
import type { InverseCorrelations } from "./inverse-correlations";

/** A test that all correlations are 0 in the population. */
export interface Sphericity {
  chi2: number;
  df: number;
  p: number;
}

/**
 * χ² = −(n − 1 − (2k + 5)/6)·ln|R|, df = k(k − 1)/2.
 * @returns null when so few cases are left that the factor before ln|R| is not positive
 * Source: Bartlett (1951), British Journal of Statistical Psychology 4, 1–2.
 */
export function sphericity({ items: k, n }: CorrelationMatrix, { logDeterminant }: InverseCorrelations): Sphericity | null {
  const factor = n - 1 - (2 * k + 5) / 6;
  if (k < 2 || factor <= 0) return null;
  const df = (k * (k - 1)) / 2;
  const chi2 = Math.max(0, -factor * logDeterminant);
  return { chi2, df, p: chiSquaredUpperTail(chi2, df) };
}
