import { covariance } from "@/core/regression/covariance";
import { type ProbeGround, probeGround } from "@/core/regression/probe-ground";
import type { Desk } from "../kinds/kind";
import { activeTerms, type Ladder } from "../model/ladder";
import type { Means } from "../model/means";
import type { AnalysisSample } from "../prepare/analysis-sample";
import { fitLadderOf, type FittedLadder } from "./analyse-ladder";
import { type MeansReading, readMeans } from "./read-means";
import { NoErrorsError, NothingToProbeError, type Refusal, refusalOf } from "./refusal";

/** Predicted outcomes of a step. */
export type MeansResult =
  | {
      status: "told";
      sample: AnalysisSample;
      /** From 1. */
      step: number;
      ground: ProbeGround;
      reading: MeansReading;
      /** Cases by level, of each category asked about. */
      cases: ReadonlyMap<string, { level: string; cases: number }[]>;
    }
  | { status: "refused"; sample: AnalysisSample | null; refusal: Refusal };

/** @param fitted the ladder, where it is fitted already */
export function analyseMeans(
  { means, ladder }: { means: Means; ladder: Ladder },
  { study, responses, columns }: Desk,
  fitted?: FittedLadder,
): MeansResult {
  const found = fitted ?? fitLadderOf(study, ladder, responses, columns);
  if (found.status === "refused") return found;
  const { models, sample } = found;
  const step = Math.min(means.step ?? ladder.steps.length, ladder.steps.length);
  try {
    const names = [means.variable, ...(means.by === null ? [] : [means.by])];
    const there = new Set(ladder.steps.slice(0, step).flatMap(activeTerms).flatMap((term) => term.components)); // prettier-ignore
    const lacking = names.filter((name) => !there.has(name));
    if (lacking.length > 0) throw new NothingToProbeError({ focal: lacking[0]!, moderators: [], step });
    const of = covariance(models.fits[step - 1]!, models.spec.errors ?? { kind: "classical" });
    if ("reason" in of) throw new NoErrorsError({ why: of.reason });
    const ground = probeGround(models, step - 1, of);
    const cases = models.design.tables.flatMap((t) =>
      names.includes(t.variable) ? [[t.variable, t.levels.map(({ level, cases: n }) => ({ level, cases: n }))] as const] : [],
    );
    return { status: "told", sample, step, ground, reading: readMeans(means, ground), cases: new Map(cases) };
  } catch (error) {
    return { status: "refused", sample, refusal: refusalOf(error) };
  }
}
