import type { FactorSolution } from "./factor-solution";

/** A variance in units of one item's, and its share of the variance of all items, 0…100. */
export interface VarianceShare {
  variance: number;
  percent: number;
}

/** Variance explained at one stage: by each factor, and by all together. */
export interface VarianceStage {
  stage: "eigenvalue" | "extracted" | "turned";
  factors: VarianceShare[];
  together: VarianceShare;
}

/** Shares of variances among k standardized items. */
export function sharesOf(variances: ArrayLike<number>, items: number): VarianceShare[] {
  return Array.from(variances, (variance) => ({ variance, percent: (100 * variance) / items }));
}

/** What several variances are together. */
function together(variances: ArrayLike<number>, items: number): VarianceShare {
  return sharesOf([Array.from(variances).reduce((sum, v) => sum + v, 0)], items)[0]!;
}

/** What all factors explain as extracted. */
export const explainedTogether = ({ unrotated, items }: FactorSolution): VarianceShare => together(unrotated.variance, items);

/** What as many eigenvalues as there are factors explain, what the factors do as extracted and, when they are turned, after turning. */
export function varianceStages(eigenvalues: Float64Array, solution: FactorSolution): VarianceStage[] {
  const { factors: m, rotated, unrotated, rotation, items } = solution;
  const stage = (name: VarianceStage["stage"], variances: Float64Array): VarianceStage => {
    const own = variances.subarray(0, m);
    return { stage: name, factors: sharesOf(own, items), together: together(own, items) };
  };
  const turned = m > 1 && rotation !== "none";
  return [stage("eigenvalue", eigenvalues), stage("extracted", unrotated.variance), ...(turned ? [stage("turned", rotated.variance)] : [])];
}

/** Every eigenvalue with its share, and the share of all up to it. */
export function eigenvalueShares(eigenvalues: Float64Array): (VarianceShare & { upTo: number })[] {
  let upTo = 0;
  return sharesOf(eigenvalues, eigenvalues.length).map((share) => ({ ...share, upTo: (upTo += share.percent) }));
}

/** The item (from 0) that the factors explain least; the first of equals. */
export function leastExplained({ communalityExtracted }: FactorSolution): number {
  return communalityExtracted.reduce((least, value, i) => (value < communalityExtracted[least]! ? i : least), 0);
}
