import { covariance } from "@/core/regression/covariance";
import type { LadderModels } from "@/core/regression/ladder";
import { type ProbeGround, probeGround } from "@/core/regression/probe-ground";
import type { Desk } from "../kinds/kind";
import { activeTerms, type Ladder, type LadderTerm } from "../model/ladder";
import type { AnalysisSample } from "../prepare/analysis-sample";
import { fitLadderOf, type FittedLadder } from "./analyse-ladder";
import { NoErrorsError, type Refusal, refusalOf } from "./refusal";

/** A step that something is asked of. */
export interface ProbedStep {
  sample: AnalysisSample;
  models: LadderModels;
  /** From 1. */
  step: number;
  ground: ProbeGround;
}

/**
 * What is asked of a step of a ladder, or why it cannot be told.
 * @param step from 1; null, or one that has gone: the last
 * @param check refuses what the terms up to the step do not hold
 * @param fitted the ladder, where it is fitted already
 */
export function askStep<T>(
  { ladder, step: asked }: { ladder: Ladder; step: number | null },
  { study, responses, columns }: Desk,
  fitted: FittedLadder | undefined,
  check: (terms: readonly LadderTerm[], step: number) => void,
  tell: (of: ProbedStep) => T,
): T | { status: "refused"; sample: AnalysisSample | null; refusal: Refusal } {
  const found = fitted ?? fitLadderOf(study, ladder, responses, columns);
  if (found.status === "refused") return found;
  const { models, sample } = found;
  const step = Math.min(asked ?? ladder.steps.length, ladder.steps.length);
  try {
    check(ladder.steps.slice(0, step).flatMap(activeTerms), step);
    const of = covariance(models.fits[step - 1]!, models.spec.errors ?? { kind: "classical" });
    if ("reason" in of) throw new NoErrorsError({ why: of.reason });
    return tell({ sample, models, step, ground: probeGround(models, step - 1, of) });
  } catch (error) {
    return { status: "refused", sample, refusal: refusalOf(error) };
  }
}

/** Cases by level of some categories of a fitted ladder. */
export function casesOf({ design }: LadderModels, names: readonly string[]): ReadonlyMap<string, { level: string; cases: number }[]> {
  const own = design.tables.filter((t) => names.includes(t.variable));
  return new Map(own.map((t) => [t.variable, t.levels.map(({ level, cases }) => ({ level, cases }))]));
}
