import { mean } from "./mean";

/**
 * Centred sum of squares Σ(x − x̄)², in squared units of `values`. Two passes, corrected for rounding.
 * @param values finite numbers, length n ≥ 1; rows with missing answers are already gone
 * @throws TooFewCasesError when n = 0
 * Source: Chan, Golub & LeVeque (1983), The American Statistician 37(3), 242–247.
 */
export function centredSumOfSquares(values: Float64Array): number {
  const centre = mean(values);
  let squares = 0;
  let drift = 0;
  for (let i = 0; i < values.length; i++) {
    const d = values[i]! - centre;
    squares += d * d;
    drift += d;
  }
  return squares - (drift * drift) / values.length;
}
