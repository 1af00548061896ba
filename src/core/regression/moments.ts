import { mean } from "../describe/mean";
import { standardDeviation } from "../describe/standard-deviation";
import { cholesky, inverseFromCholesky, solveLower, solveLowerTransposed } from "../linear-algebra/cholesky";

/** All that least squares needs of some columns: enough to fit any of them on the others, and nobody's row is in it. */
export interface Moments {
  readonly n: number;
  readonly names: readonly string[];
  readonly means: readonly number[];
  /** Divide by n − 1. */
  readonly sds: readonly number[];
  /** Rows of the lower triangle, without the diagonal: r of column i with those before it. */
  readonly correlations: readonly (readonly number[])[];
}

/** @param columns of length n, by name; a column without spread has correlations of 0 */
export function momentsOf(columns: readonly { readonly name: string; readonly values: Float64Array }[]): Moments {
  const n = columns[0]?.values.length ?? 0;
  const means = columns.map(({ values }) => mean(values));
  const sds = columns.map(({ values }) => (n < 2 ? 0 : standardDeviation(values)));
  const unit = columns.map(({ values }, j) => {
    const norm = sds[j]! * Math.sqrt(n - 1);
    return norm === 0 ? new Float64Array(n) : values.map((value) => (value - means[j]!) / norm);
  });
  const dot = (a: Float64Array, b: Float64Array) => {
    // summed with its rounding carried along (Neumaier): correlations are good to the last digits
    let [sum, low] = [0, 0];
    for (let i = 0; i < n; i++) {
      const value = a[i]! * b[i]!;
      const next = sum + value;
      low += Math.abs(sum) >= Math.abs(value) ? sum - next + value : value - next + sum;
      sum = next;
    }
    return sum + low;
  };
  return {
    n,
    names: columns.map(({ name }) => name),
    means,
    sds,
    correlations: unit.map((one, i) => unit.slice(0, i).map((other) => dot(one, other))),
  };
}

/** What a fit from moments tells. Null where there is no degree of freedom left. */
export interface MomentsFit {
  readonly R2: number;
  readonly df: number;
  /** In the order of `predictors`, in outcome units per unit; their classical standard errors. */
  readonly b: readonly number[];
  readonly se: readonly (number | null)[];
  readonly intercept: number;
}

/**
 * Least squares of one column on others, from means, SDs and correlations alone: the same b, SE and R² as from the rows.
 * @throws RangeError for a name that is not there, or predictors that determine one another
 */
export function fitMoments(of: Moments, outcome: string, predictors: readonly string[]): MomentsFit {
  const at = (name: string) => {
    const found = of.names.indexOf(name);
    if (found < 0) throw new RangeError(`no column ${name}`);
    return found;
  };
  const r = (i: number, j: number) => (i === j ? 1 : i > j ? of.correlations[i]![j]! : of.correlations[j]![i]!);
  const [y, x] = [at(outcome), predictors.map(at)];
  const q = x.length;
  const R = Float64Array.from({ length: q * q }, (_, i) => r(x[Math.floor(i / q)]!, x[i % q]!));
  const right = x.map((i) => r(i, y));
  const factor = cholesky(R, q);
  if (!factor) throw new RangeError("the columns determine one another");
  const solve = (of: ArrayLike<number>) => solveLowerTransposed(factor, solveLower(factor, of, q), q);
  const first = solve(right);
  // one step of refinement: what the first solution leaves is solved for as well
  const left = right.map((value, i) => value - first.reduce((sum, b, j) => sum + R[i * q + j]! * b, 0));
  const more = solve(left);
  const beta = Array.from(first, (value, i) => value + more[i]!);
  const inverse = inverseFromCholesky(factor, q);
  const R2 = beta.reduce((sum, value, k) => sum + value * r(x[k]!, y), 0);
  const df = of.n - x.length - 1;
  const b = beta.map((value, k) => (value * of.sds[y]!) / of.sds[x[k]!]!);
  const se = x.map((j, k) => (df <= 0 ? null : Math.sqrt(((1 - R2) * inverse[k * q + k]!) / df) * (of.sds[y]! / of.sds[j]!)));
  return { R2, df, b, se, intercept: of.means[y]! - b.reduce((sum, value, k) => sum + value * of.means[x[k]!]!, 0) };
}
