import { isConstant } from "./constant";
import { mean } from "./mean";
import { quantile } from "./quantile";
import { standardDeviation } from "./standard-deviation";

/** What a reader wants to know of one numeric column first. Null where the number of cases does not allow a value. */
export interface Description {
  n: number;
  mean: number | null;
  /** Divides by n − 1. */
  sd: number | null;
  /** Standard error of the mean, SD/√n. */
  se: number | null;
  median: number | null;
  /** First and third quartile (type 7). */
  q1: number | null;
  q3: number | null;
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
  const none = { mean: null, sd: null, se: null, median: null, q1: null, q3: null, min: null, max: null };
  if (n === 0) return { n, ...none, skewness: null, kurtosis: null };
  const sorted = values.slice().sort();
  const at = (share: number) => quantile(sorted, share);
  const [min, max] = [at(0), at(1)];
  const centre = mean(values);
  const sd = n < 2 ? null : standardDeviation(values);
  const se = sd === null ? null : sd / Math.sqrt(n);
  const plain = { n, mean: centre, sd, se, median: at(0.5), q1: at(0.25), q3: at(0.75), min, max };
  if (n < 3 || isConstant(values)) return { ...plain, skewness: null, kurtosis: null };
  let [m2, m3, m4] = [0, 0, 0];
  const unit = Math.max(max - centre, centre - min); // so that no power leaves double precision
  for (const value of values) {
    const d = (value - centre) / unit;
    m2 += (d * d) / n;
    m3 += (d * d * d) / n;
    m4 += (d * d * d * d) / n;
  }
  const g1 = m3 / m2 ** 1.5;
  const skewness = (g1 * Math.sqrt(n * (n - 1))) / (n - 2);
  const kurtosis = n < 4 ? null : ((n - 1) / ((n - 2) * (n - 3))) * ((n + 1) * (m4 / m2 ** 2 - 3) + 6);
  return { ...plain, skewness, kurtosis };
}
