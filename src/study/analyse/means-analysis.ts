import type { Analysis, Desk } from "../kinds/kind";
import type { Ladder } from "../model/ladder";
import type { Means } from "../model/means";
import { fittedAt } from "./analyse-ladder";
import { analyseMeans, type MeansResult } from "./analyse-means";
import { sampleResults } from "./sample-results";

/** Predicted outcomes under the names of docs/results.md. */
function meansResults(means: Means, desk: Desk) {
  const ladder = (desk.objects("ladder") as Ladder[]).find((l) => l.id === means.ladder)!;
  const { variable, values, by, compare, against } = means;
  const settings = { ladder: ladder.id, step: means.step ?? ladder.steps.length, variable, values, by, compare, against };
  const found = analyseMeans({ means, ladder }, desk, fittedAt(desk, ladder));
  const sample = found.sample && sampleResults(found.sample);
  if (found.status === "refused") return { settings, status: "refused" as const, refusal: found.refusal, sample };
  const { cells, contrasts, all } = found.reading;
  const { of } = found.ground;
  return {
    settings,
    status: "told" as const,
    sample,
    df: of.df,
    errors: of.kind,
    mean_of_all: all,
    means: Object.fromEntries(cells.map(({ key, predicted }) => [key, predicted && { ...predicted }])),
    contrasts: Object.fromEntries(
      contrasts.map(({ first, second, found: one, pHolm }) => [
        `${cells[first]!.key} - ${second === null ? "mean of all" : cells[second]!.key}`,
        one && { ...one, p_holm: pHolm },
      ]),
    ),
  };
}

export const analysis: Analysis<Means, { means: Means; ladder: Ladder }, MeansResult> = {
  run: (spec, desk) => analyseMeans(spec, desk),
  results: meansResults,
};
