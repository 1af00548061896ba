import { mean } from "../describe/mean";
import type { Covariance } from "./covariance";
import { inference } from "./covariance";
import type { Fit } from "./least-squares";

/** A large-sample interval of a share of variance or of a correlation. */
export interface LargeSampleInterval {
  lower: number;
  upper: number;
}

/** Below this a share is nothing but rounding. */
const NOTHING = 1e-13;

/**
 * Interval of a step's ΔR², formed on its root, where it is nearly symmetric, and squared again; it never leaves 0…1. The variance is that of
 * the influence values ψᵢ = (e²ᵢ of the smaller model − e²ᵢ of the larger − ΔR²·(yᵢ − ȳ)²)/s²_y, which needs no normal residuals; within clusters
 * they are added up first. Approximate: it speaks of large samples, and less well of a ΔR² near 0, where a bootstrap interval is to be preferred.
 * @param reduced null: the model without predictors
 * @param y outcome, length n
 * @param clusters cluster of each case, where cases within one depend on each other
 * @returns null for a step that adds nothing or leaves nothing
 * Sources: Olkin & Finn (1995), Psychological Bulletin 118, 155–164, for normal data; the general variance by the influence function,
 * Cook & Weisberg (1982), Residuals and Influence in Regression, 3.4.
 */
export function changeInterval(
  reduced: Fit | null,
  full: Fit,
  y: Float64Array,
  of: Covariance,
  confidence: number,
  clusters: Int32Array | null,
): LargeSampleInterval | null {
  const before = reduced ? reduced.ssResidual : full.ssTotal;
  const change = (before - full.ssResidual) / full.ssTotal;
  if (full.perfect || change < NOTHING) return null;
  const centre = mean(y);
  const psi = new Float64Array(y.length);
  for (let i = 0; i < y.length; i++) {
    const d = y[i]! - centre;
    const e = reduced ? reduced.residuals[i]! : d;
    psi[i] = e ** 2 - full.residuals[i]! ** 2 - change * d * d;
  }
  const root = Math.sqrt(change);
  const error = Math.sqrt(sumOfSquares(psi, clusters)) / full.ssTotal / (2 * root);
  const half = inference(full, of, confidence).critical * error;
  return { lower: Math.max(0, root - half) ** 2, upper: Math.min(1, root + half) ** 2 };
}

/** Σψ², or the sum of the squared sums of each cluster. */
export function sumOfSquares(psi: Float64Array, clusters: Int32Array | null): number {
  let sum = 0;
  if (clusters === null) {
    for (let i = 0; i < psi.length; i++) sum += psi[i]! * psi[i]!;
    return sum;
  }
  const sums = new Map<number, number>();
  for (let i = 0; i < psi.length; i++) sums.set(clusters[i]!, (sums.get(clusters[i]!) ?? 0) + psi[i]!);
  for (const value of sums.values()) sum += value * value;
  return sum;
}
