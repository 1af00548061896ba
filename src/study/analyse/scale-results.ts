import type { ScaleScores } from "../prepare/score-scale";
import type { ScaleReliability, ScaleResult } from "./analyse-scale";

/** One scale under the names of docs/results.md. */
export function scaleResults(result: ScaleResult, scores: ScaleScores | null) {
  if (result.status === "refused" || !scores) {
    return { status: "refused" as const, refusal: result.status === "refused" ? result.refusal : null };
  }
  const { analysis } = result;
  const items = analysis.strips.map((strip) => strip.variable);
  return {
    status: "scored" as const,
    counts: { rows: analysis.rows, complete: analysis.complete, prorated: analysis.prorated, unscored: analysis.unscored },
    description: { missing: analysis.unscored, ...analysis.description },
    reliability: reliabilityResults(analysis.reliability, items),
    running_against: analysis.against,
    groups:
      analysis.groups &&
      Object.fromEntries(
        analysis.groups.map(({ level, n, reliability }) => [
          level,
          { respondents: n, reliability: reliabilityResults(reliability, items) },
        ]),
      ),
    scores: Array.from(scores.values, (value, row) => (scores.missing[row] ? null : value)),
    answered: Array.from(scores.answered),
  };
}

function reliabilityResults({ alpha, factor, factorRefusal }: ScaleReliability, items: readonly string[]) {
  const named = <T>(values: ArrayLike<T>) => Object.fromEntries(items.map((item, i) => [item, values[i]!]));
  return (
    alpha && {
      n: alpha.n,
      k: alpha.items,
      alpha: alpha.alpha,
      alpha_lower: alpha.lower,
      alpha_upper: alpha.upper,
      alpha_standardized: alpha.standardizedAlpha,
      mean_inter_item_r: alpha.meanInterItemR,
      spearman_brown: alpha.spearmanBrown,
      inter_item_r: named(alpha.interItem.map(named)),
      items: named(
        alpha.perItem.map((item) => ({
          mean: item.mean,
          sd: item.sd,
          item_total_r: item.withTheRest,
          alpha_if_dropped: item.alphaWithout,
        })),
      ),
      one_factor: factor && {
        omega_total: factor.omega,
        composite_reliability: factor.compositeReliability,
        ave: factor.averageVarianceExtracted,
        one_factor_loadings: named(factor.loadings),
        heywood: factor.heywood.map((i) => items[i]!),
        settled: factor.settled,
      },
      one_factor_refusal: factorRefusal,
    }
  );
}
