import { CoreError } from "@/core/errors";
import type { ErrorChoice } from "@/core/regression/covariance";
import type { Predictor } from "@/core/regression/design-matrix";
import { type LadderModels, ladderModels } from "@/core/regression/ladder";
import { activeTerms, type CategoryCoding, type Ladder, ladderPredictors } from "../model/ladder";
import type { Condition, RespondentFilter } from "../model/respondent-filter";
import { type AnalysisSample, analysisSample, type SampleRule } from "./analysis-sample";
import { type CategoryColumn, levelMeant } from "./category-column";
import type { NumericColumn } from "./numeric-column";

/** What a ladder asks of the study's columns. */
export interface LadderColumns {
  isCategory(name: string): boolean;
  numbers(name: string): NumericColumn;
  categories(name: string): CategoryColumn;
  answered(name: string): { readonly missing: Uint8Array };
  filtersFor(id: string | null): readonly RespondentFilter[];
  passes(filter: Pick<RespondentFilter, "id" | "conditions">, rows: number): Uint8Array;
  unmet(conditions: readonly Condition[]): string[];
}

/** A ladder that cannot be fitted as it is written, whatever the answers. */
export class UnfinishedLadderError extends CoreError {
  constructor(
    readonly code: "no-outcome" | "no-terms" | "outcome-among-predictors" | "outcome-is-category",
    readonly details: { outcome?: string } = {},
  ) {
    super(`This ladder cannot be fitted: ${code}.`);
  }
}

type ReadColumn = NumericColumn | CategoryColumn;

/** The respondents of a ladder, and its columns as read, all rows. */
export interface LadderSample {
  readonly sample: AnalysisSample;
  readonly columns: ReadonlyMap<string, ReadColumn>;
  readonly cluster: CategoryColumn | null;
}

/**
 * Who is in (docs/methods.md, “Who is in”). Variables of terms that are switched off count as well.
 * @param within a further rule, for ladders that must share their respondents
 * @throws UnfinishedLadderError, MissingColumnError, UndeclaredRangeError
 */
export function ladderSample(ladder: Ladder, columns: LadderColumns, within: SampleRule | null = null): LadderSample {
  const { outcome } = ladder;
  const predictors = ladderPredictors(ladder);
  if (outcome === null) throw new UnfinishedLadderError("no-outcome");
  if (ladder.steps.every((step) => activeTerms(step).length === 0)) throw new UnfinishedLadderError("no-terms");
  if (predictors.includes(outcome)) throw new UnfinishedLadderError("outcome-among-predictors", { outcome });
  if (columns.isCategory(outcome)) throw new UnfinishedLadderError("outcome-is-category", { outcome });
  const read = (name: string) => (columns.isCategory(name) ? columns.categories(name) : columns.numbers(name));
  const all = new Map([outcome, ...predictors].map((name) => [name, read(name)]));
  const asked = new Map<string, { readonly missing: Uint8Array }>(all);
  for (const name of ladder.alsoComplete) asked.set(name, all.get(name) ?? columns.answered(name));
  const cluster = ladder.cluster === null ? null : columns.categories(ladder.cluster);
  if (cluster && !asked.has(ladder.cluster!)) asked.set(ladder.cluster!, cluster);
  const count = all.get(outcome)!.missing.length;
  const sample = analysisSample(count, asked, [...sampleRules(ladder, columns, count), ...(within ? [within] : [])]);
  return { sample, columns: all, cluster };
}

/** All steps of a ladder fitted on its sample. @throws CoreError */
export function modelsOn(ladder: Ladder, { sample, columns, cluster }: LadderSample): LadderModels {
  const rows = sample.rowsUsed;
  const outcome = ladder.outcome!;
  const used = new Set([outcome, ...ladder.steps.flatMap((step) => activeTerms(step).flatMap((term) => term.components))]);
  const variables = new Map([...used].map((name) => [name, onRows(columns.get(name)!, rows)]));
  const errors: ErrorChoice = cluster ? { kind: "cluster", codes: codesOn(cluster.codes, rows) } : { kind: ladder.errors };
  return ladderModels(
    {
      outcome,
      steps: ladder.steps.map(activeTerms),
      centring: ladder.centring,
      confidence: ladder.confidence,
      categories: new Map(ladder.categories.map((c) => [c.variable, { ...c, reference: referenceOf(c, columns.get(c.variable)) }])),
      errors,
      standardizeIndicators: ladder.standardizeIndicators,
    },
    variables,
  );
}

/** The level that a reference means; what means none is left for the model to refuse. */
function referenceOf({ reference }: CategoryCoding, column: ReadColumn | undefined): string | null {
  if (reference === null || !column || !("codes" in column)) return reference;
  return column.levels[levelMeant(column, reference)] ?? reference;
}

function onRows(column: ReadColumn, rows: readonly number[]): Predictor {
  if ("codes" in column) return { levels: column.levels, codes: codesOn(column.codes, rows) };
  const values = new Float64Array(rows.length);
  for (let i = 0; i < rows.length; i++) values[i] = column.values[rows[i]! - 1]!;
  return values;
}

function codesOn(codes: Int32Array, rows: readonly number[]): Int32Array {
  const on = new Int32Array(rows.length);
  for (let i = 0; i < rows.length; i++) on[i] = codes[rows[i]! - 1]!;
  return on;
}

/** The filters that hold everywhere, the one the ladder names, and the choice by a category made in its sentence. */
function sampleRules({ respondents, filter }: Ladder, columns: LadderColumns, rows: number): SampleRule[] {
  const named = columns
    .filtersFor(respondents)
    .map((f) => ({ filter: f.id, name: f.name, reason: f.reason, unmet: columns.unmet(f.conditions), passes: columns.passes(f, rows) }));
  if (!filter) return named;
  const name = `${filter.variable}: ${filter.equals.join(", ")}`;
  const conditions = [{ kind: "values" as const, not: false, ...filter }];
  const passes = columns.passes({ id: JSON.stringify(filter), conditions }, rows);
  return [...named, { filter: null, name, reason: "", unmet: columns.unmet(conditions), passes }];
}
