import { centredSumOfSquares } from "../describe/centred-sum-of-squares";
import { mean } from "../describe/mean";
import { NoUniquenessError } from "../errors";
import { cholesky, inverseFromCholesky } from "../linear-algebra/cholesky";
import type { CorrelationMatrix } from "./correlation-matrix";
import type { FactorSolution } from "./factor-solution";
import { inverseCorrelations } from "./inverse-correlations";
import { multiply, transposed } from "./rotation";

export type FactorScoreMethod = "regression" | "bartlett";

/**
 * Weights of the z-scored items in each factor's score, k × m, row-major. Regression: R⁻¹·structure, the scores that correlate highest with their factor.
 * Bartlett: Ψ⁻¹P(P′Ψ⁻¹P)⁻¹, unbiased scores that take no part of other factors.
 * @throws SingularCorrelationsError, NoUniquenessError
 * Source: Thurstone (1935), The Vectors of Mind; Bartlett (1937), British Journal of Psychology 28, 97–104.
 */
export function factorScoreWeights(
  solution: FactorSolution,
  correlations: CorrelationMatrix,
  method: FactorScoreMethod,
  names: readonly string[],
): Float64Array {
  const { items: k, factors: m, rotated, uniqueness } = solution;
  if (method === "regression") {
    const { inverse } = inverseCorrelations(correlations, names, "A regression score");
    return multiply(inverse, solution.structure, k, k, m);
  }
  const none = names.filter((_, i) => !(uniqueness[i]! > 1e-10));
  if (none.length > 0) throw new NoUniquenessError({ items: none });
  const weighted = rotated.pattern.map((x, at) => x / uniqueness[Math.floor(at / m)]!);
  const inner = cholesky(multiply(transposed(rotated.pattern, k, m), weighted, m, k, m), m);
  if (!inner) throw new NoUniquenessError({ items: [...names] });
  return multiply(weighted, inverseFromCholesky(inner, m), k, m, m);
}

/** Mean and SD (n − 1) of each item, by which answers are z-scored before they are weighted. */
export function itemUnits(items: readonly Float64Array[]): { mean: number; sd: number }[] {
  return items.map((item) => ({ mean: mean(item), sd: Math.sqrt(centredSumOfSquares(item) / (item.length - 1)) }));
}
