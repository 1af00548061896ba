import type { FactorSolution } from "@/core/factors/factor-solution";
import type { StructureAnalysis } from "../analyse/analyse-structure";

/** Variance explained at one stage: each factor's, in units of one item's, with its share of all items' variance; and all factors' together. */
export interface VarianceStage {
  name: string;
  factors: VarianceShare[];
  together: VarianceShare;
}

export interface VarianceShare {
  variance: number;
  /** Of the variance of all items, 0…100. */
  percent: number;
}

/** What the factors explain before the extraction, after it and, when they are turned, after turning. */
export function varianceStages({ items, eigenvalues }: StructureAnalysis, solution: FactorSolution): VarianceStage[] {
  const { factors: m, rotated, unrotated, rotation } = solution;
  const stage = (name: string, variances: Float64Array): VarianceStage => {
    const own = Array.from(variances.subarray(0, m));
    const share = (variance: number) => ({ variance, percent: (100 * variance) / items.length });
    return { name, factors: own.map(share), together: share(own.reduce((sum, v) => sum + v, 0)) };
  };
  const turned = m > 1 && rotation !== "none";
  return [stage("Eigenvalue", eigenvalues), stage("Extracted", unrotated.variance), ...(turned ? [stage("Turned", rotated.variance)] : [])];
}

/** All eigenvalues beside those of random data, with shares of the variance, each and together up to it. */
export function eigenvalueRows({ items, eigenvalues, parallel }: StructureAnalysis) {
  let together = 0;
  return Array.from(eigenvalues, (value, i) => {
    const percent = (100 * value) / items.length;
    together += percent;
    return { value, random: parallel.percentile[i]!, percent, together, kept: i < parallel.retained };
  });
}
