import { tTwoSided } from "../distributions/t-distribution";

/** An estimate with its test. Null: not available, for the reason in the step's notes. */
export interface Estimate {
  estimate: number;
  se: number | null;
  /** Null also when the fit is perfect. */
  t: number | null;
  p: number | null;
  lower: number | null;
  upper: number | null;
}

/** What the tests of one fit share. */
export interface Inference {
  readonly df: number;
  /** t value of the interval, as tCritical gives it for df. */
  readonly critical: number;
  /** True when nothing but rounding is left to explain: intervals have no width and there is no test. */
  readonly exact: boolean;
}

/** One coefficient of one step. */
export interface Coefficient {
  /** Column name, as the design matrix gives it. */
  column: string;
  /** The term it belongs to. */
  term: string;
  /** Outcome units per unit of the column, the others held constant. */
  b: Estimate;
  /**
   * Standardized coefficient (docs/methods.md, “β”); its interval is normal theory in the z metric: approximate.
   * Null when the z metric does not hold the column.
   */
  beta: Estimate | null;
  /** Zero-order correlation with the outcome. */
  zeroOrder: number | null;
  /** −1…1. Its square is the ΔR² this column would bring if entered last. */
  part: number;
  partial: number;
  /** 1 − R² of this column on the others, 0…1; near 0 its coefficient cannot be told apart from theirs. */
  tolerance: number;
  vif: number;
}

/** An estimate with its test from a value and its standard error. Null error: only the value is known. */
export function estimate(value: number, error: number | null, { df, critical, exact }: Inference): Estimate {
  if (error === null) return { estimate: value, se: null, t: null, p: null, lower: null, upper: null };
  const half = exact ? 0 : critical * error;
  const t = exact || error === 0 ? null : value / error;
  return { estimate: value, se: error, t, p: t === null ? null : tTwoSided(t, df), lower: value - half, upper: value + half };
}

/** The same estimate in another unit: its test stays. `factor` is positive. */
export function rescaled(e: Estimate, factor: number): Estimate {
  const scale = (value: number | null) => (value === null ? null : value * factor);
  return { ...e, estimate: e.estimate * factor, se: scale(e.se), lower: scale(e.lower), upper: scale(e.upper) };
}

/** Partial correlation from the part correlation: part/√(part² + 1 − R²). */
export function partialCorrelation(part: number, unexplained: number): number {
  return part === 0 ? 0 : part / Math.sqrt(part * part + unexplained);
}
