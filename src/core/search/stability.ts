import type { Folds } from "../comparison/cross-validation";
import { seededCounts } from "../resampling/draw";
import { FoldWithoutControlsError, lassoFolds } from "./lasso-folds";
import { chosenPoint, type SearchLimits, termsOf, waysOn } from "./methods";
import type { SearchMethod } from "./search-methods";
import type { SearchGround } from "./search-ground";
import { combined, foldProducts, type Products, trainingGround } from "./training-ground";

/** By which method, and how far. */
export interface Choosing extends SearchLimits {
  method: SearchMethod;
  at: "minimum" | "one-se";
  /** At most so many columns; null: where the method itself ends. */
  size: number | null;
}

/** How often each term came out, over some resamples; sums of several ranges add up. */
export interface Stability {
  resamples: number;
  /** Resamples in which nothing could be chosen: a level of a control was not drawn. */
  failed: number;
  /** By term, in the order of the ground. */
  times: Int32Array;
  /** By the number of terms chosen. */
  sizes: Int32Array;
  /** How often just the terms that the whole sample chooses came out. */
  same: number;
}

/**
 * The same choice on resamples of the cases, drawn with replacement; resample r draws from the stream of (seed, r), so that ranges can be dealt out. A case's copies stay in its fold.
 * @param folds of the lasso; null: it has none
 * @param chosen terms that the whole sample chooses
 * @param told after each resample; may throw to stop
 */
export function stability(
  ground: SearchGround,
  folds: Folds | null,
  choosing: Choosing,
  { seed, first, count }: { seed: number; first: number; count: number },
  chosen: readonly string[],
  told: (done: number) => void = () => {},
): Stability {
  const { n } = ground;
  const found: Stability = { resamples: count, failed: 0, times: new Int32Array(ground.terms.length), sizes: new Int32Array(ground.terms.length + 1), same: 0 }; // prettier-ignore
  const one: Folds = folds !== null && needsFolds(choosing) ? folds : { of: new Int32Array(n), count: 1 };
  for (let r = first; r < first + count; r++) {
    const terms = chosenOn(ground, foldProducts(ground, one, seededCounts(n, seed, r)), choosing);
    if (terms === null) found.failed++;
    else {
      ground.terms.forEach((term, k) => terms.includes(term.name) && found.times[k]!++);
      found.sizes[terms.length]!++;
      if (terms.length === chosen.length && chosen.every((name) => terms.includes(name))) found.same++;
    }
    told(r - first + 1);
  }
  return found;
}

const needsFolds = ({ method, size }: Choosing) => method === "lasso" && size === null;

function chosenOn(ground: SearchGround, parts: readonly Products[], choosing: Choosing): string[] | null {
  const held = parts.filter((part) => part.cases > 0);
  const whole = held.reduce((a, b) => combined(a, b, 1));
  const own = trainingGround(ground, whole);
  if (own === null) return null;
  const choose = (lambda: number | null) =>
    termsOf(own.ground, chosenPoint(own.ground, choosing.method, waysOn(own.ground, choosing), { lambda, size: choosing.size }).places);
  if (!needsFolds(choosing) || held.length < 2) return choose(null);
  try {
    const found = lassoFolds(ground, own.ground.r, whole, held);
    return choose(found.lambda[choosing.at === "minimum" ? found.minimum : found.oneSe]!);
  } catch (error) {
    if (error instanceof FoldWithoutControlsError) return null;
    throw error;
  }
}
