import type { CrossValidation } from "@/core/comparison/cross-validation";
import { type ComparedPair, type Candidate, compareModels } from "@/core/comparison/compare-models";
import { type LadderFit, ladderTables } from "@/core/regression/ladder";
import type { Comparison } from "../model/comparison";
import type { Ladder } from "../model/ladder";
import type { ResponseSource } from "../model/response-column";
import type { StudyContext } from "../model/context";
import type { AnalysisSample, SampleRule } from "../prepare/analysis-sample";
import { StudyColumns } from "../prepare/study-columns";
import { sampleFolds } from "./sample-folds";
import { type FittedLadder, fitLadderOf } from "./analyse-ladder";
import { type Refusal, refusalOf } from "./refusal";

/** One ladder beside others. */
export interface LadderBeside {
  name: string;
  ladder: string;
  /** The step it is compared with, from 0. */
  step: number;
  fit: LadderFit;
  aicWeight: number | null;
  bicWeight: number | null;
  /** Of respondents held out, with the spread over folds; null where the folds cannot be made. */
  heldOut: CrossValidation | null;
}

/** Ladders beside one another, or why they are not comparable: then with the size of each one's sample. */
export type ComparisonResult =
  | {
      status: "compared";
      sample: AnalysisSample;
      models: LadderBeside[];
      pairs: ComparedPair[];
      folds: { names: string[] } | { reason: string };
    }
  | { status: "refused"; refusal: Refusal; samples: { name: string; used: number | null }[] };

/** Models of different ladders beside one another. Refused when outcome or sample differ. */
export function analyseComparison(
  study: StudyContext,
  comparison: Comparison,
  ladders: readonly Ladder[],
  responses: ResponseSource,
  columns = new StudyColumns(study, responses),
): ComparisonResult {
  const fitted = besideOneAnother(comparison, ladders, (ladder, within) => fitLadderOf(study, ladder, responses, columns, within));
  const samples = comparison.models.map(({ name, ladder }) => ({ name, used: fitted.get(ladder)!.sample?.used ?? null }));
  const beside: Omit<LadderBeside, "aicWeight" | "bicWeight" | "heldOut">[] = [];
  const candidates: Candidate[] = [];
  let sample: AnalysisSample | null = null;
  for (const { name, ladder, step } of comparison.models) {
    const found = fitted.get(ladder)!;
    if (found.status === "refused") return { status: "refused", refusal: refusalOfModel(name, found.refusal), samples };
    const at = step === null ? found.models.fits.length - 1 : step - 1;
    candidates.push({ name, fit: found.models.fits[at]!, cases: found.sample.rowsUsed });
    beside.push({ name, ladder, step: at, fit: ladderTables(found.models) });
    sample ??= found.sample;
  }
  try {
    const folds = sampleFolds(comparison.folds, comparison.seed, columns, sample!.rowsUsed);
    const { models, pairs } = compareModels(candidates, "folds" in folds ? folds.folds : null);
    return {
      status: "compared",
      sample: sample!,
      models: beside.map((one, i) => ({
        ...one,
        aicWeight: models[i]!.aicWeight,
        bicWeight: models[i]!.bicWeight,
        heldOut: models[i]!.crossValidation,
      })),
      pairs,
      folds: "folds" in folds ? { names: folds.names } : { reason: folds.reason },
    };
  } catch (error) {
    return { status: "refused", refusal: refusalOf(error), samples };
  }
}

/** A model of a comparison that cannot be fitted. */
export function refusalOfModel(model: string, refusal: Refusal): Refusal {
  return { code: "model-refused", details: { model, refusal } };
}

/**
 * The ladders of a comparison fitted, by id: each on its own respondents, or all on those whom every one of them has.
 * @param fit fits a ladder, within a further rule if there is one
 */
export function besideOneAnother(
  comparison: Pick<Comparison, "models" | "sample">,
  ladders: readonly Ladder[],
  fit: (ladder: Ladder, within: SampleRule | null) => FittedLadder,
): ReadonlyMap<string, FittedLadder> {
  const wanted = new Set(comparison.models.map((m) => m.ladder));
  const chosen = ladders.filter((l) => wanted.has(l.id));
  const own = new Map(chosen.map((l) => [l.id, fit(l, null)]));
  const samples = [...own.values()].flatMap((f) => (f.status === "fitted" ? [f.sample] : []));
  if (comparison.sample === "own" || samples.length < own.size) return own;
  const within = commonRule(samples);
  return new Map(chosen.map((l) => [l.id, fit(l, within)]));
}

function commonRule(samples: readonly AnalysisSample[]): SampleRule {
  const rows = samples[0]!.rows;
  const times = new Uint8Array(rows);
  for (const { rowsUsed } of samples) for (const row of rowsUsed) times[row - 1]!++;
  return {
    filter: null,
    name: "in every ladder compared",
    reason: "",
    unmet: [],
    passes: times.map((t) => (t === samples.length ? 1 : 0)),
  };
}
