import type { SymmetricEigen } from "../linear-algebra/symmetric-eigen";
import { communalities, type Extraction } from "./extraction";

/**
 * The first components of the correlations: eigenvectors times the roots of their eigenvalues. All variance counts, shared or not.
 * Source: Hotelling (1933), Journal of Educational Psychology 24, 417–441.
 */
export function principalComponents({ values, vectors }: SymmetricEigen, k: number, factors: number): Extraction {
  const loadings = leadingLoadings({ values, vectors }, k, factors);
  return {
    loadings,
    uniqueness: communalities(loadings, k, factors).map((h2) => 1 - h2),
    rounds: 1,
    settled: true,
    minimum: null,
    search: null,
  };
}

/** Eigenvectors times roots of eigenvalues, k × factors; a negative eigenvalue explains nothing. */
export function leadingLoadings({ values, vectors }: SymmetricEigen, k: number, factors: number): Float64Array {
  const loadings = new Float64Array(k * factors);
  for (let m = 0; m < factors; m++) {
    const size = Math.sqrt(Math.max(0, values[m]!));
    for (let i = 0; i < k; i++) loadings[i * factors + m] = vectors[m * k + i]! * size;
  }
  return loadings;
}
