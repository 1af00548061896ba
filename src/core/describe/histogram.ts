/** Counts in bins of equal width; a value on an inner edge belongs to the bin above it. */
export interface Histogram {
  /** bins + 1 edges, ascending, in the units of the values. */
  edges: number[];
  counts: number[];
}

/**
 * Bins for scores that fall on a grid: each bin holds the same number of grid points, so that no bin is tall only
 * because it caught one more of them.
 * @param values finite numbers, length n ≥ 1
 * @param grid distance between neighbouring possible values, > 0
 * @param most largest number of bins
 */
export function gridBins(values: Float64Array, grid: number, most: number): Histogram {
  let [low, high] = [values[0]!, values[0]!];
  for (const value of values) {
    if (value < low) low = value;
    if (value > high) high = value;
  }
  const points = Math.floor((high - low) / grid + 1e-9) + 1;
  const width = grid * Math.ceil(points / most);
  const from = low - grid / 2;
  const bins = Math.max(1, Math.ceil((high - from) / width - 1e-9));
  const counts = new Array<number>(bins).fill(0);
  for (const value of values) counts[Math.min(bins - 1, Math.floor((value - from) / width))]!++;
  return { edges: Array.from({ length: bins + 1 }, (_, i) => from + i * width), counts };
}

/**
 * Bins of equal width over the range of the values.
 * @param values finite numbers in any order, length n ≥ 1
 */
export function evenBins(values: Float64Array, bins: number): Histogram {
  let [low, high] = [values[0]!, values[0]!];
  for (const value of values) {
    if (value < low) low = value;
    if (value > high) high = value;
  }
  const width = (high - low) / bins || 1;
  const counts = new Array<number>(bins).fill(0);
  for (const value of values) counts[Math.min(bins - 1, Math.floor((value - low) / width))]!++;
  return { edges: Array.from({ length: bins + 1 }, (_, i) => low + i * width), counts };
}

/** How many bins suit n values: twice the cube root, 8 to 40. */
export const binsFor = (n: number) => Math.max(8, Math.min(40, Math.round(2 * Math.cbrt(n))));

const MOST_ON_GRID = 400;

/** The smallest step between distinct values when every value lies on multiples of it, as 0.5 for half hours. */
export function gridOf(numbers: Float64Array): number | null {
  if (numbers.every(Number.isInteger)) return 1;
  const distinct = [...new Set(numbers)].sort((a, b) => a - b);
  if (distinct.length < 2 || distinct.length > MOST_ON_GRID) return null;
  const step = distinct.slice(1).reduce((least, v, i) => Math.min(least, v - distinct[i]!), Infinity);
  const plain = Number(step.toPrecision(9));
  const onGrid = distinct.every((v) => Math.abs((v - distinct[0]!) / plain - Math.round((v - distinct[0]!) / plain)) < 1e-6);
  return onGrid ? plain : null;
}

/** A step finer than any bin, for values that lie anywhere. */
function finest(numbers: Float64Array): number {
  const spread = numbers.reduce((a, b) => Math.max(a, b), -Infinity) - numbers.reduce((a, b) => Math.min(a, b), Infinity);
  return spread > 0 ? spread / 400 : 1;
}

/** Bins that suit the values: of those on a grid the same number of grid points each, else of equal width. @param values length n ≥ 1 */
export function binsOf(values: Float64Array, most: number): Histogram {
  return gridBins(values, gridOf(values) ?? finest(values), most);
}
