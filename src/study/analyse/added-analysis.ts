import type { Analysis, Desk } from "../kinds/kind";
import type { Added } from "../model/added";
import type { Ladder } from "../model/ladder";
import { type AddedResult, analyseAdded } from "./analyse-added";
import { sampleResults } from "./sample-results";

/** What each term adds under the names of docs/results.md: the numbers beside the pictures. */
function addedResults(added: Added, desk: Desk) {
  const ladder = (desk.objects("ladder") as Ladder[]).find((l) => l.id === added.ladder)!;
  const settings = { ladder: ladder.id, step: added.step ?? ladder.steps.length, columns: added.columns, as: added.as };
  const found = analyseAdded({ added, ladder }, desk);
  const sample = found.sample && sampleResults(found.sample);
  if (found.status === "refused") return { settings, status: "refused" as const, refusal: found.refusal, sample };
  return {
    settings,
    status: "told" as const,
    sample,
    columns: Object.fromEntries(
      found.columns.map(({ column, coefficient: { b, beta, partial, tolerance }, slope, ownSd, bend }) => [
        column,
        { b: b.estimate, beta: beta?.estimate ?? null, slope_in_sd: slope, partial, tolerance, own_sd: ownSd, bend },
      ]),
    ),
  };
}

export const analysis: Analysis<Added, { added: Added; ladder: Ladder }, AddedResult> = { run: analyseAdded, results: addedResults };
