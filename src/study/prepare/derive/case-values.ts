import { caseStatistics, type PerCase } from "@/core/diagnostics/case-statistics";
import type { Fit } from "@/core/regression/least-squares";
import type { CaseStatistic, Recipe } from "../../model/derived";
import { type LadderColumns, ladderSample, modelsOn } from "../ladder-models";
import { type Derivation, numberDerivation } from "./derived-column";

/**
 * A value per respondent from a step of a ladder. Who is not in its sample has none.
 * @throws what the ladder throws: UnfinishedLadderError, CoreError, MissingColumnError
 */
export function deriveByCase(name: string, recipe: Extract<Recipe, { kind: "case" }>, columns: LadderColumns): Derivation {
  const found = ladderSample(recipe.ladder, columns);
  const models = modelsOn(recipe.ladder, found);
  const values = valuesOf(recipe.statistic, models.fits[recipe.step - 1]!, models.y);
  const all = new Float64Array(found.sample.rows);
  const missing = new Uint8Array(found.sample.rows).fill(1);
  found.sample.rowsUsed.forEach((row, i) => {
    all[row - 1] = values[i] ?? NaN; // not available for this respondent: becomes an empty cell, and is counted
    missing[row - 1] = 0;
  });
  return numberDerivation(name, all, missing);
}

function valuesOf(statistic: CaseStatistic, fit: Fit, y: Float64Array): PerCase | Float64Array {
  if (statistic === "residual") return fit.residuals;
  if (statistic === "predicted") return y.map((v, i) => v - fit.residuals[i]!);
  const all = caseStatistics(fit, y);
  const of: Record<Exclude<CaseStatistic, "residual" | "predicted">, PerCase | Float64Array> = {
    standardized: all.standardized,
    studentized: all.studentized,
    deleted: all.deletedStudentized,
    leverage: all.leverage,
    "cooks-d": all.cooksD,
    dffits: all.dffits,
  };
  return of[statistic];
}
