import type { ResponseSource } from "../model/response-column";
import type { Study } from "../model/study";
import { StudyColumns } from "../prepare/study-columns";
import { fitLadderOf } from "./analyse-ladder";
import { analyseScale, type ScaleResult } from "./analyse-scale";
import { comparisonResults } from "./comparison-results";
import { ladderResults } from "./ladder-results";
import { variableResults } from "./variable-results";

/** Version of the names below: it goes up when one changes its meaning. They are documented in docs/results.md. */
export const RESULTS_VERSION = 1;

/**
 * Every numeric variable, scale, ladder and comparison of a study at full precision, under stable names. Null: not available; the reason stands
 * in `notes` or `refusal`.
 */
export function resultsDocument(study: Study, responses: ResponseSource) {
  const columns = new StudyColumns(study, responses);
  const scales = study.scales.map((scale) => {
    const result = analyseScale(study, scale, responses, columns);
    return [scale.id, scaleResults(result, result.status === "scored" ? columns.scale(scale).scores : null)] as const;
  });
  const fitted = new Map(study.ladders.map((ladder) => [ladder.id, fitLadderOf(study, ladder, responses, columns)]));
  const ladders = study.ladders.map((ladder) => [ladder.id, ladderResults(ladder, fitted.get(ladder.id)!, columns)] as const);
  const comparisons = study.comparisons.map((c) => [c.id, comparisonResults(c, fitted, columns)] as const);
  const variables = study.codebook.flatMap((v) => {
    const derived = study.derived.some((d) => d.name === v.name);
    const numeric = (v.kind === "number" || v.kind === "item") && (derived || responses(v.name) !== undefined);
    return numeric ? [[v.name, variableResults(columns.variable(v.name))] as const] : [];
  });
  return {
    format: "beta-step-results" as const,
    version: RESULTS_VERSION,
    study: study.name,
    variables: Object.fromEntries(variables),
    scales: Object.fromEntries(scales),
    ladders: Object.fromEntries(ladders),
    comparisons: Object.fromEntries(comparisons),
  };
}

function scaleResults(result: ScaleResult, scores: { values: Float64Array; missing: Uint8Array } | null) {
  if (result.status === "refused" || !scores) {
    return { status: "refused" as const, refusal: result.status === "refused" ? result.refusal : null };
  }
  const { analysis } = result;
  const r = analysis.reliability;
  return {
    status: "scored" as const,
    counts: { rows: analysis.rows, complete: analysis.complete, prorated: analysis.prorated, unscored: analysis.unscored },
    description: { missing: analysis.unscored, ...analysis.description },
    reliability: r && {
      n: r.n,
      k: r.items,
      alpha: r.alpha,
      alpha_lower: r.lower,
      alpha_upper: r.upper,
      alpha_standardized: r.standardizedAlpha,
      mean_inter_item_r: r.meanInterItemR,
      items: Object.fromEntries(
        r.perItem.map((item, i) => [
          analysis.strips[i]!.variable,
          {
            mean: item.mean,
            sd: item.sd,
            item_total_r: item.withTheRest,
            alpha_if_dropped: item.alphaWithout,
          },
        ]),
      ),
    },
    scores: Array.from(scores.values, (value, row) => (scores.missing[row] ? null : value)),
  };
}
