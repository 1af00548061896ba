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
  for (let i = 0; i < values.length; i++) widest = Math.max(widest, Math.abs(values[i]!));
  if (widest === 0) return 0;
  // squares of ordinary sizes need no scaling
  if (widest > 1e-100 && widest < 1e100) return Math.sqrt(centredSumOfSquares(values) / (values.length - 1));
  const unit = 2 ** Math.max(-1000, Math.min(1000, Math.round(Math.log2(widest))));
  return unit * Math.sqrt(centredSumOfSquares(values.map((value) => value / unit)) / (values.length - 1));
}
