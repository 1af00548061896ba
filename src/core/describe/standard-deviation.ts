import { TooFewCasesError } from "../errors";
import { centredSumOfSquares } from "./centred-sum-of-squares";

/**
 * Sample standard deviation, √(Σ(x − x̄)²/(n − 1)), in the units of `values`.
 * @throws TooFewCasesError when n < 2
 */
export function standardDeviation(values: Float64Array): number {
  if (values.length < 2) throw new TooFewCasesError({ cases: values.length, needed: 2, purpose: "A standard deviation" });
  return Math.sqrt(centredSumOfSquares(values) / (values.length - 1));
}
