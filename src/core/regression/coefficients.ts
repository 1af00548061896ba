import { tTwoSided } from "../distributions/t-distribution";
import type { Fit } from "./least-squares";

/** An estimate with its normal-theory test. t and p are null when the fit is perfect. */
export interface Estimate {
  estimate: number;
  se: number;
  t: number | null;
  p: number | null;
  lower: number;
  upper: number;
}

/** One coefficient of one step. */
export interface Coefficient {
  /** Column name as termName gives it. */
  column: string;
  /** Outcome units per unit of the column, the others held constant. */
  b: Estimate;
  /** Standardized coefficient (contract section 4); its interval is normal theory in the z metric: approximate. */
  beta: Estimate;
  /** Zero-order correlation with the outcome. */
  zeroOrder: number | null;
  /** −1…1. Its square is the ΔR² this column would bring if entered last. */
  part: number;
  partial: number;
  /** 1 − R² of this column on the others, 0…1; near 0 its coefficient cannot be told apart from theirs. */
  tolerance: number;
  vif: number;
}

/**
 * An estimate with its test from a value and its standard error.
 * @param critical t value of the interval, as tCritical gives it for the fit's degrees of freedom: the same for a whole fit
 */
export function estimate(fit: Fit, value: number, error: number, critical: number): Estimate {
  const half = fit.perfect ? 0 : critical * error;
  const t = fit.perfect || error === 0 ? null : value / error;
  return { estimate: value, se: error, t, p: t === null ? null : tTwoSided(t, fit.dfResidual), lower: value - half, upper: value + half };
}

/** The same estimate in another unit: its test stays. `factor` is positive. */
export function rescaled(e: Estimate, factor: number): Estimate {
  return { ...e, estimate: e.estimate * factor, se: e.se * factor, lower: e.lower * factor, upper: e.upper * factor };
}

/** Partial correlation from the part correlation: part/√(part² + 1 − R²). */
export function partialCorrelation(part: number, unexplained: number): number {
  return part === 0 ? 0 : part / Math.sqrt(part * part + unexplained);
}
