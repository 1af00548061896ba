import { quantile } from "./quantile";
import { standardDeviation } from "./standard-deviation";

/** A smooth outline of how values lie: `y` integrates to 1 over `x`. */
export interface Density {
  readonly x: Float64Array;
  readonly y: Float64Array;
  /** SD of the kernel. */
  readonly width: number;
}

const PLACES = 128;
const CELLS = 1024;

/**
 * A kernel density with normal kernels, width by Silverman's rule: 0.9·min(SD, quartile range/1.34)·n^(−1/5). Values are first counted in 1,024 cells.
 * Source: Silverman (1986), Density estimation for statistics and data analysis, 3.4.2.
 * @param sorted ascending, finite; null: they do not vary
 */
export function density(sorted: Float64Array): Density | null {
  const n = sorted.length;
  if (n < 2) return null;
  const sd = standardDeviation(sorted);
  const range = quantile(sorted, 0.75) - quantile(sorted, 0.25);
  const spread = range > 0 ? Math.min(sd, range / 1.34) : sd;
  if (!(spread > 0) || !Number.isFinite(spread)) return null;
  const width = 0.9 * spread * n ** -0.2;
  const [low, high] = [sorted[0]! - 3 * width, sorted[n - 1]! + 3 * width];
  const cell = (high - low) / CELLS;
  const counts = new Float64Array(CELLS);
  for (const value of sorted) {
    // a value counts in the two cells beside it, by how near it is to each
    const at = (value - low) / cell - 0.5;
    const left = Math.max(0, Math.min(CELLS - 2, Math.floor(at)));
    counts[left]! += 1 - (at - left);
    counts[left + 1]! += at - left;
  }
  const reach = Math.ceil((5 * width) / cell);
  const x = Float64Array.from({ length: PLACES }, (_, i) => low + ((high - low) * i) / (PLACES - 1));
  const unit = 1 / (n * width * Math.sqrt(2 * Math.PI));
  const y = x.map((at) => {
    const middle = Math.round((at - low) / cell - 0.5);
    let sum = 0;
    for (let c = Math.max(0, middle - reach); c <= Math.min(CELLS - 1, middle + reach); c++) {
      const distance = (low + (c + 0.5) * cell - at) / width;
      sum += counts[c]! * Math.exp(-0.5 * distance * distance);
    }
    return sum * unit;
  });
  return { x, y, width };
}

/** How many heaps a density has: high places between which it falls below three quarters of the lower one. */
export function heaps({ y }: Density): number {
  const most = y.reduce((a, b) => Math.max(a, b), 0);
  const tops = [...y.keys()].filter((i) => y[i]! > 0.15 * most && y[i]! >= (y[i - 1] ?? 0) && y[i]! > (y[i + 1] ?? 0));
  let [found, top] = [0, -1];
  for (const next of tops) {
    const dip = top < 0 ? 0 : y.subarray(top, next).reduce((a, b) => Math.min(a, b), Infinity);
    if (top < 0 || dip < 0.75 * Math.min(y[top]!, y[next]!)) [found, top] = [found + 1, next];
    else if (y[next]! > y[top]!) top = next;
  }
  return found;
}
