/** True when the values do not vary beyond the rounding of double precision. `values` is not empty. */
export function isConstant(values: Float64Array): boolean {
  let low = values[0]!;
  let high = low;
  for (let i = 1; i < values.length; i++) {
    const value = values[i]!;
    if (value < low) low = value;
    if (value > high) high = value;
  }
  return isSpreadOfRounding(low, high);
}

/** True when two numbers differ by no more than the rounding of their size. */
export function isSpreadOfRounding(low: number, high: number): boolean {
  return high - low <= 8 * Number.EPSILON * Math.max(Math.abs(low), Math.abs(high));
}
