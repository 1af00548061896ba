import type { Folds } from "../comparison/cross-validation";
import { cholesky, solveLower, solveLowerTransposed } from "../linear-algebra/cholesky";
import { leastAnglePath, pathAt } from "./lasso-path";
import type { SearchGround } from "./search-ground";

/** How well the lasso predicts cases it has not seen, along λ. */
export interface LassoFolds {
  /** λ_max·1000^(−i/99), i = 0 … 99. */
  lambda: Float64Array;
  /** Mean squared error of held-out cases, outcome units²; its SE from the folds' own means. */
  mse: Float64Array;
  se: Float64Array;
  /** Of each fold, by λ: folds × 100, row-major. */
  folds: Float64Array;
  /** Places on the grid, from 0. */
  minimum: number;
  oneSe: number;
  /** By fold, from 0: columns that do not vary among its training cases beside the controls. */
  leftOut: number[][];
}

/** A fold without which the controls cannot be fitted: a level that only it holds. */
export class FoldWithoutControlsError extends RangeError {
  readonly code = "fold-without-controls";
  constructor(readonly fold: number) {
    super(`without fold ${fold} the controls cannot be fitted`);
  }
}

const GRID = 100;
/** A column varies among the training cases when this share of its length² is left. */
const VARIES = 1e-20;

/**
 * All is formed anew in each training fold: fits on the controls, means, SDs, the outcome's too. In the orthonormal basis Q of intercept and controls, with the
 * residual columns Z of the whole sample, leaving a fold out subtracts its cross-products: (I − QᶠᵀQᶠ) for the controls, G − ZᶠᵀZᶠ for the columns.
 * Source: Stone (1974), Journal of the Royal Statistical Society B 36, 111–147.
 * @throws FoldWithoutControlsError
 */
export function lassoFolds(ground: SearchGround, { of, count }: Folds): LassoFolds {
  const { n, G, r, z, y, basis, rest } = ground;
  const q = r.length;
  const w = basis.length / n;
  const top = r.reduce((most, value) => Math.max(most, Math.abs(value)), 0);
  const lambda = Float64Array.from({ length: GRID }, (_, i) => top * 1000 ** (-i / (GRID - 1)));
  const folds = new Float64Array(count * GRID);
  const totals = new Float64Array(GRID);
  const leftOut: number[][] = [];
  const members = Array.from({ length: count }, (): number[] => []);
  for (let i = 0; i < n; i++) members[of[i]!]!.push(i);
  members.forEach((held, f) => {
    // cross-products of the held-out cases: columns are Q, Z, y
    const wide = w + q + 1;
    const rows = held.map((i) => {
      const row = new Float64Array(wide);
      for (let k = 0; k < w; k++) row[k] = basis[k * n + i]!;
      for (let j = 0; j < q; j++) row[w + j] = z[j]![i]!;
      row[w + q] = y[i]!;
      return row;
    });
    const S = new Float64Array(wide * wide);
    for (const row of rows) for (let a = 0; a < wide; a++) for (let b = 0; b <= a; b++) S[a * wide + b]! += row[a]! * row[b]!;
    const whole = (a: number, b: number) =>
      a < w
        ? a === b
          ? 1
          : 0
        : b < w
          ? 0
          : a === w + q
            ? b === w + q
              ? 1
              : r[b - w]!
            : b === w + q
              ? r[a - w]!
              : G[(a - w) * q + (b - w)]!;
    const left = (a: number, b: number) => whole(a, b) - S[Math.max(a, b) * wide + Math.min(a, b)]!;
    const M = new Float64Array(w * w);
    for (let a = 0; a < w; a++) for (let b = 0; b < w; b++) M[a * w + b] = left(a, b);
    const l = cholesky(M, w);
    if (l === null) throw new FoldWithoutControlsError(f + 1);
    // residuals on the controls among the training cases: P = L⁻¹·(cross-products with the controls)
    const P = Array.from({ length: q + 1 }, (_, j) =>
      solveLower(
        l,
        Float64Array.from({ length: w }, (__, k) => left(w + j, k)),
        w,
      ),
    );
    const product = (a: number, b: number) => {
      let sum = left(w + a, w + b);
      for (let k = 0; k < w; k++) sum -= P[a]![k]! * P[b]![k]!;
      return sum;
    };
    const lengths = Float64Array.from({ length: q }, (_, j) => product(j, j));
    const varies = Array.from({ length: q }, (_, j) => j).filter((j) => lengths[j]! > VARIES && lengths[j]! > 1e-14 * left(w + j, w + j));
    leftOut.push(Array.from({ length: q }, (_, j) => j).filter((j) => !varies.includes(j)));
    const yLength = product(q, q);
    const m = varies.length;
    const g = new Float64Array(m * m);
    const own = new Float64Array(m);
    for (let a = 0; a < m; a++) {
      own[a] = product(varies[a]!, q) / Math.sqrt(lengths[varies[a]!]! * yLength);
      for (let b = 0; b < a; b++) {
        const value = product(varies[a]!, varies[b]!) / Math.sqrt(lengths[varies[a]!]! * lengths[varies[b]!]!);
        g[a * m + b] = g[b * m + a] = value;
      }
      g[a * m + a] = 1;
    }
    const knots = leastAnglePath({ G: g, r: own }, n - held.length - w, true);
    for (let i = 0; i < GRID; i++) {
      const beta = pathAt(knots, lambda[i]!);
      const weights = new Float64Array(q);
      varies.forEach((j, a) => (weights[j] = beta[a]! * Math.sqrt(yLength / lengths[j]!)));
      // what the controls then predict: M⁻¹·(Qᵀy − QᵀZ·b)
      const along = Float64Array.from({ length: w }, (_, k) => {
        let sum = P[q]![k]!;
        for (let j = 0; j < q; j++) sum -= P[j]![k]! * weights[j]!;
        return sum;
      });
      const gamma = solveLowerTransposed(l, along, w);
      let squares = 0;
      for (const row of rows) {
        let error = row[w + q]!;
        for (let k = 0; k < w; k++) error -= row[k]! * gamma[k]!;
        for (let j = 0; j < q; j++) if (weights[j] !== 0) error -= row[w + j]! * weights[j]!;
        squares += error * error;
      }
      squares *= rest;
      totals[i]! += squares;
      folds[f * GRID + i] = squares / held.length;
    }
  });
  const mse = totals.map((total) => total / n);
  const se = Float64Array.from({ length: GRID }, (_, i) => {
    const own = Array.from({ length: count }, (__, f) => folds[f * GRID + i]!);
    const centre = own.reduce((a, b) => a + b, 0) / count;
    return Math.sqrt(own.reduce((sum, v) => sum + (v - centre) ** 2, 0) / (count - 1) / count);
  });
  let minimum = 0;
  for (let i = 1; i < GRID; i++) if (mse[i]! < mse[minimum]!) minimum = i;
  const oneSe = mse.findIndex((value) => value <= mse[minimum]! + se[minimum]!);
  return { lambda, mse, se, folds, minimum, oneSe, leftOut };
}
