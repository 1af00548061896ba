import { crossProducts } from "../linear-algebra/cross-products";
import { centredSumOfSquares } from "./centred-sum-of-squares";
import { isConstant } from "./constant";
import { mean } from "./mean";

/**
 * Pearson correlations of every pair of k columns over the same rows: k × k, row-major, ones on the diagonal; 0 throughout in the row and column of one that does
 * not vary. Columns are brought to length 1 once, so that a pair costs a single product a row.
 * @param columns finite numbers, of equal length
 */
export function correlationTable(columns: readonly Float64Array[]): Float64Array {
  const k = columns.length;
  const unit = columns.map((column) => (isConstant(column) ? null : unitLength(column)));
  const varying = [...unit.keys()].filter((i) => unit[i] !== null);
  const sums = crossProducts(varying.map((i) => unit[i]!));
  const r = new Float64Array(k * k);
  varying.forEach((i, a) => {
    varying.forEach((j, b) => (r[i * k + j] = a === b ? 1 : Math.max(-1, Math.min(1, sums[a * varying.length + b]!))));
  });
  return r;
}

function unitLength(column: Float64Array): Float64Array {
  const centre = mean(column);
  const length = Math.sqrt(centredSumOfSquares(column));
  const unit = new Float64Array(column.length);
  for (let row = 0; row < unit.length; row++) unit[row] = (column[row]! - centre) / length; // a plain loop: map takes four times as long
  return unit;
}
