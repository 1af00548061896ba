import { centredSumOfSquares } from "./centred-sum-of-squares";
import { isConstant } from "./constant";
import { mean } from "./mean";

/**
 * Pearson correlations of every pair of k columns over the same rows: k × k, row-major, ones on the diagonal; 0 throughout in the row and column of one that does
 * not vary. Columns are brought to length 1 once, so that a pair costs a single pass.
 * @param columns finite numbers, of equal length
 */
export function correlationTable(columns: readonly Float64Array[]): Float64Array {
  const k = columns.length;
  const unit = columns.map((column) => (isConstant(column) ? null : unitLength(column)));
  const r = new Float64Array(k * k);
  for (let i = 0; i < k; i++) {
    const a = unit[i];
    if (!a) continue;
    r[i * k + i] = 1;
    for (let j = 0; j < i; j++) {
      const b = unit[j];
      if (!b) continue;
      let sum = 0;
      for (let row = 0; row < a.length; row++) sum += a[row]! * b[row]!;
      r[i * k + j] = r[j * k + i] = Math.max(-1, Math.min(1, sum));
    }
  }
  return r;
}

function unitLength(column: Float64Array): Float64Array {
  const centre = mean(column);
  const length = Math.sqrt(centredSumOfSquares(column));
  const unit = new Float64Array(column.length);
  for (let row = 0; row < unit.length; row++) unit[row] = (column[row]! - centre) / length; // a plain loop: map takes four times as long
  return unit;
}
