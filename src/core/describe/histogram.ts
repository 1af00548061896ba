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
