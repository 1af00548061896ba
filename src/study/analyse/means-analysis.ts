import type { Analysis, Desk, WorkedOut } from "../kinds/kind";
import type { Ladder } from "../model/ladder";
import type { Means } from "../model/means";
import { fittedAt } from "./analyse-ladder";
import { analyseMeans, type MeansResult } from "./analyse-means";
import { combinedIntervals, contrastFigure, meansFigures, predictionFigure } from "./probe-figures";
import { type MeansContrast, readMeans } from "./read-means";
import { drawnResults, stepReady } from "./replicated-step";
import { sampleResults } from "./sample-results";

/** Predicted outcomes under the names of docs/results.md. */
function meansResults(means: Means, desk: Desk, { intervals }: WorkedOut) {
  const ladder = (desk.objects("ladder") as Ladder[]).find((l) => l.id === means.ladder)!;
  const { variable, values, by, compare, against } = means;
  const settings = { ladder: ladder.id, step: means.step ?? ladder.steps.length, variable, values, by, compare, against };
  const found = analyseMeans({ means, ladder }, desk, fittedAt(desk, ladder));
  const sample = found.sample && sampleResults(found.sample);
  if (found.status === "refused") return { settings, status: "refused" as const, refusal: found.refusal, sample };
  const { cells, contrasts, all } = found.reading;
  const { ground, step } = found;
  const { of } = ground;
  const drawn = intervals && combinedIntervals(intervals);
  const name = ({ first, second }: MeansContrast) => `${cells[first]!.key} - ${second === null ? "mean of all" : cells[second]!.key}`;
  return {
    settings,
    status: "told" as const,
    sample,
    df: of.df,
    errors: of.kind,
    mean_of_all: all,
    means: Object.fromEntries(cells.map(({ key, predicted }) => [key, predicted && { ...predicted }])),
    contrasts: Object.fromEntries(
      contrasts.map((contrast) => [name(contrast), contrast.found && { ...contrast.found, p_holm: contrast.pHolm }]),
    ),
    bootstrap: drawn
      ? {
          ...drawnResults(ladder, intervals),
          means: Object.fromEntries(cells.map((cell) => [cell.key, drawn(predictionFigure(ground, step - 1, cell))])),
          contrasts: Object.fromEntries(
            contrasts.map((c) => [name(c), drawn(contrastFigure(ground, step - 1, found.reading, c.first, c.second))]),
          ),
        }
      : null,
  };
}

export const analysis: Analysis<Means, { means: Means; ladder: Ladder }, MeansResult> = {
  run: (spec, desk) => analyseMeans(spec, desk),
  results: meansResults,
  ready: ({ means, ladder }, desk) => stepReady({ ladder, step: means.step }, desk, (ground, step) => meansFigures(readMeans(means, ground), ground, step)), // prettier-ignore
};
