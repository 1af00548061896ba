import { type DoubleDouble, type ExactVector, twoSum } from "../linear-algebra/double-double";
import { apply, applyTransposed } from "../linear-algebra/householder";
import { solveUpper, solveUpperTransposed } from "../linear-algebra/triangular";
import { productSum, subtractMultiple } from "./exact-columns";
import { columnAt, type PreparedDesign } from "./prepared-design";
import type { RefinedSolution } from "./semi-normal-solution";

const ROUNDS = 2;
/** A round that moved the solution by less than this leaves, after it, an error below its square: nothing in a double. */
const SETTLED = 1e-11;

/**
 * The pair (residuals, coefficients) of one fit, as the solution of [I X; Xᵀ 0]·[r; b] = [y; 0]. A first solve by QR, then
 * up to two rounds with the errors of both equations formed in double-double; one is enough for ordinary data.
 * Source: Björck (1967), BIT 7, 257–278.
 */
export class AugmentedSystem implements RefinedSolution {
  readonly residual: ExactVector;
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
    this.residual = { hi: new Float64Array(design.n), lo: new Float64Array(design.n) };
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
    const { hi: residualHi, lo: residualLo } = this.residual;
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
    const { n, yHigh, yLow } = this.design;
    const { hi: residualHi, lo: residualLo } = this.residual;
    const f = { hi: new Float64Array(n), lo: new Float64Array(n) };
    for (let i = 0; i < n; i++) {
      const [s, e] = twoSum(yHigh[i]!, -residualHi[i]!);
      f.hi[i] = s;
      f.lo[i] = e + yLow[i]! - residualLo[i]!;
    }
    const g = Float64Array.from(this.kept, (k, position) => {
      const column = columnAt(this.design, k);
      const [hi, lo] = this.solution[position]!;
      subtractMultiple(f, column, hi, lo);
      return -productSum(this.residual, column);
    });
    return { f: f.hi.map((value, i) => value + f.lo[i]!), g };
  }
}
