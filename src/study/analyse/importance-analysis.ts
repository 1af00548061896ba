import type { Analysis, Desk, WorkedOut } from "../kinds/kind";
import type { Importance } from "../model/importance";
import type { Ladder } from "../model/ladder";
import { fittedAt } from "./analyse-ladder";
import { analyseImportance, type ImportanceResult, type TermImportance } from "./analyse-importance";
import { resampledImportance } from "./importance-intervals";
import { type ImportanceIntervals, joinedImportance } from "./joined-importance";
import { sampleResults } from "./sample-results";

/** Shares of R² under the names of docs/results.md. */
function importanceResults(asked: Importance, desk: Desk, { dealt }: WorkedOut) {
  const ladder = (desk.objects("ladder") as Ladder[]).find((l) => l.id === asked.ladder)!;
  const settings = {
    ladder: ladder.id,
    step: asked.step ?? ladder.steps.length,
    controls: asked.controls,
    together: asked.together,
    resamples: asked.resamples,
    seed: asked.seed,
  };
  const found = analyseImportance({ importance: asked, ladder }, desk, fittedAt(desk, ladder));
  const sample = found.sample && sampleResults(found.sample);
  if (found.status === "refused") return { settings, status: "refused" as const, refusal: found.refusal, sample };
  const { terms } = found;
  const by = <T>(of: (term: TermImportance) => T) => Object.fromEntries(terms.map((term) => [term.key, of(term)]));
  const intervals =
    asked.resamples === null
      ? null
      : ((dealt as ImportanceIntervals | undefined) ??
        joinedImportance([resampledImportance({ importance: asked, ladder }, desk, { first: 0, count: asked.resamples })]));
  return {
    settings,
    status: "told" as const,
    sample,
    orders: found.of.orders,
    orders_drawn: found.of.drawn,
    share: by((term) => term.share),
    share_of_sum: by((term) => term.ofSum),
    zero_order: by((term) => term.zeroOrder),
    part: by((term) => term.part),
    beta: by((term) => term.beta),
    sum: found.of.R2 - found.of.controlsR2,
    R2: found.of.R2,
    R2_controls: found.of.controlsR2,
    bootstrap: intervals && {
      resamples: intervals.resamples,
      confidence: intervals.confidence,
      failed: intervals.failed,
      intervals: Object.fromEntries(intervals.terms.map((key, k) => [key, { lower: intervals.lower[k]!, upper: intervals.upper[k]! }])),
    },
  };
}

export const analysis: Analysis<Importance, { importance: Importance; ladder: Ladder }, ImportanceResult> = {
  run: (spec, desk) => analyseImportance(spec, desk),
  results: importanceResults,
  dealt: { count: ({ importance }) => importance.resamples ?? 0, range: resampledImportance },
};
