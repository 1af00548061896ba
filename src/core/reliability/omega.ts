import type { CorrelationMatrix } from "../factors/correlation-matrix";
import { factorSolution } from "../factors/factor-solution";

/** Reliability by way of one factor behind the items. */
export interface FactorReliability {
  /** McDonald's ω total of the sum of the items as asked. */
  omega: number;
  /** The same of the z-scored items. */
  compositeReliability: number;
  /** Mean of the squared standardized loadings. */
  averageVarianceExtracted: number;
  /** Standardized loadings, an item each. */
  loadings: Float64Array;
  /** Items (places from 0) whose uniqueness stands at its lower bound. */
  heywood: number[];
  settled: boolean;
}

/**
 * From the one-factor maximum-likelihood solution of the covariances: ω = (Σλ)² / ((Σλ)² + Σψ). The solution does not depend on units, so it is found on correlations and
 * put back into the items' units.
 * @param starts of the search; one in resamples, where it is done thousands of times
 * @param correlations of k ≥ 3 keyed items over complete cases; @param sds of the same items
 * @throws SingularCorrelationsError
 * Source: McDonald (1999), Test Theory; Fornell & Larcker (1981), Journal of Marketing Research 18, 39–50.
 */
export function factorReliability(
  correlations: CorrelationMatrix,
  sds: readonly number[],
  names: readonly string[],
  starts?: number,
): FactorReliability {
  const spec = { extraction: "maximum-likelihood", rotation: "none", factors: 1, ...(starts !== undefined && { starts }) } as const;
  const { rotated, uniqueness, heywood, settled } = factorSolution(correlations, spec, names);
  const composite = (weight: (i: number) => number) => {
    const shared = rotated.pattern.reduce((sum, x, i) => sum + x * weight(i), 0) ** 2;
    return shared / (shared + uniqueness.reduce((sum, psi, i) => sum + psi * weight(i) ** 2, 0));
  };
  // the factor runs the way of most of the items
  const way = rotated.pattern.reduce((sum, x) => sum + x, 0) < 0 ? -1 : 1;
  return {
    omega: composite((i) => sds[i]!),
    compositeReliability: composite(() => 1),
    averageVarianceExtracted: rotated.pattern.reduce((sum, x) => sum + x * x, 0) / correlations.items,
    loadings: rotated.pattern.map((x) => way * x),
    heywood,
    settled,
  };
}
