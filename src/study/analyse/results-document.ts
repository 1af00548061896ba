import type { ResponseSource } from "../model/response-column";
import { structureParts } from "../model/structure";
import type { Study } from "../model/study";
import { StudyColumns } from "../prepare/study-columns";
import type { Comparison } from "../model/comparison";
import { besideOneAnother } from "./analyse-comparison";
import { fitLadderOf } from "./analyse-ladder";
import { analyseScale } from "./analyse-scale";
import { analyseStructure } from "./analyse-structure";
import { comparisonResults } from "./comparison-results";
import { ladderResults, type WorkedOut } from "./ladder-results";
import { scaleResults } from "./scale-results";
import { structureResults } from "./structure-results";
import { variableResults } from "./variable-results";

/** Version of the names below: it goes up when one changes its meaning. They are documented in docs/results.md. */
export const RESULTS_VERSION = 1;

/**
 * Every numeric variable, scale, structure, ladder and comparison of a study at full precision, under stable names. Null: not available; the reason stands
 * in `notes` or `refusal`.
 * @param worked by ladder: what takes long and was worked out beforehand
 */
export function resultsDocument(study: Study, responses: ResponseSource, worked: ReadonlyMap<string, WorkedOut> = new Map()) {
  const columns = new StudyColumns(study, responses);
  const scales = study.scales.map((scale) => {
    const result = analyseScale(study, scale, responses, columns);
    return [scale.id, scaleResults(result, result.status === "scored" ? columns.scale(scale).scores : null)] as const;
  });
  const structures = study.structures.map((structure) => {
    const result = analyseStructure({ ...structure, parts: structureParts(study.scales, structure) }, columns);
    return [structure.id, structureResults(structure, result)] as const;
  });
  const fitted = new Map(study.ladders.map((ladder) => [ladder.id, fitLadderOf(study, ladder, responses, columns)]));
  const ladders = study.ladders.map(
    (ladder) => [ladder.id, ladderResults(ladder, fitted.get(ladder.id)!, columns, worked.get(ladder.id))] as const,
  );
  const onItsSample = (c: Comparison) =>
    c.sample === "own"
      ? fitted
      : besideOneAnother(c, study.ladders, (ladder, within) =>
          within ? fitLadderOf(study, ladder, responses, columns, within) : fitted.get(ladder.id)!,
        );
  const comparisons = study.comparisons.map((c) => [c.id, comparisonResults(c, onItsSample(c), columns)] as const);
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
    structures: Object.fromEntries(structures),
    ladders: Object.fromEntries(ladders),
    comparisons: Object.fromEntries(comparisons),
  };
}
