import { fQuantile } from "../distributions/f-distribution";
import { tCritical } from "../distributions/t-distribution";
import { factorize } from "../linear-algebra/householder";
import { randomStream } from "../random/random-stream";
import { moment, type Population } from "./population";

/** How a sample is drawn and tested. */
export interface Drawing {
  /** Respondents asked. */
  readonly n: number;
  /** Skewness of what the model leaves of the outcome: 0, 1 or 2. */
  readonly skew: 0 | 1 | 2;
  /** Share of the answers to each variable that are missing, completely at random; whoever misses one is left out. */
  readonly missing: number;
  readonly alpha: number;
  /** True: one coefficient, expected above 0. */
  readonly oneSided: boolean;
  readonly seed: number;
}

/** What some samples found. */
export interface Simulated {
  samples: number;
  /** Samples in which the test held. */
  held: number;
  /** Samples that could not be fitted: too few were left. */
  failed: number;
  /** Sums over the fitted: respondents left, and of one tested column the half-width of its 1 − α interval in β. */
  left: number;
  halfWidths: number;
}

/**
 * Samples first … first + count − 1 of a population, each fitted and tested as the ladder would be: products from variables centred in the sample, complete cases.
 * Sample s draws from the stream of (seed, s), so that the dealing does not matter.
 */
export function simulate(population: Population, drawing: Drawing, { first, count }: { first: number; count: number }): Simulated {
  const critical = criticalValues(population, drawing);
  const sum: Simulated = { samples: count, held: 0, failed: 0, left: 0, halfWidths: 0 };
  for (let s = first; s < first + count; s++) {
    const one = sample(population, drawing, s, critical);
    if (one === null) {
      sum.failed++;
      continue;
    }
    if (one.held) sum.held++;
    sum.left += one.n;
    sum.halfWidths += one.halfWidth;
  }
  return sum;
}

function sample(of: Population, { n, skew, missing, oneSided, seed }: Drawing, s: number, critical: (df: number) => Critical) {
  const { columns, tested, r, predictors, coefficients, residualSd } = of;
  const stream = randomStream(seed, s);
  const q = columns.length;
  const [common, single] = [Math.sqrt(r), Math.sqrt(1 - r)];
  const x = Array.from({ length: predictors }, () => new Float64Array(n));
  const y = new Float64Array(n);
  const means = columns.map((places) => moment(places, r));
  let m = 0;
  for (let i = 0; i < n; i++) {
    const shared = common * stream.normal();
    for (const values of x) values[m] = shared + single * stream.normal();
    let value = residualSd * residual(stream, skew);
    columns.forEach((places, k) => (value += coefficients[k]! * (product(x, places, m) - means[k]!)));
    y[m] = value;
    let complete = true;
    if (missing > 0) for (let v = 0; v <= predictors; v++) if (stream.uniform() < missing) complete = false;
    if (complete) m++;
  }
  const df = m - q - 1;
  if (df < 1) return null;
  for (const values of x) {
    let mean = 0;
    for (let i = 0; i < m; i++) mean += values[i]!;
    mean /= m;
    for (let i = 0; i < m; i++) values[i]! -= mean;
  }
  // one factorization: intercept, the others, the tested, the outcome
  const a = new Float64Array((q + 2) * m);
  a.fill(1, 0, m);
  columns.forEach((places, k) => {
    for (let i = 0; i < m; i++) a[(k + 1) * m + i] = product(x, places, i);
  });
  a.set(y.subarray(0, m), (q + 1) * m);
  const { packed, pivot } = factorize(a, m, q + 2, new Float64Array(q + 2));
  if (pivot.some((row, j) => row !== j)) return null;
  const along = (row: number) => packed[(q + 1) * m + row]!;
  const s2 = along(q + 1) ** 2 / df;
  if (tested > 1) {
    let explained = 0;
    for (let row = q - tested + 1; row <= q; row++) explained += along(row) ** 2;
    return { held: explained / tested / s2 > critical(df).F, n: m, halfWidth: 0 };
  }
  const diagonal = packed[q * m + q]!;
  const t = (along(q) * Math.sign(diagonal)) / Math.sqrt(s2);
  const { oneSided: above, twoSided } = critical(df);
  const held = oneSided ? t > above : Math.abs(t) > twoSided;
  return { held, n: m, halfWidth: (twoSided * Math.sqrt(s2)) / Math.abs(diagonal) };
}

/** What a statistic has to exceed. */
interface Critical {
  F: number;
  oneSided: number;
  twoSided: number;
}

/** Critical values by degrees of freedom, each found once: finding one takes longer than fitting a sample. */
function criticalValues({ tested }: Population, { alpha }: Drawing): (df: number) => Critical {
  const known = new Map<number, Critical>();
  return (df) => {
    const found = known.get(df) ?? {
      F: tested > 1 ? fQuantile(1 - alpha, tested, df) : NaN,
      oneSided: tCritical(1 - 2 * alpha, df),
      twoSided: tCritical(1 - alpha, df),
    };
    known.set(df, found);
    return found;
  };
}

function product(x: readonly Float64Array[], places: readonly number[], at: number): number {
  let value = 1;
  for (const place of places) value *= x[place]![at]!;
  return value;
}

/** A deviate of mean 0 and variance 1: normal, or of χ², whose skewness is √(8/df). */
function residual(stream: ReturnType<typeof randomStream>, skew: 0 | 1 | 2): number {
  if (skew === 0) return stream.normal();
  const df = skew === 1 ? 8 : 2;
  let sum = 0;
  for (let k = 0; k < df; k++) sum += stream.normal() ** 2;
  return (sum - df) / Math.sqrt(2 * df);
}
