import { tCritical } from "../distributions/t-distribution";
import { isConstant } from "./constant";
import { mean } from "./mean";

/** The least-squares line of y on x. */
export interface FittedLine {
  readonly n: number;
  readonly intercept: number;
  readonly slope: number;
  readonly R2: number;
  /** Residual SD; null with two cases. */
  readonly s: number | null;
  /** What the band around the line is made of. */
  readonly centre: number;
  readonly squares: number;
  readonly critical: number | null;
}

/** Null: fewer than two cases, or x does not vary. @param x, y finite, of one length */
export function fitLine(x: Float64Array, y: Float64Array, confidence: number): FittedLine | null {
  const n = x.length;
  if (n < 2 || isConstant(x)) return null;
  const [cx, cy] = [mean(x), mean(y)];
  let [sxx, sxy, syy] = [0, 0, 0];
  for (let i = 0; i < n; i++) {
    const [dx, dy] = [x[i]! - cx, y[i]! - cy];
    sxx += dx * dx;
    sxy += dx * dy;
    syy += dy * dy;
  }
  const slope = sxy / sxx;
  let sse = 0;
  for (let i = 0; i < n; i++) sse += (y[i]! - cy - slope * (x[i]! - cx)) ** 2;
  return {
    n,
    intercept: cy - slope * cx,
    slope,
    R2: syy > 0 ? 1 - sse / syy : 0,
    s: n > 2 ? Math.sqrt(sse / (n - 2)) : null,
    centre: cx,
    squares: sxx,
    critical: n > 2 ? tCritical(confidence, n - 2) : null,
  };
}

/** The line and its band at a place. */
export function lineAtPlace(line: FittedLine, x: number): { y: number; lower: number | null; upper: number | null } {
  const { n, intercept, slope, s, centre, squares, critical } = line;
  const y = intercept + slope * x;
  if (s === null || critical === null) return { y, lower: null, upper: null };
  const half = critical * s * Math.sqrt(1 / n + (x - centre) ** 2 / squares);
  return { y, lower: y - half, upper: y + half };
}
