/** Factors as they are drawn from the correlations, before any rotation. */
export interface Extraction {
  /** k items × m factors, row-major. */
  loadings: Float64Array;
  /** 1 − communality, an item each. */
  uniqueness: Float64Array;
  rounds: number;
  /** False when the rounds allowed did not suffice. */
  settled: boolean;
  /** Least value of the function that was minimized; null where none was. */
  minimum: number | null;
  /** Searches for it from different places, and those that settled at a higher value; null where none was minimized. */
  search: { starts: number; higher: number } | null;
}

/** Largest number of common factors whose loadings k items determine: (k − m)² ≥ k + m, and at least one. */
export function mostFactors(k: number): number {
  let m = 0;
  while (m + 1 < k && (k - m - 1) ** 2 >= k + m + 1) m++;
  return Math.max(1, m);
}

/** Row sums of squares of loadings: what the factors explain of each item. */
export function communalities(loadings: Float64Array, k: number, factors: number): Float64Array {
  return Float64Array.from({ length: k }, (_, i) => {
    let sum = 0;
    for (let m = 0; m < factors; m++) sum += loadings[i * factors + m]! ** 2;
    return sum;
  });
}
