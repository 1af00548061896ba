import { standardDeviation } from "../describe/standard-deviation";
import { leastAnglePath, pathAt } from "./lasso-path";
import type { SearchGround } from "./search-ground";
import { combined, type Products, squaredErrors, trainingGround } from "./training-ground";

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

/**
 * All is formed anew in each training fold: fits on the controls, means, SDs, the outcome's too. Everything comes from cross-products: leaving a fold out subtracts its own.
 * @param r correlations of the whole with the outcome: the grid begins at the largest
 * @param whole over all folds
 * Source: Stone (1974), Journal of the Royal Statistical Society B 36, 111–147.
 * @throws FoldWithoutControlsError
 */
export function lassoFolds(ground: SearchGround, r: Float64Array, whole: Products, folds: readonly Products[]): LassoFolds {
  const top = r.reduce((most, value) => Math.max(most, Math.abs(value)), 0);
  const lambda = Float64Array.from({ length: GRID }, (_, i) => top * 1000 ** (-i / (GRID - 1)));
  const own = new Float64Array(folds.length * GRID);
  const totals = new Float64Array(GRID);
  const leftOut = folds.map((held, f) => {
    const training = trainingGround(ground, combined(whole, held, -1));
    if (training === null) throw new FoldWithoutControlsError(f + 1);
    const knots = leastAnglePath(training.ground, training.ground.n - 1 - ground.controls, true);
    for (let i = 0; i < GRID; i++) {
      const squares = ground.rest * squaredErrors(held, training.weights(pathAt(knots, lambda[i]!)));
      totals[i]! += squares;
      own[f * GRID + i] = squares / held.cases;
    }
    return training.leftOut;
  });
  const mse = totals.map((total) => total / whole.cases);
  const se = Float64Array.from({ length: GRID }, (_, i) => {
    const means = Float64Array.from({ length: folds.length }, (__, f) => own[f * GRID + i]!);
    return standardDeviation(means) / Math.sqrt(folds.length);
  });
  let minimum = 0;
  for (let i = 1; i < GRID; i++) if (mse[i]! < mse[minimum]!) minimum = i;
  const oneSe = mse.findIndex((value) => value <= mse[minimum]! + se[minimum]!);
  return { lambda, mse, se, folds: own, minimum, oneSe, leftOut };
}
