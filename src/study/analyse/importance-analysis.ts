import type { Analysis, Desk } from "../kinds/kind";
import type { Importance } from "../model/importance";
import type { Ladder } from "../model/ladder";
import { fittedAt } from "./analyse-ladder";
import { analyseImportance, type ImportanceResult, type TermImportance } from "./analyse-importance";
import { sampleResults } from "./sample-results";

/** Shares of R² under the names of docs/results.md. */
function importanceResults(asked: Importance, desk: Desk) {
  const ladder = (desk.objects("ladder") as Ladder[]).find((l) => l.id === asked.ladder)!;
  const settings = { ladder: ladder.id, step: asked.step ?? ladder.steps.length, controls: asked.controls, seed: asked.seed };
  const found = analyseImportance({ importance: asked, ladder }, desk, fittedAt(desk, ladder));
  const sample = found.sample && sampleResults(found.sample);
  if (found.status === "refused") return { settings, status: "refused" as const, refusal: found.refusal, sample };
  const { terms } = found;
  const by = <T>(of: (term: TermImportance) => T) => Object.fromEntries(terms.map((term) => [term.key, of(term)]));
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
  };
}

export const analysis: Analysis<Importance, { importance: Importance; ladder: Ladder }, ImportanceResult> = {
  run: (spec, desk) => analyseImportance(spec, desk),
  results: importanceResults,
};
