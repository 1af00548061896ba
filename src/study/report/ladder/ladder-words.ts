import type { LadderFit } from "@/core/regression/ladder";
import type { Coefficient } from "@/core/regression/coefficients";
import type { Ladder } from "../../model/ladder";
import { formatShare, pStatement } from "../format-number";
import { type Words, words } from "../words";
import { columnTitle, whereItHolds } from "./coefficient-words";
import type { Titles } from "../level-title";

/**
 * What the steps up to one of them say, in plain words: one sentence a step. Associational throughout.
 * @param selected the step that is spoken of, from 0
 */
export function whatTheLadderSays(ladder: Pick<Ladder, "steps">, fit: LadderFit, title: Titles, selected = fit.steps.length - 1): Words[] {
  const upTo = fit.steps.slice(0, selected + 1);
  const sentences = upTo.flatMap((step, k): Words[] => {
    const of = ladder.steps[k]!;
    if (of.off) return [];
    const name = of.name || `Step ${k + 1}`;
    const points = formatShare(step.change.change * 100, 1).replace(/^\./, "0.");
    if (step.change.df[0] === 0) return [`${name} adds no column of its own, so it explains nothing more.`];
    const share = `${points} % of the variance of ${title(fit.outcome)}`;
    const test = step.change.p === null ? "" : words` (${pStatement(step.change.p)})`;
    const first = fit.steps[k - 1] === undefined || fit.steps[k - 1]!.model.p === 0;
    return [first ? words`${name} goes with ${share}${test}.` : words`${name} adds ${share}${test}.`];
  });
  const last = upTo.at(-1)!;
  const size = (c: Coefficient) => Math.abs(c.beta?.estimate ?? 0);
  // a level against another is no single variable's share, and a product's β is of another kind
  const strongest = last.coefficients
    .filter((c) => c.column === c.term && fit.parts.get(c.column)!.length === 1)
    .sort((a, b) => size(b) - size(a))[0];
  if (strongest?.beta && last.coefficients.length > 1) {
    const with_ = selected === fit.steps.length - 1 ? "With all terms in" : `In step ${selected + 1}`;
    sentences.push(
      `${with_}, ${columnTitle(strongest.column, fit, title)} has the largest β of a single variable, ${formatShare(strongest.beta.estimate)}${whereItHolds(strongest, fit, title).replace(/^(.*), $/, " ($1)")}.`,
    );
  }
  return sentences;
}
