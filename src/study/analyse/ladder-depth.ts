import type { Analysis } from "../kinds/kind";
import { type NotableCase, notableCases } from "@/core/diagnostics/notable-cases";
import { partIntervals } from "@/core/diagnostics/part-intervals";
import type { LargeSampleInterval } from "@/core/regression/change-interval";
import { covariance } from "@/core/regression/covariance";
import type { Ladder } from "../model/ladder";
import { ladderSample, modelsOn } from "../prepare/ladder-models";
import type { StudyColumns } from "../prepare/study-columns";
import { refusalOf } from "./refusal";

/** What takes a pass over all respondents for every coefficient: worked out after the tables, which do not wait for it. */
export interface LadderDepth {
  /** Per step and column name. */
  parts: Record<string, LargeSampleInterval | null>[];
  /** Respondents to look at in the step that was asked for, by their rows in the data, from 1. */
  notable: (NotableCase & { row: number })[];
}

/**
 * @param step whose respondents are looked at, from 0
 * @returns null where the ladder cannot be fitted: its tables say why
 */
export function ladderDepth(ladder: Ladder, step: number, columns: StudyColumns): LadderDepth | null {
  try {
    const found = ladderSample(ladder, columns);
    const { fits, y, spec } = modelsOn(ladder, found);
    const errors = spec.errors ?? { kind: "classical" };
    const clusters = errors.kind === "cluster" ? errors.codes : null;
    const parts = fits.map((fit) => {
      const of = covariance(fit, errors);
      if ("reason" in of) return {};
      const intervals = partIntervals(fit, y, of, spec.confidence, clusters);
      return Object.fromEntries(fit.columns.map((column, i) => [column, intervals[i]!]));
    });
    const fit = fits[Math.min(step, fits.length - 1)]!;
    const notable = notableCases(fit).map((one) => ({ ...one, row: found.sample.rowsUsed[one.at]! }));
    return { parts, notable };
  } catch (error) {
    refusalOf(error); // a fault of ours passes on
    return null;
  }
}

interface DepthSpec {
  ladder: Ladder;
  step: number;
}

export const analysis: Analysis<DepthSpec, DepthSpec, LadderDepth | null> = {
  run: ({ ladder, step }, { columns }) => ladderDepth(ladder, step, columns),
};
