import { type ErrorChoice } from "@/core/regression/covariance";
import type { Predictor } from "@/core/regression/design-matrix";
import { type LadderFit, type LadderModels, ladderModels, ladderTables } from "@/core/regression/ladder";
import { type Ladder, ladderPredictors, ladderSettingsVariables } from "../model/ladder";
import type { ResponseSource } from "../model/response-column";
import { cellText } from "../model/response-column";
import type { StudyContext } from "../model/study";
import { type AnalysisSample, analysisSample, type SampleRule } from "../prepare/analysis-sample";
import { StudyColumns } from "../prepare/study-columns";
import { type Refusal, refusalOf } from "./refusal";

/** A ladder's numbers with their origin, or why there are none. */
export type LadderResult =
  { status: "fitted"; sample: AnalysisSample; fit: LadderFit } | { status: "refused"; sample: AnalysisSample | null; refusal: Refusal };

/** The same with everything that further results of the ladder are worked out from. It is large and stays where it was made. */
export type FittedLadder =
  | { status: "fitted"; sample: AnalysisSample; models: LadderModels }
  | { status: "refused"; sample: AnalysisSample | null; refusal: Refusal };

/** Everything a ladder names: its outcome, its predictors, and the settings that name a variable. */
export function ladderNames(ladder: Ladder): string[] {
  const names = [...ladderPredictors(ladder), ...(ladder.outcome === null ? [] : [ladder.outcome]), ...ladder.alsoComplete];
  return [...new Set([...names, ...ladderSettingsVariables(ladder).map((v) => v.name)])];
}

/** From study and responses to the tables of one ladder: columns, one sample for all steps, core. */
export function analyseLadder(
  study: StudyContext,
  ladder: Ladder,
  responses: ResponseSource,
  columns = new StudyColumns(study, responses),
): LadderResult {
  const fitted = fitLadderOf(study, ladder, responses, columns);
  if (fitted.status === "refused") return fitted;
  return { status: "fitted", sample: fitted.sample, fit: ladderTables(fitted.models) };
}

/** The sample of a ladder and all its steps fitted on it. */
export function fitLadderOf(
  study: StudyContext,
  ladder: Ladder,
  responses: ResponseSource,
  columns = new StudyColumns(study, responses),
): FittedLadder {
  let sample: AnalysisSample | null = null;
  try {
    const { outcome } = ladder;
    const predictors = ladderPredictors(ladder);
    if (outcome === null) return { status: "refused", sample, refusal: { code: "no-outcome", details: {} } };
    if (predictors.length === 0) return { status: "refused", sample, refusal: { code: "no-terms", details: {} } };
    if (predictors.includes(outcome)) {
      return { status: "refused", sample, refusal: { code: "outcome-among-predictors", details: { outcome } } };
    }
    if (columns.isCategory(outcome)) return { status: "refused", sample, refusal: { code: "outcome-is-category", details: { outcome } } };
    const read = (name: string) => (columns.isCategory(name) ? columns.categories(name) : columns.numbers(name));
    const all = new Map([outcome, ...predictors].map((name) => [name, read(name)]));
    const asked = new Map<string, { readonly missing: Uint8Array }>(all);
    for (const name of ladder.alsoComplete) asked.set(name, all.get(name) ?? columns.answered(name));
    const cluster = ladder.cluster === null ? null : columns.categories(ladder.cluster);
    if (cluster && !asked.has(ladder.cluster!)) asked.set(ladder.cluster!, cluster);
    const count = all.get(outcome)!.missing.length;
    sample = analysisSample(count, asked, sampleRules(ladder, columns, count));
    const rows = sample.rowsUsed;
    const variables = new Map([outcome, ...predictors].map((name) => [name, onRows(all.get(name)!, rows)]));
    const errors: ErrorChoice = cluster ? { kind: "cluster", codes: codesOn(cluster.codes, rows) } : { kind: ladder.errors };
    const models = ladderModels(
      {
        outcome,
        steps: ladder.steps.map((step) => step.terms),
        centring: ladder.centring,
        confidence: ladder.confidence,
        categories: new Map(ladder.categories.map((c) => [c.variable, c])),
        errors,
        standardizeIndicators: ladder.standardizeIndicators,
      },
      variables,
    );
    return { status: "fitted", sample, models };
  } catch (error) {
    return { status: "refused", sample, refusal: refusalOf(error) };
  }
}

type ReadColumn = { readonly values: Float64Array } | { readonly levels: readonly string[]; readonly codes: Int32Array };

function onRows(column: ReadColumn, rows: readonly number[]): Predictor {
  if ("codes" in column) return { levels: column.levels, codes: codesOn(column.codes, rows) };
  return Float64Array.from(rows, (row) => column.values[row - 1]!);
}

const codesOn = (codes: Int32Array, rows: readonly number[]) => Int32Array.from(rows, (row) => codes[row - 1]!);

/** The filters that hold everywhere, the one the ladder names, and the choice by a category made in its sentence. */
function sampleRules({ respondents, filter }: Ladder, columns: StudyColumns, rows: number): SampleRule[] {
  const named = columns
    .filtersFor(respondents)
    .map((f) => ({ filter: f.id, name: f.name, reason: f.reason, passes: columns.passes(f, rows) }));
  if (!filter) return named;
  const column = columns.column(filter.variable);
  const passes = Uint8Array.from({ length: rows }, (_, row) => {
    const cell = cellText(column, row);
    return cell !== null && filter.equals.includes(cell) ? 1 : 0;
  });
  return [...named, { filter: null, name: `${filter.variable}: ${filter.equals.join(", ")}`, reason: "", passes }];
}
