import { tCritical, tTwoSided } from "../distributions/t-distribution";
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

/** Estimates with tests from values and standard errors of a fit. `factor` converts both to another metric. */
export function estimate(fit: Fit, value: number, error: number, confidence: number, factor = 1): Estimate {
  const se = error * factor;
  const scaled = value * factor;
  const half = fit.perfect ? 0 : tCritical(confidence, fit.dfResidual) * se;
  const t = fit.perfect || error === 0 ? null : value / error;
  return { estimate: scaled, se, t, p: t === null ? null : tTwoSided(t, fit.dfResidual), lower: scaled - half, upper: scaled + half };
}

/** Partial correlation from the part correlation: part/√(part² + 1 − R²). */
export function partialCorrelation(part: number, unexplained: number): number {
  return part === 0 ? 0 : part / Math.sqrt(part * part + unexplained);
}
