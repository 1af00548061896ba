import { type DoubleDouble, type ExactVector, twoSum } from "../linear-algebra/double-double";
import { applyTransposed } from "../linear-algebra/householder";
import { solveUpper, solveUpperTransposed } from "../linear-algebra/triangular";
import { productSum, subtractMultiple } from "./exact-columns";
import { columnAt, type PreparedDesign, type ScaledColumn } from "./prepared-design";

/** Up to this condition the correction below gains more than six digits, which is all that a first solve has left to gain. */
const WELL_CONDITIONED = 1e4;
/** See augmented-system.ts: what a round of this size leaves, squared, is nothing in a double. */
const SETTLED = 1e-11;

const projections = new WeakMap<PreparedDesign, Float64Array>();

/** Qᵀy of a whole design; its leading entries serve every step. */
function projectedOutcome(design: PreparedDesign): Float64Array {
  const found = projections.get(design);
  if (found) return found;
  const projected = design.yHigh.slice();
  applyTransposed(design.factorization, design.factorization.columns, projected);
  projections.set(design, projected);
  return projected;
}

/** Residuals and coefficients of one fit, with digits beyond a double's. */
export interface RefinedSolution {
  readonly residual: ExactVector;
  /** Coefficients of the scaled columns, intercept first. */
  readonly solution: DoubleDouble[];
}

/**
 * The fit of a well-conditioned design: a first solve by QR, the residual y − X·b formed in double-double, and one correction
 * (RᵀR)⁻¹Xᵀr. Two thirds of the time of the augmented system (bench/README.md), which serves when this does not settle.
 * @param kept columns of the factorization that take part, intercept (0) first
 * @param r, inverse their triangle and its inverse
 * @returns null when the design is too ill-conditioned, or one correction not enough
 * Source: Björck (1987), Linear Algebra and its Applications 88/89, 31–48 (corrected semi-normal equations).
 */
export function semiNormalSolution(
  design: PreparedDesign,
  kept: readonly number[],
  r: Float64Array,
  inverse: Float64Array,
): RefinedSolution | null {
  const q = kept.length;
  if (!(frobenius(r) * frobenius(inverse) < WELL_CONDITIONED * q)) return null;
  const columns = kept.map((k) => columnAt(design, k));
  const first = solveUpper(r, projectedOutcome(design), q);
  const residual = { hi: design.yHigh.slice(), lo: design.yLow.slice() };
  columns.forEach((column, i) => subtractMultiple(residual, column, first[i]!));
  const right = columns.map((column) => productSum(residual, column));
  const step = solveUpper(r, solveUpperTransposed(r, right, q), q);
  const largest = step.reduce((size, v) => Math.max(size, Math.abs(v)), 0);
  const size = first.reduce((most, v) => Math.max(most, Math.abs(v)), 0);
  if (!(largest <= SETTLED * size)) return null;
  subtractLittle(residual, columns, step);
  return { residual, solution: Array.from(first, (b, i) => twoSum(b, step[i]!)) };
}

/** v ← v − Σ x·b for b so small that plain arithmetic keeps their digits. */
function subtractLittle({ hi, lo }: ExactVector, columns: readonly (ScaledColumn | null)[], b: ArrayLike<number>): void {
  const n = hi.length;
  columns.forEach((column, k) => {
    if (column === null) {
      for (let i = 0; i < n; i++) lo[i] = lo[i]! - b[k]!;
      return;
    }
    const { values, centre, exact } = column;
    if (exact) {
      for (let i = 0; i < n; i++) lo[i] = lo[i]! - exact.hi[i]! * b[k]!;
      return;
    }
    const factor = column.scale * b[k]!;
    for (let i = 0; i < n; i++) lo[i] = lo[i]! - (values[i]! - centre) * factor;
  });
  for (let i = 0; i < n; i++) {
    const before = hi[i]!;
    const low = lo[i]!;
    const high = before + low;
    lo[i] = low - (high - before);
    hi[i] = high;
  }
}

function frobenius(m: Float64Array): number {
  let squares = 0;
  for (let i = 0; i < m.length; i++) squares += m[i]! * m[i]!;
  return Math.sqrt(squares);
}
