import { TooFewCasesError } from "../errors";
import { centredSumOfSquares } from "./centred-sum-of-squares";

/**
 * Sample standard deviation, √(Σ(x − x̄)²/(n − 1)), in the units of `values`. Scaled by a power of two while it squares,
 * so that any unit that a double holds has an SD.
 * @throws TooFewCasesError when n < 2
 */
export function standardDeviation(values: Float64Array): number {
  if (values.length < 2) throw new TooFewCasesError({ cases: values.length, needed: 2, purpose: "A standard deviation" });
  let widest = 0;
  for (const value of values) widest = Math.max(widest, Math.abs(value));
  if (widest === 0) return 0;
  const unit = 2 ** Math.max(-1000, Math.min(1000, Math.round(Math.log2(widest))));
  return unit * Math.sqrt(centredSumOfSquares(values.map((value) => value / unit)) / (values.length - 1));
}
