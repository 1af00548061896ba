import { centredSumOfSquares } from "../describe/centred-sum-of-squares";
import { isConstant } from "../describe/constant";
import { mean } from "../describe/mean";
import { ConstantItemsError, TooFewCasesError } from "../errors";

/** Pearson correlations of k items over the same n cases. */
export interface CorrelationMatrix {
  /** k × k, row-major, ones on the diagonal. */
  r: Float64Array;
  items: number;
  n: number;
}

/**
 * @param items k ≥ 1 columns of equal length, complete cases
 * @param names of the items, for what is refused
 * @throws TooFewCasesError below three cases; ConstantItemsError when an item has one value only
 */
export function correlationMatrix(items: readonly Float64Array[], names: readonly string[]): CorrelationMatrix {
  const k = items.length;
  const n = items[0]?.length ?? 0;
  if (n < 3) throw new TooFewCasesError({ cases: n, needed: 3, purpose: "A table of correlations" });
  const constant = names.filter((_, i) => isConstant(items[i]!));
  if (constant.length > 0) throw new ConstantItemsError({ items: constant });
  const z = items.map(unitLength);
  const r = new Float64Array(k * k);
  for (let i = 0; i < k; i++) {
    r[i * k + i] = 1;
    const a = z[i]!;
    for (let j = 0; j < i; j++) {
      const b = z[j]!;
      let sum = 0;
      for (let row = 0; row < n; row++) sum += a[row]! * b[row]!;
      r[i * k + j] = r[j * k + i] = Math.max(-1, Math.min(1, sum));
    }
  }
  return { r, items: k, n };
}

function unitLength(item: Float64Array): Float64Array {
  const centre = mean(item);
  const length = Math.sqrt(centredSumOfSquares(item));
  return item.map((value) => (value - centre) / length);
}
