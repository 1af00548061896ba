import type { Beyond } from "@/core/diagnostics/residual-tests";
import type { LadderModels } from "@/core/regression/ladder";
import { type Figure, figuresOf } from "@/core/resampling/figures/figure";
import { ladderBootstrap } from "@/core/resampling/ladder-bootstrap";
import { drawingOf } from "@/core/resampling/units";
import type { Analysis, Desk, Ready } from "../kinds/kind";
import type { Ladder } from "../model/ladder";
import { ladderSample, modelsOn } from "../prepare/ladder-models";
import { analyseLadder, fittedAt, type LadderResult } from "./analyse-ladder";
import { ladderShuffles, shuffledRange } from "./case-results";
import { ladderResults } from "./ladder-results";

/** The figures of a ladder; with everything, predicted outcomes of its categories too. */
function ready(ladder: Ladder, { columns }: Desk, everything: boolean): Ready {
  const models = modelsOn(ladder, ladderSample(ladder, columns));
  const names = everything ? [...figuresOf(models), ...predictedOutcomes(models)] : figuresOf(models);
  return { ...ladderBootstrap(models, drawingOf(models.spec.errors), names), names };
}

/** Predicted outcomes and their differences over the levels of every category of a step, as far as they can be told. */
function predictedOutcomes({ design, fits }: LadderModels): Figure[] {
  return fits.flatMap(({ basis }, step) =>
    design.tables.flatMap(({ variable, levels }): Figure[] => {
      const holds = design.columns.slice(0, basis.width).some(({ term }) => term.components.includes(variable));
      if (!holds || basis.dependent.length > 0) return [];
      const means = levels.map(({ level }): Figure => ({ kind: "marginalMean", step, variable, level }));
      const pairs = levels.flatMap((a, i) => levels.slice(i + 1).map((b): Figure => ({ kind: "contrast", step, variable, level: b.level, minus: a.level }))); // prettier-ignore
      return [...means, ...pairs];
    }),
  );
}

export const analysis: Analysis<Ladder, Ladder, LadderResult> = {
  run: (ladder, { study, responses, columns }) => analyseLadder(study, ladder, responses, columns),
  results: (ladder, desk, { intervals, dealt }) =>
    ladderResults(ladder, fittedAt(desk, ladder), desk.columns, { intervals, beyond: dealt as Beyond[] | undefined }),
  ready,
  /** Shuffles of its order, for the p of Durbin and Watson's d. */
  dealt: {
    count: (ladder, { columns }) => (ladder.order === null ? 0 : ladderShuffles(ladder, columns)),
    range: (ladder, { columns }, range) => shuffledRange(ladder, columns, range),
  },
};
