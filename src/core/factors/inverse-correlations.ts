import { SingularCorrelationsError } from "../errors";
import { choleskyOrPivot, inverseFromCholesky } from "../linear-algebra/cholesky";
import type { CorrelationMatrix } from "./correlation-matrix";

/** The inverse of a correlation matrix and the logarithm of its determinant. */
export interface InverseCorrelations {
  inverse: Float64Array;
  logDeterminant: number;
}

/**
 * By Cholesky: the pivots are what each item leaves unexplained by those before it, so a dependent item can be named.
 * @param purpose what needs the inverse, for the refusal: "The test of sphericity"
 * @throws SingularCorrelationsError
 */
export function inverseCorrelations({ r, items: k, n }: CorrelationMatrix, names: readonly string[], purpose: string): InverseCorrelations {
  const l = choleskyOrPivot(r, k);
  if (typeof l === "number") throw new SingularCorrelationsError({ purpose, item: names[l] ?? String(l + 1), fewCases: n <= k });
  let logDeterminant = 0;
  for (let i = 0; i < k; i++) logDeterminant += 2 * Math.log(l[i * k + i]!);
  return { inverse: inverseFromCholesky(l, k), logDeterminant };
}
