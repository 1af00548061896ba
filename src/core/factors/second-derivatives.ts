import type { SymmetricEigen } from "../linear-algebra/symmetric-eigen";

/**
 * Second derivatives both searches share: Σ over pairs of eigenvectors j > m of weights times ω_ij·ω_lj·ω_im·ω_lm, split
 * into pairs of left-out vectors (no difference of eigenvalues in it, so equal ones do no harm) and pairs with a kept one.
 * @param factors number of kept vectors m
 * @param between weight of the pair (left-out j, kept m)
 */
export function secondDerivatives(
  { vectors }: SymmetricEigen,
  k: number,
  factors: number,
  leftOut: (a: Float64Array) => { hessian: Float64Array; safe: Float64Array },
  between: (j: number, m: number) => number,
): { hessian: Float64Array; safeHessian: Float64Array } {
  const products = outer(vectors, k, factors, k, () => 1);
  const { hessian, safe } = leftOut(products);
  for (let m = 0; m < factors; m++) {
    const mixed = outer(vectors, k, factors, k, (j) => between(j, m));
    for (let i = 0; i < k; i++) {
      for (let l = 0; l < k; l++) {
        const at = i * k + l;
        hessian[at] = hessian[at]! + mixed[at]! * vectors[m * k + i]! * vectors[m * k + l]!;
      }
    }
  }
  return { hessian, safeHessian: safe };
}

/** Σ_j weight(j)·ω_ij·ω_lj over vectors `from` … `to` − 1: k × k. */
export function outer(vectors: Float64Array, k: number, from: number, to: number, weight: (j: number) => number): Float64Array {
  const sum = new Float64Array(k * k);
  for (let j = from; j < to; j++) {
    const w = weight(j);
    for (let i = 0; i < k; i++) {
      const part = w * vectors[j * k + i]!;
      for (let l = 0; l < k; l++) sum[i * k + l] = sum[i * k + l]! + part * vectors[j * k + l]!;
    }
  }
  return sum;
}
