import { mean } from "../describe/mean";
import { type LargeSampleInterval, sumOfSquares } from "../regression/change-interval";
import { type Covariance, inference } from "../regression/covariance";
import type { Fit } from "../regression/least-squares";
import { leftOfColumn } from "./case-statistics";

/**
 * Large-sample intervals of the part correlations of a fit, per column; null where nothing is left to tell. With u what is left of the column
 * without the others, e what is left of the outcome without them and ρ the part correlation, the influence of a case is
 * e·u/(s_y·s_u) − ρ/2·((y − ȳ)²/s²_y + u²/s²_u). For a step of one column the squared limits are those of its ΔR².
 * @param y outcome, length n
 * @param clusters cluster of each case, where cases within one depend on each other
 * Source: as for the interval of ΔR², regression/change-interval.ts.
 */
export function partIntervals(
  fit: Fit,
  y: Float64Array,
  of: Covariance,
  confidence: number,
  clusters: Int32Array | null,
): (LargeSampleInterval | null)[] {
  if (fit.perfect) return fit.columns.map(() => null);
  const { critical } = inference(fit, of, confidence);
  const centre = mean(y);
  const n = y.length;
  const varianceY = fit.ssTotal / n;
  const psi = new Float64Array(n);
  return fit.columns.map((_, i) => {
    const part = fit.part[i]!;
    const u = leftOfColumn(fit, i);
    let squares = 0;
    for (let k = 0; k < n; k++) squares += u[k]! * u[k]!;
    const varianceU = squares / n;
    if (!(varianceU > 0)) return null;
    const b = fit.slopes[i]!;
    const scale = 1 / Math.sqrt(varianceY * varianceU);
    for (let k = 0; k < n; k++) {
      const d = y[k]! - centre;
      const e = fit.residuals[k]! + b * u[k]!;
      psi[k] = e * u[k]! * scale - (part / 2) * ((d * d) / varianceY + (u[k]! * u[k]!) / varianceU);
    }
    const half = (critical * Math.sqrt(sumOfSquares(psi, clusters))) / n;
    return { lower: Math.max(-1, part - half), upper: Math.min(1, part + half) };
  });
}
