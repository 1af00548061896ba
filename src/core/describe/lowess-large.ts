import { quantile } from "./quantile";

/** So many bins of neighbouring cases: each holds the sums of its cases, so that a line costs as much as there are bins. */
const BINS = 2000;
/** Away from the ends a line is fitted at every fourth of them: in between the smooth is as good as straight, and fitting takes nearly all of the time. */
const EVERY = 4;
const ENDS = 40;
const isFitted = (b: number) => b % EVERY === 0 || b < ENDS || b >= BINS - ENDS;

/**
 * The smooth of many cases (lowess.ts says what it is): they are put into 2,000 bins of equally many neighbours in x, near ones weigh by the bin's mean x, and lines are
 * fitted at these means (at every fourth away from the ends), straight in between. How far that lies from the smooth at every x is measured in lowess.test.ts.
 * @param xs ascending @param ys in the same order
 */
export function smoothOfBins(xs: Float64Array, ys: Float64Array, span: number, rounds: number): Float64Array {
  const n = xs.length;
  const ends = Int32Array.from({ length: BINS + 1 }, (_, b) => Math.round((b * n) / BINS));
  const centres = new Float64Array(BINS);
  for (let b = 0; b < BINS; b++) {
    let sum = 0;
    for (let i = ends[b]!; i < ends[b + 1]!; i++) sum += xs[i]!;
    centres[b] = sum / (ends[b + 1]! - ends[b]!);
  }
  const robustness = new Float64Array(n).fill(1);
  const smooth = new Float64Array(n);
  const sums = Array.from({ length: 5 }, () => new Float64Array(BINS));
  for (let round = 0; round <= rounds; round++) {
    sumBins(xs, ys, robustness, ends, centres, sums);
    const lines = fitAtCentres(centres, sums, Math.max(2, Math.floor(span * BINS + 1e-9)), xs[n - 1]! - xs[0]!);
    between(xs, centres, lines, smooth);
    if (round < rounds && !reweigh(ys, smooth, robustness)) break;
  }
  return smooth;
}

/** Per bin Σw, Σwd, Σwd², Σwy, Σwdy, d from the bin's mean x. */
function sumBins(
  xs: Float64Array,
  ys: Float64Array,
  weights: Float64Array,
  ends: Int32Array,
  centres: Float64Array,
  sums: Float64Array[],
): void {
  for (let b = 0; b < BINS; b++) {
    let [w0, w1, w2, y0, y1] = [0, 0, 0, 0, 0];
    for (let i = ends[b]!; i < ends[b + 1]!; i++) {
      const [w, d, y] = [weights[i]!, xs[i]! - centres[b]!, ys[i]!];
      w0 += w;
      w1 += w * d;
      w2 += w * d * d;
      y0 += w * y;
      y1 += w * d * y;
    }
    [w0, w1, w2, y0, y1].forEach((sum, k) => (sums[k]![b] = sum));
  }
}

function fitAtCentres(centres: Float64Array, sums: readonly Float64Array[], neighbours: number, range: number): Float64Array {
  const [w0, w1, w2, y0, y1] = sums as [Float64Array, Float64Array, Float64Array, Float64Array, Float64Array];
  const lines = new Float64Array(BINS);
  let [from, last] = [0, 0];
  for (let b = 0; b < BINS; b++) {
    if (!isFitted(b)) continue;
    const at = centres[b]!;
    while (from + neighbours < BINS && centres[from + neighbours]! - at < at - centres[from]!) from++;
    const reach = Math.max(at - centres[from]!, centres[from + neighbours - 1]! - at);
    const nearness = reach > 0 ? 1 / reach : 0;
    let s = 0;
    let sx = 0;
    let sxx = 0;
    let sy = 0;
    let sxy = 0;
    for (let c = from; c < BINS; c++) {
      const d = centres[c]! - at;
      const distance = d < 0 ? -d : d;
      if (distance > reach) break;
      const share = distance * nearness;
      const tail = 1 - share * share * share;
      const weight = tail * tail * tail;
      const own = w0[c]!;
      const along = w1[c]!;
      const outcome = y0[c]!;
      s += weight * own;
      sx += weight * (along + d * own);
      sxx += weight * (w2[c]! + d * (2 * along + d * own));
      sy += weight * outcome;
      sxy += weight * (y1[c]! + d * outcome);
    }
    if (!(s > 0)) {
      lines[b] = last;
      continue;
    }
    const spread = sxx - (sx * sx) / s;
    const tilted = Math.sqrt(Math.max(0, spread / s)) > 0.001 * range;
    lines[b] = last = sy / s - (tilted ? ((sxy - (sx * sy) / s) / spread) * (sx / s) : 0);
  }
  for (let b = 0; b < BINS; b++) {
    if (isFitted(b)) continue;
    const [before, after] = [b - (b % EVERY), b - (b % EVERY) + EVERY];
    const width = centres[after]! - centres[before]!;
    const share = width > 0 ? (centres[b]! - centres[before]!) / width : 0;
    lines[b] = lines[before]! + share * (lines[after]! - lines[before]!);
  }
  return lines;
}

/** Straight between the bins' means, and on beyond the outermost two. */
function between(xs: Float64Array, centres: Float64Array, lines: Float64Array, out: Float64Array): void {
  let b = 0;
  for (let i = 0; i < xs.length; i++) {
    while (b < BINS - 2 && centres[b + 1]! < xs[i]!) b++;
    const width = centres[b + 1]! - centres[b]!;
    const share = width > 0 ? (xs[i]! - centres[b]!) / width : 0;
    out[i] = lines[b]! + share * (lines[b + 1]! - lines[b]!);
  }
}

/** Bisquare weights from the residuals; false when they are all but gone and another round would change nothing. */
export function reweigh(ys: Float64Array, smooth: Float64Array, robustness: Float64Array): boolean {
  const sizes = ys.map((v, i) => Math.abs(v - smooth[i]!));
  const limit = 6 * quantile(sizes.slice().sort(), 0.5);
  const mean = sizes.reduce((sum, v) => sum + v, 0) / sizes.length;
  if (limit < 1e-7 * mean || limit === 0) return false;
  sizes.forEach((size, i) => {
    if (size <= 0.001 * limit) robustness[i] = 1;
    else robustness[i] = size > 0.999 * limit ? 0 : (1 - (size / limit) ** 2) ** 2;
  });
  return true;
}
