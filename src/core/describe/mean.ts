import { type DoubleDouble, twoSum } from "../linear-algebra/double-double";
import { TooFewCasesError } from "../errors";

/**
 * Arithmetic mean, in the units of `values`. The sum of what the first pass left over corrects its rounding.
 * @param values finite numbers, length n ≥ 1
 * @throws TooFewCasesError when n = 0
 * Source: Chan, Golub & LeVeque (1983), The American Statistician 37(3), 242–247.
 */
export function mean(values: Float64Array): number {
  const [high, low] = exactMean(values);
  return high + low;
}

/**
 * The mean in two doubles: what one cannot hold of it is, of numbers far from 0, a large part of their deviations.
 * @throws TooFewCasesError when n = 0
 */
export function exactMean(values: Float64Array): DoubleDouble {
  const n = values.length;
  if (n === 0) throw new TooFewCasesError({ cases: 0, needed: 1, purpose: "A mean" });
  let sum = 0;
  for (let i = 0; i < n; i++) sum += values[i]!;
  sum /= n;
  if (!Number.isFinite(sum)) {
    sum = 0; // the total leaves double precision though the mean need not
    for (const value of values) sum += value / n;
  }
  let left = 0;
  for (let i = 0; i < n; i++) left += values[i]! - sum;
  return twoSum(sum, left / n);
}
