import { changeWithoutEach } from "@/core/diagnostics/change-without-each";
import type { CaseStatistics } from "@/core/diagnostics/case-statistics";
import type { Coefficient } from "@/core/regression/coefficients";
import { type LadderModels, ladderTables, type StepFit } from "@/core/regression/ladder";
import { columnKey } from "@/core/regression/terms";
import type { Desk } from "../kinds/kind";
import type { Ladder } from "../model/ladder";
import type { Residuals } from "../model/residuals";
import type { AnalysisSample } from "../prepare/analysis-sample";
import { fitLadderOf } from "./analyse-ladder";
import { NotInStepError, type Refusal, refusalOf } from "./refusal";

/** So many where there is no mark; so many are told. */
const MOVERS = 5;
const MOST_TOLD = 10;

/** A step with and without the respondents who pull most. */
export interface WithoutPullers {
  pulls: Residuals["pulls"];
  /** Rows of the data that are out, those who pull most first. */
  rows: number[];
  /** Of a coefficient or of what the step adds: who moves it most, by DFBETAS or by ΔR² with less ΔR² without; empty for the whole fit. */
  movers: { row: number; value: number }[];
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
 * What if they were not in: the ladder fitted anew on everyone but those who pull, by the same way as any ladder; means, SDs and centres are those of who is left. Nobody leaves by it.
 * Above the mark lie Cook's distances over 4/n and DFBETAS over 2/√n (Belsley, Kuh & Welsch 1980); what the step adds has no mark: the five who move it most.
 * @param step from 1
 * @returns null where nobody lies above the mark; the reason where the ladder cannot be fitted without them
 */
export function withoutPullers(
  ladder: Ladder,
  step: number,
  pulls: Residuals["pulls"],
  { models, sample, cases }: { models: LadderModels; sample: AnalysisSample; cases: CaseStatistics },
  desk: Desk,
): WithoutPullers | { refusal: Refusal } | null {
  const { rowsUsed } = sample;
  try {
    const pull = pullOf(pulls, step, models, cases);
    const order = Array.from(rowsUsed, (_, i) => i).sort((a, b) => Math.abs(pull.values[b]!) - Math.abs(pull.values[a]!));
    const pulling = pull.mark === null ? order.slice(0, MOVERS) : order.filter((i) => Math.abs(pull.values[i]!) > pull.mark!);
    if (pulling.length === 0) return null;
    const passes = new Uint8Array(desk.rows).fill(1);
    for (const i of pulling) passes[rowsUsed[i]! - 1] = 0;
    const rule = { filter: null, name: "those who pull", reason: "", unmet: [], passes };
    const left = fitLadderOf(desk.study, ladder, desk.responses, desk.columns, rule);
    if (left.status === "refused") return { refusal: left.refusal };
    const [all, fewer] = [ladderTables(models), ladderTables(left.models)];
    const [told, without] = [all.steps[step - 1]!, fewer.steps[step - 1]!];
    return {
      pulls,
      rows: pulling.map((i) => rowsUsed[i]!),
      movers: pulls.by === "fit" ? [] : order.slice(0, MOST_TOLD).map((i) => ({ row: rowsUsed[i]!, value: pull.values[i]! })),
      coefficients: told.coefficients.map((one) => ({
        column: one.column,
        with: one,
        without: without.coefficients.find((c) => c.column === one.column) ?? null,
        mover: mover(cases, one.column, rowsUsed),
      })),
      step: { with: stepTold(told), without: stepTold(without) },
      parts: all.parts,
    };
  } catch (error) {
    return { refusal: refusalOf(error) };
  }
}

/** What each case does, and above which size it is told; null: there is no usual mark. */
function pullOf(pulls: Residuals["pulls"], step: number, models: LadderModels, cases: CaseStatistics) {
  const n = models.y.length;
  if (pulls.by === "fit") return { values: Float64Array.from(cases.cooksD, (d) => d ?? 0), mark: 4 / n };
  if (pulls.by === "change")
    return { values: changeWithoutEach(models.fits[step - 2] ?? null, models.fits[step - 1]!, models.y), mark: null };
  const column = columnKey(pulls.column);
  const own = cases.dfbetas.find(({ name }) => name === column);
  if (!own) throw new NotInStepError({ column: pulls.column, step });
  return { values: Float64Array.from(own.values, (v) => v ?? 0), mark: 2 / Math.sqrt(n) };
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
