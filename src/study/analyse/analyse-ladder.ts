import { fitLadder, type LadderFit } from "@/core/regression/ladder";
import { type Ladder, ladderPredictors } from "../model/ladder";
import type { ResponseSource } from "../model/response-column";
import type { Study } from "../model/study";
import { type AnalysisSample, analysisSample } from "../prepare/analysis-sample";
import { columnsBehind, MissingColumnError, StudyColumns } from "../prepare/study-columns";
import { type Refusal, refusalOf } from "./refusal";

/** A ladder's numbers with their origin, or why there are none. */
export type LadderResult =
  { status: "fitted"; sample: AnalysisSample; fit: LadderFit } | { status: "refused"; sample: AnalysisSample | null; refusal: Refusal };

/** The data columns a ladder needs: behind its outcome, its predictors and its filter. */
export function ladderColumns(study: Pick<Study, "scales">, ladder: Ladder): string[] {
  const names = [...ladderPredictors(ladder), ...(ladder.outcome === null ? [] : [ladder.outcome])];
  const columns = names.flatMap((name) => columnsBehind(study, name));
  return [...new Set([...columns, ...(ladder.filter ? [ladder.filter.variable] : [])])];
}

/** From study and responses to the fitted steps of one ladder: columns, one sample for all steps, core. */
export function analyseLadder(
  study: Pick<Study, "codebook" | "scales">,
  ladder: Ladder,
  responses: ResponseSource,
  columns = new StudyColumns(study, responses),
): LadderResult {
  let sample: AnalysisSample | null = null;
  try {
    const { outcome } = ladder;
    const predictors = ladderPredictors(ladder);
    if (outcome === null) return { status: "refused", sample, refusal: { code: "no-outcome", details: {} } };
    if (predictors.length === 0) return { status: "refused", sample, refusal: { code: "no-terms", details: {} } };
    if (predictors.includes(outcome)) {
      return { status: "refused", sample, refusal: { code: "outcome-among-predictors", details: { outcome } } };
    }
    const all = new Map([outcome, ...predictors].map((name) => [name, columns.numbers(name)]));
    sample = analysisSample(all.get(outcome)!.values.length, all, filterOf(ladder, responses));
    const rows = sample.rowsUsed;
    const complete = new Map([...all].map(([name, c]) => [name, Float64Array.from(rows, (row) => c.values[row - 1]!)]));
    const fit = fitLadder(
      { outcome, steps: ladder.steps.map((step) => step.terms), centring: ladder.centring, confidence: ladder.confidence },
      complete,
    );
    return { status: "fitted", sample, fit };
  } catch (error) {
    return { status: "refused", sample, refusal: refusalOf(error) };
  }
}

function filterOf(ladder: Ladder, responses: ResponseSource) {
  if (!ladder.filter) return null;
  const column = responses(ladder.filter.variable);
  if (!column) throw new MissingColumnError({ column: ladder.filter.variable });
  return { rule: ladder.filter, column };
}
