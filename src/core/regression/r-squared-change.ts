import { fUpperTail } from "../distributions/f-distribution";
import { type Fit, explainedBeyond } from "./least-squares";

/** What a step adds. Null: a step without a column of its own, or nothing left to explain, has no test. */
export interface RSquaredChange {
  /** ΔR², share of the outcome's variance, 0…1. */
  change: number;
  F: number | null;
  df: readonly [number, number];
  p: number | null;
  /** Cohen's f² = ΔR²/(1 − R²). */
  f2: number | null;
}

/**
 * Does the added step explain more of the outcome? ΔR² = (SSE_reduced − SSE_full)/SST,
 * F = ((SSE_reduced − SSE_full)/q)/(SSE_full/df), with q added columns.
 * @param reduced null compares with the intercept-only model; otherwise a fit of the same outcome and cases whose columns follow
 * from those of `full`
 * Source: Cohen, Cohen, West & Aiken (2003), Applied Multiple Regression/Correlation Analysis, 3rd ed., ch. 5.
 */
export function rSquaredChange(reduced: Fit | null, full: Fit): RSquaredChange {
  const added = full.columns.length - (reduced?.columns.length ?? 0);
  const df = [added, full.dfResidual] as const;
  if (added === 0) return { change: 0, F: null, df, p: null, f2: null };
  const explained = reduced ? explainedBeyond(reduced, full) : full.ssRegression;
  const change = explained / full.ssTotal;
  if (full.perfect) return { change, F: null, df, p: null, f2: null };
  const F = explained / added / (full.ssResidual / full.dfResidual);
  return { change, F, df, p: fUpperTail(F, added, full.dfResidual), f2: explained / full.ssResidual };
}
