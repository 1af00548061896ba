import { type DoubleDouble, twoSum } from "../linear-algebra/double-double";
import { applyTransposed } from "../linear-algebra/householder";
import { solveUpper, solveUpperTransposed } from "../linear-algebra/triangular";
import type { PreparedDesign, ScaledColumn } from "./prepared-design";

/** Up to this condition the correction below gains more than six digits, which is all that a first solve has left to gain. */
const WELL_CONDITIONED = 1e4;
/** See augmented-system.ts: what a round of this size leaves, squared, is nothing in a double. */
const SETTLED = 1e-11;
const SPLITTER = 134217729; // 2^27 + 1, see double-double.ts

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

/**
 * Residuals and coefficients of one fit of a well-conditioned design: a first solve by QR, the residual y − X·b formed in
 * double-double, and one correction (RᵀR)⁻¹Xᵀr. Half the work of the augmented system, which serves when this does not settle.
 * Source: Björck (1987), Linear Algebra and its Applications 88/89, 31–48 (corrected semi-normal equations).
 */
export class SemiNormalSystem {
  readonly residualHi: Float64Array;
  readonly residualLo: Float64Array;
  /** Coefficients of the scaled columns, intercept first. */
  readonly solution: DoubleDouble[];

  private constructor(
    private readonly design: PreparedDesign,
    kept: readonly number[],
  ) {
    this.residualHi = design.yHigh.slice();
    this.residualLo = design.yLow.slice();
    this.solution = kept.map(() => [0, 0]);
  }

  /**
   * @param kept columns of the factorization that take part, intercept (0) first
   * @param r, inverse their triangle and its inverse
   * @returns null when the design is too ill-conditioned, or one correction not enough
   */
  static solve(design: PreparedDesign, kept: readonly number[], r: Float64Array, inverse: Float64Array): SemiNormalSystem | null {
    if (!(frobenius(r) * frobenius(inverse) < WELL_CONDITIONED * kept.length)) return null;
    const system = new SemiNormalSystem(design, kept);
    const q = kept.length;
    const first = solveUpper(r, projectedOutcome(design), q);
    kept.forEach((k, i) => system.take(k, first[i]!));
    const right = Float64Array.from(kept, (k) => system.along(k));
    const step = solveUpper(r, solveUpperTransposed(r, right, q), q);
    let [largest, size] = [0, 0];
    for (let i = 0; i < q; i++) {
      system.solution[i] = twoSum(first[i]!, step[i]!);
      largest = Math.max(largest, Math.abs(step[i]!));
      size = Math.max(size, Math.abs(first[i]!));
    }
    if (!(largest <= SETTLED * size)) return null;
    kept.forEach((k, i) => system.takeLittle(k, step[i]!));
    return system;
  }

  /** residual ← residual − x·b, with all digits. */
  private take(k: number, b: number): void {
    const { residualHi: hi, residualLo: lo } = this;
    const n = hi.length;
    if (k === 0) {
      for (let i = 0; i < n; i++) {
        const before = hi[i]!;
        const s = before - b;
        const t = s - before;
        lo[i] = lo[i]! + (before - (s - t) - (b + t));
        hi[i] = s;
      }
      return;
    }
    const { values, centre, scale } = this.column(k);
    const cb = SPLITTER * b;
    const bh = cb - (cb - b);
    const bl = b - bh;
    for (let i = 0; i < n; i++) {
      const x = values[i]!;
      const d = x - centre;
      const v = d - x;
      const a = d * scale;
      const aLow = (x - (d - v) - (centre + v)) * scale;
      const ca = SPLITTER * a;
      const ah = ca - (ca - a);
      const al = a - ah;
      const p = a * b;
      const pe = al * bl - (p - ah * bh - al * bh - ah * bl);
      const before = hi[i]!;
      const s = before - p;
      const t = s - before;
      lo[i] = lo[i]! + (before - (s - t) - (p + t)) - pe - aLow * b;
      hi[i] = s;
    }
  }

  /** Σ x·residual, summed with all digits and rounded once. */
  private along(k: number): number {
    const { residualHi: hi, residualLo: lo } = this;
    const n = hi.length;
    let [sum, rest] = [0, 0];
    if (k === 0) {
      for (let i = 0; i < n; i++) {
        const e = hi[i]!;
        const u = sum + e;
        const v = u - sum;
        rest += sum - (u - v) + (e - v) + lo[i]!;
        sum = u;
      }
      return sum + rest;
    }
    const { values, centre, scale } = this.column(k);
    for (let i = 0; i < n; i++) {
      const x = values[i]!;
      const d = x - centre;
      const v = d - x;
      const a = d * scale;
      const aLow = (x - (d - v) - (centre + v)) * scale;
      const ca = SPLITTER * a;
      const ah = ca - (ca - a);
      const al = a - ah;
      const e = hi[i]!;
      const ce = SPLITTER * e;
      const eh = ce - (ce - e);
      const el = e - eh;
      const m = a * e;
      const me = al * el - (m - ah * eh - al * eh - ah * el);
      const u = sum + m;
      const w = u - sum;
      rest += sum - (u - w) + (m - w) + me + a * lo[i]! + aLow * e;
      sum = u;
    }
    return sum + rest;
  }

  /** residual ← residual − x·b for a b so small that plain arithmetic keeps its digits. */
  private takeLittle(k: number, b: number): void {
    const { residualHi: hi, residualLo: lo } = this;
    const column = k === 0 ? null : this.column(k);
    for (let i = 0; i < hi.length; i++) {
      const low = lo[i]! - (column ? (column.values[i]! - column.centre) * column.scale * b : b);
      const high = hi[i]! + low;
      lo[i] = low - (high - hi[i]!);
      hi[i] = high;
    }
  }

  private column(k: number): ScaledColumn {
    return this.design.columns[k - 1]!;
  }
}

function frobenius(m: Float64Array): number {
  let squares = 0;
  for (let i = 0; i < m.length; i++) squares += m[i]! * m[i]!;
  return Math.sqrt(squares);
}
