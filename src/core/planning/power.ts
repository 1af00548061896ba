import { fQuantile } from "../distributions/f-distribution";
import { noncentralF } from "../distributions/noncentral-f";
import { noncentralTail } from "../distributions/noncentral-t";
import { tCritical } from "../distributions/t-distribution";

/** What is tested in a model, conditional on its predictors. */
export interface PlannedTest {
  /** Columns that are tested together; 1 for a coefficient. */
  tested: number;
  /** Columns of the whole model with them, without the intercept. */
  columns: number;
  alpha: number;
  /** True: one coefficient in a stated direction. */
  oneSided: boolean;
}

/** f² = ΔR²/(1 − R²), R² of the model with the step. */
export const effectOf = (deltaR2: number, R2: number) => deltaR2 / (1 - R2);

/** The ΔR² of an f² where R² is that of the model before it: R² grows with it. */
export const changeAfter = (f2: number, R2Before: number) => (f2 * (1 - R2Before)) / (1 + f2);
/** … and where R² is that of the model with it. */
export const changeWithin = (f2: number, R2: number) => f2 * (1 - R2);

/**
 * Power of a step's ΔR² or of one coefficient: noncentral F with λ = n·f², one-sided noncentral t with √(n·f²).
 * @returns 0…1; NaN when no degree of freedom is left
 * Source: Cohen (1988), Statistical Power Analysis for the Behavioral Sciences, ch. 9.
 */
export function powerOf(n: number, f2: number, { tested, columns, alpha, oneSided }: PlannedTest): number {
  const df = n - columns - 1;
  if (df < 1) return NaN;
  if (oneSided) return noncentralTail(tCritical(1 - 2 * alpha, df), df, Math.sqrt(n * f2), 1);
  return noncentralF(fQuantile(1 - alpha, tested, df), tested, df, n * f2).upper;
}

/** More respondents than any study of this kind has. */
const MOST = 10_000_000;

/** The smallest n that reaches a power; null where even ten million do not. */
export function respondentsFor(power: number, f2: number, test: PlannedTest): number | null {
  const least = test.columns + 2;
  const enough = (n: number) => powerOf(n, f2, test) >= power;
  let high = least;
  while (!enough(high)) {
    if (high >= MOST) return null;
    high = Math.min(MOST, high * 2);
  }
  let low = high === least ? least - 1 : Math.floor(high / 2);
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (enough(middle)) high = middle;
    else low = middle;
  }
  return high;
}

/** The f² that n respondents show with a power, to 1e-12; null when no degree of freedom is left. */
export function detectableEffect(power: number, n: number, test: PlannedTest): number | null {
  if (n - test.columns - 1 < 1) return null;
  let [low, high] = [0, 1];
  while (powerOf(n, high, test) < power) {
    low = high;
    high *= 4;
  }
  for (let k = 0; k < 200 && high - low > 1e-13 * high; k++) {
    const middle = (low + high) / 2;
    if (powerOf(n, middle, test) < power) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/**
 * Reliability of the product of two centred, normal components.
 * @param r their correlation
 * Source: Bohrnstedt & Marwell (1978), Sociological Methodology 9, 254–273.
 */
export const productReliability = (x: number, m: number, r: number) => (x * m + r * r) / (1 + r * r);

/** Expected half-width of a coefficient's interval. @param s assumed residual SD; @param sd of the predictor (n − 1) */
export function expectedHalfWidth(
  n: number,
  columns: number,
  { s, sd, tolerance, confidence = 0.95 }: { s: number; sd: number; tolerance: number; confidence?: number },
): number {
  const df = n - columns - 1;
  if (df < 1) return NaN;
  return (tCritical(confidence, df) * s) / Math.sqrt((n - 1) * sd * sd * tolerance);
}
