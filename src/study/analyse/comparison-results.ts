import { type Candidate, compareModels, type Comparison as Compared } from "@/core/comparison/compare-models";
import type { LadderModels } from "@/core/regression/ladder";
import type { Comparison } from "../model/comparison";
import type { Ladder } from "../model/ladder";
import type { AnalysisSample } from "../prepare/analysis-sample";
import type { StudyColumns } from "../prepare/study-columns";
import type { FittedLadder } from "./analyse-ladder";
import { refusalOfModel } from "./analyse-comparison";
import { changeResults } from "./change-results";
import { type Refusal, refusalOf } from "./refusal";
import { sampleFolds } from "./sample-folds";
import { sampleResults } from "./sample-results";

const METHOD = "information criteria and cross-validated prediction error of least-squares fits on one sample";

/** The steps of one ladder beside one another. */
export function stepComparison(ladder: Ladder, models: LadderModels, sample: AnalysisSample, columns: StudyColumns) {
  const candidates = models.fits.map((fit, k) => ({ name: `step ${k + 1}`, fit, cases: sample.rowsUsed }));
  return compared(candidates, ladder, sample, columns);
}

/** Models of different ladders, under the names of docs/results.md. Refused when outcome or sample differ. */
export function comparisonResults(comparison: Comparison, fitted: ReadonlyMap<string, FittedLadder>, columns: StudyColumns) {
  const settings = { models: comparison.models, sample: comparison.sample, folds: comparison.folds, seed: comparison.seed, method: METHOD };
  const head = { name: comparison.name, settings };
  const refused = (refusal: Refusal) => ({ ...head, status: "refused" as const, refusal });
  const candidates: Candidate[] = [];
  let sample: AnalysisSample | null = null;
  for (const { name, ladder, step } of comparison.models) {
    const found = fitted.get(ladder)!;
    if (found.status === "refused") return refused(refusalOfModel(name, found.refusal));
    const fit = step === null ? found.models.fits.at(-1)! : found.models.fits[step - 1]!;
    candidates.push({ name, fit, cases: found.sample.rowsUsed });
    sample ??= found.sample;
  }
  try {
    const results = compared(candidates, comparison, sample!, columns);
    return { ...head, status: "compared" as const, sample: sampleResults(sample!), ...results };
  } catch (error) {
    return refused(refusalOf(error));
  }
}

function compared(
  candidates: readonly Candidate[],
  { folds: variable, seed }: { folds: string | null; seed: number },
  sample: AnalysisSample,
  columns: StudyColumns,
) {
  const folds = sampleFolds(variable, seed, columns, sample.rowsUsed);
  const { models, pairs } = compareModels(candidates, "folds" in folds ? folds.folds : null);
  return {
    models: Object.fromEntries(models.map((m) => [m.name, modelResults(m)])),
    pairs: Object.fromEntries(pairs.map((pair) => [`${pair.first} over ${pair.second}`, pairResults(pair)])),
    cross_validation: Object.fromEntries(models.map((m) => [m.name, m.crossValidation?.rmse ?? null])),
    cross_validation_folds:
      "folds" in folds
        ? {
            folds: folds.folds.count,
            by: variable ?? "seed",
            seed: variable === null ? seed : null,
            by_fold: Object.fromEntries(
              models.map((m) => [m.name, Object.fromEntries(Array.from(m.crossValidation!.byFold, (rmse, f) => [folds.names[f]!, rmse]))]),
            ),
            inestimable: Object.fromEntries(
              models.map((m) => [m.name, m.crossValidation!.inestimable.map((fold) => folds.names[fold - 1]!)]),
            ),
          }
        : folds,
  };
}

function modelResults({ model, aicWeight, bicWeight }: Compared["models"][number]) {
  return {
    p: model.p,
    R2: model.R2,
    adjR2: model.adjustedR2,
    AIC: model.AIC,
    AICc: model.AICc,
    BIC: model.BIC,
    logLik: model.logLikelihood,
    rmse: model.rmse,
    AIC_weight: aicWeight,
    BIC_weight: bicWeight,
  };
}

function pairResults({ bayesFactor, log10BayesFactor, signed, absolute, nested, together, farthest }: Compared["pairs"][number]) {
  return {
    bayes_factor: bayesFactor,
    log10_bayes_factor: log10BayesFactor,
    prediction_difference_signed: signed,
    prediction_difference_absolute: absolute,
    differ_most: farthest.map(({ case: row, difference }) => ({ row, difference })),
    together: together && { R2: together.R2, first_adds: changeResults(together.first), second_adds: changeResults(together.second) },
    nested: nested && { larger: nested.larger, ...changeResults(nested) },
  };
}
