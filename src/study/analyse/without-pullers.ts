import type { CaseStatistics } from "@/core/diagnostics/case-statistics";
import type { Coefficient } from "@/core/regression/coefficients";
import { type LadderModels, ladderTables, type StepFit } from "@/core/regression/ladder";
import type { Desk } from "../kinds/kind";
import type { Ladder } from "../model/ladder";
import type { AnalysisSample } from "../prepare/analysis-sample";
import { fitLadderOf } from "./analyse-ladder";
import type { Refusal } from "./refusal";

/** A step with and without the respondents who pull most. */
export interface WithoutPullers {
  /** Rows of the data whose Cook's distance lies above 4/n, the largest first. */
  rows: number[];
  coefficients: {
    column: string;
    with: Coefficient;
    /** Null: the column cannot be told without them. */
    without: Coefficient | null;
    /** Of all respondents the one who moves it most, in standard errors (DFBETAS), signed as the coefficient with less the one without; null where none can be told. */
    mover: { row: number; errors: number } | null;
  }[];
  /** Of the step: R² and what it adds to the step before. */
  step: { with: StepTold; without: StepTold };
  /** What the columns are made of. */
  parts: ReturnType<typeof ladderTables>["parts"];
}

export interface StepTold {
  n: number;
  R2: number;
  deltaR2: number;
  /** Of ΔR², by the ladder's errors; null where it cannot be tested. */
  p: number | null;
}

/**
 * What if they were not in: the ladder fitted anew on everyone but those above the usual mark, by the same way as any ladder; means, SDs and centres are those of
 * who is left. Nobody leaves by it.
 * @param step from 1
 * @returns null where nobody lies above the mark; the reason where the ladder cannot be fitted without them
 */
export function withoutPullers(
  ladder: Ladder,
  step: number,
  { models, sample, cases }: { models: LadderModels; sample: AnalysisSample; cases: CaseStatistics },
  desk: Desk,
): WithoutPullers | { refusal: Refusal } | null {
  const { rowsUsed } = sample;
  const d = (i: number) => cases.cooksD[i] ?? 0;
  const pulling = Array.from(rowsUsed, (_, i) => i).filter((i) => d(i) > 4 / rowsUsed.length);
  if (pulling.length === 0) return null;
  const passes = new Uint8Array(desk.rows).fill(1);
  for (const i of pulling) passes[rowsUsed[i]! - 1] = 0;
  const rule = { filter: null, name: "Cook’s distance above 4/n", reason: "", unmet: [], passes };
  const left = fitLadderOf(desk.study, ladder, desk.responses, desk.columns, rule);
  if (left.status === "refused") return { refusal: left.refusal };
  const [all, fewer] = [ladderTables(models), ladderTables(left.models)];
  const [told, without] = [all.steps[step - 1]!, fewer.steps[step - 1]!];
  return {
    rows: pulling.sort((a, b) => d(b) - d(a)).map((i) => rowsUsed[i]!),
    coefficients: told.coefficients.map((one) => ({
      column: one.column,
      with: one,
      without: without.coefficients.find((c) => c.column === one.column) ?? null,
      mover: mover(cases, one.column, rowsUsed),
    })),
    step: { with: stepTold(told), without: stepTold(without) },
    parts: all.parts,
  };
}

function mover({ dfbetas }: CaseStatistics, column: string, rowsUsed: ArrayLike<number>): { row: number; errors: number } | null {
  let most: { row: number; errors: number } | null = null;
  for (const [i, errors] of dfbetas.find((one) => one.name === column)!.values.entries())
    if (errors !== null && Math.abs(errors) > Math.abs(most?.errors ?? 0)) most = { row: rowsUsed[i]!, errors };
  return most;
}

function stepTold({ model, change }: StepFit): StepTold {
  return { n: model.n, R2: model.R2, deltaR2: change.change, p: change.p };
}
