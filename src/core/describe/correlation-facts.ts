/** What a table of correlations says at a glance. Tables are k × k, row-major, with ones on the diagonal. */

/** Two columns, from 0, and their correlation. */
export interface CorrelatedPair {
  r: number;
  a: number;
  b: number;
}

/** The two of k ≥ 2 columns that correlate most in size; the first of equals. */
export function strongestPair(correlations: Float64Array, k: number): CorrelatedPair {
  let best: CorrelatedPair = { r: 0, a: 0, b: 1 };
  for (let b = 1; b < k; b++)
    for (let a = 0; a < b; a++) if (Math.abs(correlations[a * k + b]!) > Math.abs(best.r)) best = { r: correlations[a * k + b]!, a, b };
  return best;
}

/** Size of the strongest correlation of one column with another; 0 when it is alone. */
export function strongestWith(correlations: Float64Array, k: number, column: number): number {
  let most = 0;
  for (let j = 0; j < k; j++) if (j !== column) most = Math.max(most, Math.abs(correlations[column * k + j]!));
  return most;
}

/** How many pairs k columns make. */
export const pairsOf = (k: number): number => (k * (k - 1)) / 2;

/** How many pairs correlate above a size. */
export function pairsAbove(correlations: Float64Array, k: number, size: number): number {
  let count = 0;
  for (let i = 0; i < k; i++) for (let j = 0; j < i; j++) if (Math.abs(correlations[i * k + j]!) > size) count++;
  return count;
}
