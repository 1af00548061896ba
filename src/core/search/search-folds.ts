import type { Folds } from "../comparison/cross-validation";
import { FoldWithoutControlsError } from "./lasso-folds";
import { bestBySize, betaOf, type SearchLimits, waysOn } from "./methods";
import { SEARCH_METHODS, type SearchMethod } from "./search-methods";
import type { SearchGround } from "./search-ground";
import { combined, type Products, squaredErrors, trainingGround } from "./training-ground";

/**
 * How well each method predicts cases it has not seen, when it may take at most so many columns besides the controls: in each training fold all is searched anew,
 * and of its points with at most that many columns the one with the largest R² there predicts the cases held out.
 * @param most sizes 0 … most
 * @returns by method and size 1 − (squared errors of all held-out cases)/(their squared distances from their training fold's mean)
 * Source: Stone (1974), Journal of the Royal Statistical Society B 36, 111–147.
 * @throws FoldWithoutControlsError
 */
export function searchFolds(
  ground: SearchGround,
  whole: Products,
  parts: readonly Products[],
  folds: Folds,
  limits: SearchLimits,
  most: number,
): Record<SearchMethod, Float64Array> {
  const base = baseline(ground, folds);
  const errors = Object.fromEntries(SEARCH_METHODS.map((method) => [method, new Float64Array(most + 1)])) as Record<SearchMethod, Float64Array>; // prettier-ignore
  parts.forEach((held, f) => {
    const training = trainingGround(ground, combined(whole, held, -1));
    if (training === null) throw new FoldWithoutControlsError(f + 1);
    const ways = waysOn(training.ground, limits);
    for (const method of SEARCH_METHODS) {
      const points = bestBySize(training.ground, method, ways);
      let at = 0;
      let shown = points[0]!;
      let missed = squaredErrors(held, training.weights(betaOf(training.ground, shown)));
      for (let size = 0; size <= most; size++) {
        while (at + 1 < points.length && points[at + 1]!.places.length <= size) {
          at++;
          if (points[at]!.R2 <= shown.R2) continue;
          shown = points[at]!;
          missed = squaredErrors(held, training.weights(betaOf(training.ground, shown)));
        }
        errors[method][size]! += missed;
      }
    }
  });
  return Object.fromEntries(SEARCH_METHODS.map((method) => [method, errors[method].map((sum) => 1 - (sum * ground.rest) / base)])) as typeof errors; // prettier-ignore
}

/** Squared distances of all cases from the mean of those of the other folds. */
function baseline({ raw }: SearchGround, { of, count }: Folds): number {
  const y = raw.outcome.values;
  const sums = new Float64Array(count);
  const sizes = new Float64Array(count);
  let all = 0;
  y.forEach((value, i) => {
    sums[of[i]!]! += value;
    sizes[of[i]!]! += 1;
    all += value;
  });
  return y.reduce((sum, value, i) => {
    const f = of[i]!;
    return sum + (value - (all - sums[f]!) / (y.length - sizes[f]!)) ** 2;
  }, 0);
}
