import { TooFewCasesError } from "../errors";
import { mean } from "./mean";

/**
 * Pearson's r, −1…1, or null when one of the two does not vary.
 * @param x, y finite numbers of equal length n ≥ 2, row by row of the same cases
 * @throws TooFewCasesError when n < 2
 */
export function correlation(x: Float64Array, y: Float64Array): number | null {
  const n = x.length;
  if (n < 2) throw new TooFewCasesError({ cases: n, needed: 2, purpose: "A correlation" });
  const [cx, cy] = [mean(x), mean(y)];
  let [xx, yy, xy] = [0, 0, 0];
  let [sx, sy] = [0, 0];
  for (let i = 0; i < n; i++) {
    sx = Math.max(sx, Math.abs(x[i]! - cx));
    sy = Math.max(sy, Math.abs(y[i]! - cy));
  }
  if (sx <= 4 * Number.EPSILON * Math.abs(cx) || sy <= 4 * Number.EPSILON * Math.abs(cy)) return null;
  for (let i = 0; i < n; i++) {
    const a = (x[i]! - cx) / sx; // scaled by the largest deviation: no overflow at any unit
    const b = (y[i]! - cy) / sy;
    xx += a * a;
    yy += b * b;
    xy += a * b;
  }
  return Math.max(-1, Math.min(1, xy / Math.sqrt(xx * yy)));
}
