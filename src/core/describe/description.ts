import { centredSumOfSquares } from "./centred-sum-of-squares";
import { isConstant } from "./constant";
import { mean } from "./mean";

/** What a reader wants to know of one numeric column first. Null where the number of cases does not allow a value. */
export interface Description {
  n: number;
  mean: number | null;
  /** Divides by n − 1. */
  sd: number | null;
  min: number | null;
  max: number | null;
  /** G1, bias-corrected; needs n ≥ 3 and some spread. */
  skewness: number | null;
  /** G2, excess, bias-corrected; needs n ≥ 4 and some spread. */
  kurtosis: number | null;
}

/**
 * @param values finite numbers, missing rows already gone; may be empty
 * Source of G1 and G2: Joanes & Gill (1998), The Statistician 47(1), 183–189.
 */
export function describe(values: Float64Array): Description {
  const n = values.length;
  const none = { n, mean: null, sd: null, min: null, max: null, skewness: null, kurtosis: null };
  if (n === 0) return none;
  let [min, max] = [values[0]!, values[0]!];
  for (const value of values) {
    if (value < min) min = value;
    if (value > max) max = value;
  }
  const centre = mean(values);
  const sd = n < 2 ? null : Math.sqrt(centredSumOfSquares(values) / (n - 1));
  if (n < 3 || isConstant(values)) return { ...none, mean: centre, sd, min, max };
  let [m2, m3, m4] = [0, 0, 0];
  for (const value of values) {
    const d = value - centre;
    m2 += (d * d) / n;
    m3 += (d * d * d) / n;
    m4 += (d * d * d * d) / n;
  }
  const g1 = m3 / m2 ** 1.5;
  const skewness = (g1 * Math.sqrt(n * (n - 1))) / (n - 2);
  const kurtosis = n < 4 ? null : ((n - 1) / ((n - 2) * (n - 3))) * ((n + 1) * (m4 / m2 ** 2 - 3) + 6);
  return { n, mean: centre, sd, min, max, skewness, kurtosis };
}
