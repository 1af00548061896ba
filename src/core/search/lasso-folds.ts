import type { Folds } from "../comparison/cross-validation";
import { standardDeviation } from "../describe/standard-deviation";
import { cholesky, solveLower, solveLowerTransposed } from "../linear-algebra/cholesky";
import { leastAnglePath, pathAt } from "./lasso-path";
import { dot, type SearchGround } from "./search-ground";

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
/** … and this share of what it had there before the controls. */
const NOTHING_LEFT = 1e-14;

/**
 * All is formed anew in each training fold: fits on the controls, means, SDs, the outcome's too. In the orthonormal basis Q of intercept and controls, with the
 * residual columns Z of the whole sample, leaving a fold out subtracts its cross-products: (I − QᶠᵀQᶠ) for the controls, G − ZᶠᵀZᶠ for the columns.
 * Source: Stone (1974), Journal of the Royal Statistical Society B 36, 111–147.
 * @throws FoldWithoutControlsError
 */
export function lassoFolds(ground: SearchGround, { of, count }: Folds): LassoFolds {
  const { n, r, rest } = ground;
  const top = r.reduce((most, value) => Math.max(most, Math.abs(value)), 0);
  const lambda = Float64Array.from({ length: GRID }, (_, i) => top * 1000 ** (-i / (GRID - 1)));
  const folds = new Float64Array(count * GRID);
  const totals = new Float64Array(GRID);
  const members = Array.from({ length: count }, (): number[] => []);
  for (let i = 0; i < n; i++) members[of[i]!]!.push(i);
  const whole = wholeProducts(ground);
  const leftOut = members.map((cases, f) => {
    const held = cases.map((i) => heldOut(ground, i));
    const training = trainingFold(ground, whole, held);
    if (training === null) throw new FoldWithoutControlsError(f + 1);
    for (let i = 0; i < GRID; i++) {
      const weights = training.at(lambda[i]!);
      const squares = rest * held.reduce((sum, row) => sum + errorOf(row, weights) ** 2, 0);
      totals[i]! += squares;
      folds[f * GRID + i] = squares / held.length;
    }
    return training.leftOut;
  });
  const mse = totals.map((total) => total / n);
  const se = Float64Array.from({ length: GRID }, (_, i) => {
    const own = Float64Array.from({ length: count }, (__, f) => folds[f * GRID + i]!);
    return standardDeviation(own) / Math.sqrt(count);
  });
  let minimum = 0;
  for (let i = 1; i < GRID; i++) if (mse[i]! < mse[minimum]!) minimum = i;
  const oneSe = mse.findIndex((value) => value <= mse[minimum]! + se[minimum]!);
  return { lambda, mse, se, folds, minimum, oneSe, leftOut };
}

/** A case's values of Q, Z and y, one after the other: w + q + 1 of them. */
function heldOut({ n, basis, z, y }: SearchGround, i: number): Float64Array {
  const w = basis.length / n;
  const row = new Float64Array(w + z.length + 1);
  for (let k = 0; k < w; k++) row[k] = basis[k * n + i]!;
  z.forEach((column, j) => (row[w + j] = column[i]!));
  row[row.length - 1] = y[i]!;
  return row;
}

/** What is missed of a case; the outcome is its last value. */
function errorOf(row: Float64Array, weights: Float64Array): number {
  let error = row[weights.length]!;
  for (let k = 0; k < weights.length; k++) if (weights[k] !== 0) error -= row[k]! * weights[k]!;
  return error;
}

/** Cross-products of Q, Z and y over all cases, the lower triangle: Q is orthonormal and has nothing in common with the others. */
function wholeProducts({ n, basis, G, r }: SearchGround): Float64Array {
  const [w, q] = [basis.length / n, r.length];
  const wide = w + q + 1;
  const all = new Float64Array(wide * wide);
  for (let k = 0; k < wide; k++) all[k * wide + k] = 1;
  for (let a = 0; a < q; a++) {
    for (let b = 0; b < a; b++) all[(w + a) * wide + w + b] = G[a * q + b]!;
    all[(w + q) * wide + w + a] = r[a]!;
  }
  return all;
}

/**
 * The lasso on the cases that are not held out.
 * @returns null when the controls cannot be fitted on them; columns that do not vary there; and at any λ the weights of Q and Z
 */
function trainingFold(ground: SearchGround, whole: Float64Array, held: readonly Float64Array[]) {
  const { n, basis, r } = ground;
  const [w, q] = [basis.length / n, r.length];
  const wide = w + q + 1;
  const out = new Float64Array(wide * wide);
  for (const row of held) for (let a = 0; a < wide; a++) for (let b = 0; b <= a; b++) out[a * wide + b]! += row[a]! * row[b]!;
  /** @param a not below b */
  const left = (a: number, b: number) => whole[a * wide + b]! - out[a * wide + b]!;
  const M = new Float64Array(w * w);
  for (let a = 0; a < w; a++) for (let b = 0; b <= a; b++) M[a * w + b] = M[b * w + a] = left(a, b);
  const l = cholesky(M, w);
  if (l === null) return null;
  // residuals on the controls: P = L⁻¹·(cross-products with them)
  const P = Array.from({ length: q + 1 }, (_, j) => solveLower(l, Float64Array.from({ length: w }, (__, k) => left(w + j, k)), w)); // prettier-ignore
  const product = (a: number, b: number) => left(w + a, w + b) - dot(P[a]!, P[b]!);
  const lengths = Float64Array.from({ length: q }, (_, j) => product(j, j));
  const places = Array.from({ length: q }, (_, j) => j);
  const varies = places.filter((j) => lengths[j]! > VARIES && lengths[j]! > NOTHING_LEFT * left(w + j, w + j));
  const outcome = product(q, q);
  const m = varies.length;
  const G = new Float64Array(m * m);
  const own = new Float64Array(m);
  varies.forEach((j, a) => {
    own[a] = product(q, j) / Math.sqrt(lengths[j]! * outcome);
    G[a * m + a] = 1;
    for (let b = 0; b < a; b++) G[a * m + b] = G[b * m + a] = product(j, varies[b]!) / Math.sqrt(lengths[j]! * lengths[varies[b]!]!);
  });
  const knots = leastAnglePath({ G, r: own }, n - held.length - w, true);
  return {
    leftOut: places.filter((j) => !varies.includes(j)),
    at(lambda: number): Float64Array {
      const beta = pathAt(knots, lambda);
      const weights = new Float64Array(w + q);
      varies.forEach((j, a) => (weights[w + j] = beta[a]! * Math.sqrt(outcome / lengths[j]!)));
      // what the controls then predict: M⁻¹·(Qᵀy − QᵀZ·b)
      const along = P[q]!.map((value, k) => places.reduce((sum, j) => sum - P[j]![k]! * weights[w + j]!, value));
      weights.set(solveLowerTransposed(l, along, w));
      return weights;
    },
  };
}
