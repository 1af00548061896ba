import { type TermInflation, termInflations } from "@/core/diagnostics/collinearity";
import { type LadderFit, type LadderModels, ladderTables, termsUpTo } from "@/core/regression/ladder";
import type { Desk } from "../kinds/kind";
import type { Ladder } from "../model/ladder";
import type { ResponseSource } from "../model/response-column";
import type { StudyContext } from "../model/context";
import type { AnalysisSample, SampleRule } from "../prepare/analysis-sample";
import { ladderSample, modelsOn } from "../prepare/ladder-models";
import { StudyColumns } from "../prepare/study-columns";
import { type PredictorLook, predictorLooks, type ProductPair, productPairs } from "./predictor-looks";
import { type Refusal, refusalOf } from "./refusal";

/** A ladder's numbers with their origin, or why there are none. */
export type LadderResult =
  | {
      status: "fitted";
      sample: AnalysisSample;
      fit: LadderFit;
      /** Ids of the steps the numbers belong to, in order: a step that came or went since has none. */
      stepIds: string[];
      looks: PredictorLook[];
      /** Per step, of every term: what it shares with the others as a whole. */
      inflations: TermInflation[][];
      pairs: ProductPair[];
    }
  | { status: "refused"; sample: AnalysisSample | null; refusal: Refusal };

/** The same with everything that further results of the ladder are worked out from. It is large and stays where it was made. */
export type FittedLadder =
  | { status: "fitted"; sample: AnalysisSample; models: LadderModels }
  | { status: "refused"; sample: AnalysisSample | null; refusal: Refusal };

/** From study and responses to the tables of one ladder: columns, one sample for all steps, core. */
export function analyseLadder(
  study: StudyContext,
  ladder: Ladder,
  responses: ResponseSource,
  columns = new StudyColumns(study, responses),
): LadderResult {
  const fitted = fitLadderOf(study, ladder, responses, columns);
  if (fitted.status === "refused") return fitted;
  const { sample, models } = fitted;
  return {
    status: "fitted",
    sample,
    fit: ladderTables(models),
    stepIds: ladder.steps.map((step) => step.id),
    looks: predictorLooks(models),
    inflations: models.fits.map((fit, k) => termInflations(models.design.columns, termsUpTo(models, k), fit)),
    pairs: productPairs(models),
  };
}

/**
 * The sample of a ladder and all its steps fitted on it.
 * @param within a further rule, for ladders that must share their respondents
 */
export function fitLadderOf(
  study: StudyContext,
  ladder: Ladder,
  responses: ResponseSource,
  columns = new StudyColumns(study, responses),
  within: SampleRule | null = null,
): FittedLadder {
  let sample: AnalysisSample | null = null;
  try {
    const found = ladderSample(ladder, columns, within);
    sample = found.sample;
    return { status: "fitted", sample, models: modelsOn(ladder, found) };
  } catch (error) {
    return { status: "refused", sample, refusal: refusalOf(error) };
  }
}

/** The same where several parts of the results document need it: fitted once. */
export function fittedAt({ study, responses, columns, shelf }: Desk, ladder: Ladder): FittedLadder {
  const known = shelf<FittedLadder>("fitted ladders");
  const fitted = known.get(ladder.id) ?? fitLadderOf(study, ladder, responses, columns);
  known.set(ladder.id, fitted);
  return fitted;
}
