import { fUpperTail } from "../distributions/f-distribution";
import { cholesky, solveLower } from "../linear-algebra/cholesky";
import { apply, factorize, independentColumns, upperTriangle } from "../linear-algebra/householder";
import { solveUpperTransposed } from "../linear-algebra/triangular";
import type { Covariance } from "./covariance";
import type { Fit } from "./least-squares";

/** The test that several coefficients are all 0. Null F and p: not available, as `reason` says. */
export interface JointTest {
  F: number | null;
  df: readonly [number, number];
  p: number | null;
  reason: "no-columns" | "perfect-fit" | "singular-covariance" | null;
}

/** The coefficients at some positions, turned so that the classical covariance of what remains is s² times the identity. */
export interface WhitenedBlock {
  /** Length m; its squared length is the drop in SSE when the columns leave, in scaled units. */
  readonly u: Float64Array;
  /** Orthonormal, q × m, column after column. */
  readonly directions: Float64Array;
  /** Product of the squared diagonal of the block's triangle: the determinant of the block of (XᵀX)⁻¹. */
  readonly determinant: number;
  /** R_A⁻ᵀ·b of any b of length m, in the fit's scaled units. */
  readonly whiten: (b: ArrayLike<number>) => Float64Array;
}

/**
 * @param positions of the coefficients in the fit's basis, each ≥ 1 and none twice
 * With A the rows of R⁻¹ at the positions and Aᵀ = Q·R_A, the block of (XᵀX)⁻¹ is R_AᵀR_A and u = R_A⁻ᵀ·b.
 */
export function whitenedBlock(fit: Fit, positions: readonly number[]): WhitenedBlock {
  const { inverse, kept, solution } = fit.basis;
  const q = kept.length;
  const m = positions.length;
  const packed = new Float64Array(q * m);
  positions.forEach((row, column) => packed.set(inverse.subarray(row * q, (row + 1) * q), column * q));
  const f = factorize(packed, q, m, new Float64Array(m));
  const triangle = upperTriangle(f, independentColumns(f, m));
  const directions = new Float64Array(q * m);
  let determinant = 1;
  for (let k = 0; k < m; k++) {
    directions[k * q + k] = 1;
    apply(f, m, directions.subarray(k * q, (k + 1) * q));
    determinant *= triangle[k * m + k]! ** 2;
  }
  const b = Float64Array.from(positions, (at) => solution[at]!);
  const whiten = (values: ArrayLike<number>) => solveUpperTransposed(triangle, values, m);
  return { u: whiten(b), directions, determinant, whiten };
}

/** L with L·Lᵀ the covariance of a whitened block; null when it is singular. @param q columns of the fit with the intercept */
export function blockTriangle({ directions }: WhitenedBlock, { middle }: Pick<Covariance, "middle">, q: number): Float64Array | null {
  const m = directions.length / q;
  const block = new Float64Array(m * m);
  const turned = new Float64Array(q);
  for (let a = 0; a < m; a++) {
    for (let i = 0; i < q; i++) {
      let sum = 0;
      for (let k = 0; k < q; k++) sum += middle[i * q + k]! * directions[a * q + k]!;
      turned[i] = sum;
    }
    for (let b = 0; b < m; b++) {
      let sum = 0;
      for (let i = 0; i < q; i++) sum += directions[b * q + i]! * turned[i]!;
      block[a * m + b] = sum;
    }
  }
  return cholesky(block, m);
}

/** Wald F that the coefficients at `positions` are all 0, on (number of them, df of the covariance). */
export function waldTest(fit: Fit, positions: readonly number[], { middle, df }: Covariance): JointTest {
  const m = positions.length;
  const none = (reason: JointTest["reason"]): JointTest => ({ F: null, df: [m, df], p: null, reason });
  if (m === 0) return none("no-columns");
  if (fit.perfect) return none("perfect-fit");
  const block = whitenedBlock(fit, positions);
  const l = blockTriangle(block, { middle }, fit.basis.kept.length);
  if (l === null) return none("singular-covariance");
  const z = solveLower(l, block.u, m);
  const F = z.reduce((sum, v) => sum + v * v, 0) / m;
  return { F, df: [m, df], p: fUpperTail(F, m, df), reason: null };
}
