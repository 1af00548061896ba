/** Counts in bins of equal width; the last bin includes its upper edge. */
export interface Histogram {
  /** bins + 1 edges, ascending, in the units of the values. */
  edges: number[];
  counts: number[];
}

/**
 * @param values finite numbers, length n ≥ 1
 * @param bins how many bins; values that do not vary get one bin of width 1 around them
 */
export function equalBins(values: Float64Array, bins: number): Histogram {
  let [low, high] = [values[0]!, values[0]!];
  for (const value of values) {
    if (value < low) low = value;
    if (value > high) high = value;
  }
  const count = high > low ? bins : 1;
  const [from, width] = high > low ? [low, (high - low) / bins] : [low - 0.5, 1];
  const counts = new Array<number>(count).fill(0);
  for (const value of values) counts[Math.min(count - 1, Math.floor((value - from) / width))]!++;
  return { edges: Array.from({ length: count + 1 }, (_, i) => from + i * width), counts };
}
