import { TooFewCasesError } from "../errors";
import { orderOf } from "./order-of";
import { reweigh, smoothOfBins } from "./lowess-large";

export interface LowessOptions {
  /** Share of the cases that have a say in each fitted value. */
  readonly span?: number;
  /** Robust rounds after the plain fit. */
  readonly rounds?: number;
  /** Where x are nearer than this to one another, only one is fitted and the line drawn straight in between. */
  readonly apart?: number;
}

/** Up to this many cases every x is fitted; above it three hundred places along the range. */
const FIT_EVERY_X = 1000;
/** Above this many cases they are smoothed in bins (lowess-large.ts). */
export const LARGE_SMOOTH = 20_000;

/**
 * A smooth line through a cloud of points: at each x a straight line fitted to its nearest neighbours, near ones weighing
 * most, then again with the outlying points weighing less.
 * @param x, y finite numbers of equal length n ≥ 2, in any order
 * @returns the smooth at each x, in the order given
 * Source: Cleveland (1979), Journal of the American Statistical Association 74, 829–836.
 */
export function lowess(x: Float64Array, y: Float64Array, options: LowessOptions = {}): Float64Array {
  const n = x.length;
  const { span = 2 / 3, rounds = 3 } = options;
  if (n < 2) throw new TooFewCasesError({ cases: n, needed: 2, purpose: "A smooth line" });
  const order = ascending(x) ? Int32Array.from(x.keys()) : orderOf(x);
  const xs = Float64Array.from(order, (i) => x[i]!);
  const ys = Float64Array.from(order, (i) => y[i]!);
  if (n > LARGE_SMOOTH && options.apart === undefined) return inOrder(order, smoothOfBins(xs, ys, span, rounds));
  const neighbours = Math.max(2, Math.min(n, Math.floor(span * n + 1e-9)));
  const robustness = new Float64Array(n).fill(1);
  const smooth = new Float64Array(n);
  const apart = options.apart ?? (n <= FIT_EVERY_X ? 0 : (xs[n - 1]! - xs[0]!) / 300);
  for (let round = 0; round <= rounds; round++) {
    let from = 0;
    let before = -1; // the last case fitted so far
    for (let i = 0; i < n;) {
      // the window of the nearest neighbours moves to the right as long as that brings a nearer one
      while (from + neighbours < n && xs[from + neighbours]! - xs[i]! < xs[i]! - xs[from]!) from++;
      smooth[i] = localLine(xs, ys, robustness, i, from, from + neighbours) ?? ys[i]!;
      for (let j = before + 1; j < i; j++) {
        const share = (xs[j]! - xs[before]!) / (xs[i]! - xs[before]!);
        smooth[j] = smooth[before]! + share * (smooth[i]! - smooth[before]!);
      }
      before = i;
      while (before + 1 < n && xs[before + 1] === xs[i]) smooth[++before] = smooth[i]!;
      i = before + 1;
      while (i + 1 < n && xs[i + 1]! <= xs[before]! + apart) i++;
    }
    if (round < rounds && !reweigh(ys, smooth, robustness)) break;
  }
  return inOrder(order, smooth);
}

function ascending(x: Float64Array): boolean {
  for (let i = 1; i < x.length; i++) if (x[i]! < x[i - 1]!) return false;
  return true;
}

/** Back in the order the cases were given in. */
function inOrder(order: Int32Array, smooth: Float64Array): Float64Array {
  const result = new Float64Array(smooth.length);
  order.forEach((original, i) => (result[original] = smooth[i]!));
  return result;
}

/** The weighted straight line of the cases from…to − 1 and of those as near as the farthest of them, at x of case i. */
function localLine(xs: Float64Array, ys: Float64Array, robustness: Float64Array, i: number, from: number, to: number): number | null {
  const at = xs[i]!;
  const reach = Math.max(at - xs[from]!, xs[to - 1]! - at);
  const [near, far] = [0.001 * reach, 0.999 * reach];
  const weights: number[] = [];
  const first = from;
  let sum = 0;
  let last = first;
  for (let j = first; j < xs.length; j++) {
    const distance = Math.abs(xs[j]! - at);
    let weight = 0;
    if (distance <= far) weight = (distance > near ? (1 - (distance / reach) ** 3) ** 3 : 1) * robustness[j]!;
    else if (xs[j]! > at) break;
    weights.push(weight);
    sum += weight;
    last = j;
  }
  if (!(sum > 0)) return null;
  let centre = 0;
  for (let j = first; j <= last; j++) centre += (weights[j - first]! / sum) * xs[j]!;
  let spread = 0;
  for (let j = first; j <= last; j++) spread += (weights[j - first]! / sum) * (xs[j]! - centre) ** 2;
  const range = xs[xs.length - 1]! - xs[0]!;
  const tilt = Math.sqrt(spread) > 0.001 * range ? (at - centre) / spread : 0;
  let value = 0;
  for (let j = first; j <= last; j++) value += (weights[j - first]! / sum) * (1 + tilt * (xs[j]! - centre)) * ys[j]!;
  return value;
}
