import { cholesky, solveLower, solveLowerTransposed } from "../linear-algebra/cholesky";

/** What is assumed of a population before anybody has answered. */
export interface Assumed {
  /** Columns of the model, each by the places of the predictors it multiplies: [0], [1], [0, 1]. Those that are tested stand last. */
  readonly columns: readonly (readonly number[])[];
  /** How many are tested. */
  readonly tested: number;
  /** Correlation of every two predictors, 0…. */
  readonly r: number;
  /** R² of the whole model. */
  readonly R2: number;
  /** What the tested columns explain of it beyond the others. */
  readonly change: number;
}

/** A population in which predictors are normal z-scores with one correlation, and the outcome a z-score. */
export interface Population extends Assumed {
  readonly predictors: number;
  /** Coefficient of each column, the product of z-scores for a product. */
  readonly coefficients: Float64Array;
  readonly residualSd: number;
  /** Of one tested column: its variance that the others do not share, so that sr² = β²·own. NaN for several. */
  readonly own: number;
}

/**
 * Coefficients under which a population has the R² and the ΔR² that are assumed: equal ones among the tested columns, beyond the others, and among the others.
 * @returns null where the columns depend on one another, or more is to be explained than there is
 */
export function populationOf(assumed: Assumed): Population | null {
  const { columns, tested, r, R2, change } = assumed;
  const q = columns.length;
  const rest = q - tested;
  if (tested < 1 || !(R2 < 1) || change < 0 || change > R2 + 1e-12) return null;
  const sigma = Float64Array.from({ length: q * q }, (_, at) => covarianceOf(columns[Math.floor(at / q)]!, columns[at % q]!, r));
  const before = Float64Array.from({ length: rest * rest }, (_, at) => sigma[Math.floor(at / rest) * q + (at % rest)]!);
  const lower = rest === 0 ? new Float64Array(0) : cholesky(before, rest);
  if (!lower) return null;
  // of each tested column: its regression on the others
  const slopes = Array.from({ length: tested }, (_, k) => {
    const own = Float64Array.from({ length: rest }, (_unused, i) => sigma[i * q + rest + k]!);
    return rest === 0 ? own : solveLowerTransposed(lower, solveLower(lower, own, rest), rest);
  });
  const shared = (k: number, m: number) => slopes[k]!.reduce((sum, slope, i) => sum + slope * sigma[i * q + rest + m]!, 0);
  const left = Float64Array.from({ length: tested * tested }, (_, at) => {
    const [k, m] = [Math.floor(at / tested), at % tested];
    return sigma[(rest + k) * q + rest + m]! - shared(k, m);
  });
  if (!cholesky(left, tested)) return null;
  const size = (matrix: Float64Array) => matrix.reduce((sum, value) => sum + value, 0);
  const each = Math.sqrt(change / size(left));
  const others = rest === 0 ? 0 : Math.sqrt(Math.max(0, R2 - change) / size(before));
  const coefficients = Float64Array.from({ length: q }, (_, i) =>
    i < rest ? others - each * slopes.reduce((sum, slope) => sum + slope[i]!, 0) : each,
  );
  const predictors = Math.max(...columns.flat()) + 1;
  return { ...assumed, predictors, coefficients, residualSd: Math.sqrt(1 - R2), own: tested === 1 ? left[0]! : NaN };
}

/** Covariance of two products of normal z-scores with one correlation. Source: Isserlis (1918), Biometrika 12, 134–139. */
function covarianceOf(a: readonly number[], b: readonly number[], r: number): number {
  return moment([...a, ...b], r) - moment(a, r) * moment(b, r);
}

/** E of a product of normal z-scores with one correlation: the sum over every way of pairing its factors. */
export function moment(factors: readonly number[], r: number): number {
  if (factors.length === 0) return 1;
  if (factors.length % 2 === 1) return 0;
  const [first, ...others] = factors;
  return others.reduce((sum, other, k) => {
    const pair = other === first ? 1 : r;
    return sum + pair * moment([...others.slice(0, k), ...others.slice(k + 1)], r);
  }, 0);
}
