import { cholesky, solveLower, solveLowerTransposed } from "../linear-algebra/cholesky";
import { applyTransposed } from "../linear-algebra/householder";
import { randomStream } from "../random/random-stream";
import { shuffle } from "../random/shuffle";
import type { Fit } from "../regression/least-squares";
import { orthonormalBasis } from "../regression/orthonormal-basis";

/** Which fold each case is held out in, 0 … count − 1, every fold with at least one case. */
export interface Folds {
  readonly of: Int32Array;
  readonly count: number;
}

/**
 * Folds of equal size but for one case, drawn without replacement from stream (seed, 0).
 * @param count at most n are made: then each case is held out alone
 */
export function seededFolds(n: number, count: number, seed: number): Folds {
  const order = Int32Array.from({ length: n }, (_, i) => i);
  shuffle(order, randomStream(seed));
  const folds = Math.min(count, n);
  const of = new Int32Array(n);
  order.forEach((at, i) => (of[at] = i % folds));
  return { of, count: folds };
}

/** How well a model predicts cases it has not seen. */
export interface CrossValidation {
  /** √(Σ(y − ŷ)²/n) over all cases, each predicted by the fit without its fold, outcome units; null when a fold could not be done. */
  rmse: number | null;
  /** The same over the cases of each fold; empty with it. */
  byFold: Float64Array;
  folds: number;
  /** Folds (from 1) without which some coefficient cannot be estimated: a level or a pattern that only they hold. */
  inestimable: number[];
}

/**
 * Cross-validated prediction error. Columns are those of the whole sample: centring and scaling do not know the outcome.
 * In the orthonormal basis of the whole sample, leaving a fold F out turns the normal equations into (I − Q_FᵀQ_F)·γ =
 * Qᵀy − Q_Fᵀy_F: one pass over the data and one small Cholesky per fold.
 * Source: Stone (1974), Journal of the Royal Statistical Society B 36, 111–147.
 */
export function crossValidation(fit: Fit, folds: Folds): CrossValidation {
  const { design, kept } = fit.basis;
  const { n } = fit;
  const q = kept.length;
  const basis = orthonormalBasis(design);
  const y = design.yHigh;
  const projected = y.slice();
  applyTransposed(design.factorization, fit.basis.width + 1, projected);
  const squares = new Float64Array(folds.count * q * q);
  const products = new Float64Array(folds.count * q);
  for (let a = 0; a < q; a++) {
    for (let i = 0; i < n; i++) products[folds.of[i]! * q + a]! += basis[a * n + i]! * y[i]!;
    for (let b = 0; b <= a; b++) {
      for (let i = 0; i < n; i++) squares[(folds.of[i]! * q + a) * q + b]! += basis[a * n + i]! * basis[b * n + i]!;
    }
  }
  const weights: Float64Array[] = [];
  const inestimable: number[] = [];
  for (let f = 0; f < folds.count; f++) {
    const left = new Float64Array(q * q);
    for (let a = 0; a < q; a++) for (let b = 0; b <= a; b++) left[a * q + b] = (a === b ? 1 : 0) - squares[(f * q + a) * q + b]!;
    const l = cholesky(left, q);
    if (l === null) inestimable.push(f + 1);
    const right = Float64Array.from({ length: q }, (_, a) => projected[a]! - products[f * q + a]!);
    weights.push(l === null ? new Float64Array(q) : solveLowerTransposed(l, solveLower(l, right, q), q));
  }
  if (inestimable.length > 0) return { rmse: null, byFold: new Float64Array(0), folds: folds.count, inestimable };
  const sums = new Float64Array(folds.count);
  const sizes = new Int32Array(folds.count);
  let sum = 0;
  for (let i = 0; i < n; i++) {
    const gamma = weights[folds.of[i]!]!;
    let error = y[i]!;
    for (let a = 0; a < q; a++) error -= basis[a * n + i]! * gamma[a]!;
    sum += error * error;
    sums[folds.of[i]!]! += error * error;
    sizes[folds.of[i]!]!++;
  }
  const { scale } = design.outcome;
  return {
    rmse: Math.sqrt(sum / n) / scale,
    byFold: sums.map((own, f) => Math.sqrt(own / sizes[f]!) / scale),
    folds: folds.count,
    inestimable,
  };
}
