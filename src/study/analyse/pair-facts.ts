import { fitLine, type FittedLine, lineAtPlace } from "@/core/describe/fit-line";
import { correlation } from "@/core/describe/correlation";
import { quantile } from "@/core/describe/quantile";

/** What the eye might miss in a scatter. */
export interface PairFacts {
  /** Share of the range of x over which the smooth leaves the band of the line, where it does so by enough; else null. */
  readonly bent: number | null;
  /** SD of the residuals in the lowest and in the highest third of x, where they differ by enough; else null. */
  readonly spread: { readonly low: number; readonly high: number } | null;
  /** The respondent (place among the points) without whom r changes most, where it does so by enough; else null. */
  readonly carrying: { readonly at: number; readonly r: number; readonly without: number } | null;
}

/** The smooth must be this far from the line, in SDs of the outcome, over at least this share of the range. */
const [FAR, OVER] = [0.15, 0.15];
/** Residual SDs must differ by this factor. */
const WIDER = 1.5;
/** r must change by this much. */
const CARRIES = 0.1;
const LEAST = 20;

/** @param smooth ascending in x */
export function pairFacts(
  x: Float64Array,
  y: Float64Array,
  line: FittedLine | null,
  smooth: { x: Float64Array; y: Float64Array } | null,
): PairFacts {
  const none: PairFacts = { bent: null, spread: null, carrying: null };
  if (!line || x.length < 4) return none;
  const carrying = carried(x, y, line);
  if (x.length < LEAST) return { ...none, carrying };
  return { bent: smooth && bentShare(smooth, line), spread: spreads(x, y, line), carrying };
}

function bentShare(smooth: { x: Float64Array; y: Float64Array }, line: FittedLine): number | null {
  const [low, high] = [smooth.x[0]!, smooth.x.at(-1)!];
  const far = FAR * Math.sqrt(((line.s ?? 0) ** 2 * (line.n - 2)) / (1 - line.R2 || 1) / (line.n - 1));
  let over = 0;
  for (let i = 1; i < smooth.x.length; i++) {
    const middle = (smooth.x[i]! + smooth.x[i - 1]!) / 2;
    const value = (smooth.y[i]! + smooth.y[i - 1]!) / 2;
    const { y, lower, upper } = lineAtPlace(line, middle);
    if (lower !== null && (value < lower || value > upper!) && Math.abs(value - y) > far) over += smooth.x[i]! - smooth.x[i - 1]!;
  }
  const share = high > low ? over / (high - low) : 0;
  return share >= OVER ? share : null;
}

function spreads(x: Float64Array, y: Float64Array, line: FittedLine): PairFacts["spread"] {
  const sorted = x.slice().sort();
  const [one, two] = [quantile(sorted, 1 / 3), quantile(sorted, 2 / 3)];
  const sdWhere = (in_: (v: number) => boolean) => {
    let [n, squares] = [0, 0];
    for (let i = 0; i < x.length; i++) {
      if (!in_(x[i]!)) continue;
      n++;
      squares += (y[i]! - line.intercept - line.slope * x[i]!) ** 2;
    }
    return n < 8 ? null : Math.sqrt(squares / n);
  };
  const [low, high] = [sdWhere((v) => v <= one), sdWhere((v) => v > two)];
  if (low === null || high === null || !(low > 0) || !(high > 0)) return null;
  return Math.max(low, high) / Math.min(low, high) >= WIDER ? { low, high } : null;
}

function carried(x: Float64Array, y: Float64Array, line: FittedLine): PairFacts["carrying"] {
  const r = correlation(x, y);
  const other = fitLine(y, x, 0.95);
  if (r === null || !other) return null;
  const n = x.length;
  // r without each case, from the sums without it
  const [cx, cy] = [line.centre, other.centre];
  const [xx, yy] = [line.squares, other.squares];
  const xy = line.slope * xx;
  let most = { at: -1, r, without: r };
  const factor = n / (n - 1);
  for (let i = 0; i < n; i++) {
    const [dx, dy] = [x[i]! - cx, y[i]! - cy];
    const [vx, vy] = [xx - factor * dx * dx, yy - factor * dy * dy];
    if (!(vx > 1e-12 * xx) || !(vy > 1e-12 * yy)) continue;
    const without = Math.max(-1, Math.min(1, (xy - factor * dx * dy) / Math.sqrt(vx * vy)));
    if (Math.abs(without - r) > Math.abs(most.without - r)) most = { at: i, r, without };
  }
  return Math.abs(most.without - r) >= CARRIES ? most : null;
}
