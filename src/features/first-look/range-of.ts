/** Lowest and highest of some numbers; 0 and 1 of none. */
export function rangeOf(values: Float64Array): [number, number] {
  let [low, high] = [Infinity, -Infinity];
  for (const v of values) {
    if (v < low) low = v;
    if (v > high) high = v;
  }
  return low <= high ? [low, high] : [0, 1];
}
