import { type DoubleDouble, twoSum } from "../linear-algebra/double-double";
import { apply, applyTransposed } from "../linear-algebra/householder";
import { solveUpper, solveUpperTransposed } from "../linear-algebra/triangular";
import type { PreparedDesign, ScaledColumn } from "./prepared-design";

const ROUNDS = 2;
/** A round that moved the solution by less than this leaves, after it, an error below its square: nothing in a double. */
const SETTLED = 1e-11;
const SPLITTER = 134217729; // 2^27 + 1, see double-double.ts

/**
 * The pair (residuals, coefficients) of one fit, as the solution of [I X; Xᵀ 0]·[r; b] = [y; 0]. A first solve by QR, then
 * up to two rounds with the errors of both equations formed in double-double; one is enough for ordinary data.
 * Source: Björck (1967), BIT 7, 257–278.
 */
export class AugmentedSystem {
  readonly residualHi: Float64Array;
  readonly residualLo: Float64Array;
  /** Coefficients of the scaled columns, intercept first. */
  readonly solution: DoubleDouble[];

  /**
   * @param kept columns of the factorization that take part, intercept (0) first
   * @param r their triangle
   * @param width columns of the factorization whose reflections count
   */
  private constructor(
    private readonly design: PreparedDesign,
    private readonly kept: readonly number[],
    private readonly r: Float64Array,
    private readonly width: number,
  ) {
    this.residualHi = new Float64Array(design.n);
    this.residualLo = new Float64Array(design.n);
    this.solution = kept.map(() => [0, 0]);
  }

  static solve(design: PreparedDesign, kept: readonly number[], r: Float64Array, width: number): AugmentedSystem {
    const system = new AugmentedSystem(design, kept, r, width);
    system.improve(design.yHigh.slice(), new Float64Array(kept.length));
    for (let round = 0; round < ROUNDS; round++) {
      const { f, g } = system.errors();
      if (system.improve(f, g) < SETTLED) break;
    }
    return system;
  }

  /** Adds the solution for the right-hand side [f; g]; f is overwritten. Returns the largest step relative to the solution. */
  private improve(f: Float64Array, g: Float64Array): number {
    const { n, factorization } = this.design;
    const { residualHi, residualLo } = this;
    const q = this.kept.length;
    const z = solveUpperTransposed(this.r, g, q);
    applyTransposed(factorization, this.width, f);
    const d = Float64Array.from({ length: q }, (_, i) => f[i]! - z[i]!);
    const step = solveUpper(this.r, d, q);
    for (let i = 0; i < q; i++) f[i] = z[i]!;
    apply(factorization, this.width, f);
    for (let i = 0; i < n; i++) {
      const before = residualHi[i]!;
      const change = f[i]!;
      const s = before + change;
      const t = s - before;
      const low = before - (s - t) + (change - t) + residualLo[i]!;
      const high = s + low;
      residualHi[i] = high;
      residualLo[i] = low - (high - s);
    }
    let largest = 0;
    let size = 0;
    for (let i = 0; i < q; i++) {
      const [hi, e] = twoSum(this.solution[i]![0], step[i]!);
      this.solution[i] = twoSum(hi, e + this.solution[i]![1]);
      largest = Math.max(largest, Math.abs(step[i]!));
      size = Math.max(size, Math.abs(hi));
    }
    return size === 0 ? 0 : largest / size;
  }

  /** f = y − r − X·b and g = −Xᵀ·r, both summed in double-double and rounded once. */
  private errors(): { f: Float64Array; g: Float64Array } {
    const { n, yHigh, yLow, columns } = this.design;
    const { residualHi, residualLo } = this;
    const f = new Float64Array(n);
    const low = new Float64Array(n);
    for (let i = 0; i < n; i++) {
      const y = yHigh[i]!;
      const e = -residualHi[i]!;
      const s = y + e;
      const t = s - y;
      f[i] = s;
      low[i] = y - (s - t) + (e - t) + yLow[i]! - residualLo[i]!;
    }
    const g = Float64Array.from(this.kept, (k, position) => {
      const b = this.solution[position]!;
      return k === 0 ? this.takeIntercept(b, f, low) : this.takeColumn(columns[k - 1]!, b, f, low);
    });
    for (let i = 0; i < n; i++) f[i] = f[i]! + low[i]!;
    return { f, g };
  }

  /** f ← f − b, and −Σr. */
  private takeIntercept(b: DoubleDouble, f: Float64Array, low: Float64Array): number {
    const { residualHi, residualLo } = this;
    const [bHi, bLo] = b;
    let [sum, rest] = [0, 0];
    for (let i = 0; i < f.length; i++) {
      const before = f[i]!;
      const s = before - bHi;
      const t = s - before;
      low[i] = low[i]! + (before - (s - t) - (bHi + t)) - bLo;
      f[i] = s;
      const e = residualHi[i]!;
      const u = sum + e;
      const v = u - sum;
      rest += sum - (u - v) + (e - v) + residualLo[i]!;
      sum = u;
    }
    return -(sum + rest);
  }

  /** f ← f − x·b, and −Σx·r, for the column x as it stands in the factorization. This loop is where a fit spends its time. */
  private takeColumn(column: ScaledColumn, b: DoubleDouble, f: Float64Array, low: Float64Array): number {
    const { residualHi, residualLo } = this;
    const { values, centre, scale } = column;
    const [bHi, bLo] = b;
    const cb = SPLITTER * bHi;
    const bh = cb - (cb - bHi);
    const bl = bHi - bh;
    let [sum, rest] = [0, 0];
    for (let i = 0; i < f.length; i++) {
      const x = values[i]!;
      const d = x - centre;
      const v = d - x;
      const a = d * scale;
      const aLow = (x - (d - v) - (centre + v)) * scale;
      const ca = SPLITTER * a;
      const ah = ca - (ca - a);
      const al = a - ah;

      const p = a * bHi;
      const pe = al * bl - (p - ah * bh - al * bh - ah * bl);
      const before = f[i]!;
      const s = before - p;
      const t = s - before;
      low[i] = low[i]! + (before - (s - t) - (p + t)) - pe - a * bLo - aLow * bHi;
      f[i] = s;

      const e = residualHi[i]!;
      const ce = SPLITTER * e;
      const eh = ce - (ce - e);
      const el = e - eh;
      const m = a * e;
      const me = al * el - (m - ah * eh - al * eh - ah * el);
      const u = sum + m;
      const w = u - sum;
      rest += sum - (u - w) + (m - w) + me + a * residualLo[i]! + aLow * e;
      sum = u;
    }
    return -(sum + rest);
  }
}
