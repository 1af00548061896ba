import { isConstant } from "../describe/constant";
import { correlationTable } from "../describe/correlation-table";
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
  return { r: correlationTable(items), items: k, n };
}
