import { symmetricEigen } from "../linear-algebra/symmetric-eigen";

/** Below this an item's loading is too small to say which way it runs. */
const CLEAR = 0.3;

/**
 * Which items run against the others: those whose loading on the first component of the correlations has the sign of the lesser part. Together they
 * may be more than one, and each drags the others' item–total correlations down, so the component tells them apart better than these.
 * @param interItem k × k correlations, keyed; an item that does not vary (null) runs neither way
 * @returns places from 0; none when the two directions are equally strong, so that it cannot be said which is the wrong one
 */
export function itemsRunningAgainst(interItem: readonly (readonly (number | null)[])[]): number[] {
  const k = interItem.length;
  if (k < 3) return []; // of two items that run apart, either could be the one
  const r = Float64Array.from(interItem.flat(), (x) => x ?? 0);
  const { values, vectors } = symmetricEigen(r, k);
  const loadings = Array.from(vectors.subarray(0, k), (x) => x * Math.sqrt(Math.max(0, values[0]!)));
  const positive = loadings.map((_, i) => i).filter((i) => loadings[i]! > CLEAR);
  const negative = loadings.map((_, i) => i).filter((i) => loadings[i]! < -CLEAR);
  if (positive.length === negative.length) return [];
  return positive.length > negative.length ? negative : positive;
}
