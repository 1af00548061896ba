/** True when the values do not vary beyond the rounding of double precision. `values` is not empty. */
export function isConstant(values: Float64Array): boolean {
  let low = values[0]!;
  let high = low;
  for (const value of values) {
    if (value < low) low = value;
    if (value > high) high = value;
  }
  return high - low <= 8 * Number.EPSILON * Math.max(Math.abs(low), Math.abs(high));
}
