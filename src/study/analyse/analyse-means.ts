import type { ProbeGround } from "@/core/regression/probe-ground";
import type { Desk } from "../kinds/kind";
import type { Ladder } from "../model/ladder";
import type { Means } from "../model/means";
import type { AnalysisSample } from "../prepare/analysis-sample";
import type { FittedLadder } from "./analyse-ladder";
import { askStep, casesOf } from "./probed-step";
import { type MeansReading, readMeans } from "./read-means";
import { NothingToProbeError, type Refusal } from "./refusal";

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
export function analyseMeans({ means, ladder }: { means: Means; ladder: Ladder }, desk: Desk, fitted?: FittedLadder): MeansResult {
  const names = [means.variable, ...(means.by === null ? [] : [means.by])];
  return askStep<MeansResult>(
    { ladder, step: means.step },
    desk,
    fitted,
    (terms, step) => {
      const lacking = names.find((name) => !terms.some((term) => term.components.includes(name)));
      if (lacking !== undefined) throw new NothingToProbeError({ focal: lacking, moderators: [], step });
    },
    ({ sample, models, step, ground }) => ({
      status: "told",
      sample,
      step,
      ground,
      reading: readMeans(means, ground),
      cases: casesOf(models, names),
    }),
  );
}
