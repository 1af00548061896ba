import type { ComparisonResult } from "../../analyse/analyse-comparison";
import { formatNumber, formatShare, fStatement } from "../format-number";
import { DELTA_R2, SYMBOL, type Words, words } from "../words";

/** What ladders side by side say: which is preferred and by how much, and what a larger one adds to one it holds. */
export function comparisonSays({ models, pairs }: Extract<ComparisonResult, { status: "compared" }>): Words[] {
  const ranked = models
    .map((m) => ({ name: m.name, aic: m.fit.steps[m.step]!.model.AIC, weight: m.aicWeight }))
    .filter((m) => m.aic !== null)
    .sort((a, b) => a.aic! - b.aic!);
  const [best, second] = ranked;
  const sentences: Words[] = [];
  if (best && second && ranked.length === models.length) {
    const distance = second.aic! - best.aic!;
    sentences.push(
      distance < 2
        ? `By AIC ${best.name} and ${second.name} are about as good (ΔAIC = ${formatNumber(distance)}).`
        : `By AIC ${best.name} is preferred, ${formatNumber(distance)} ahead of ${second.name}; its Akaike weight among these is ${best.weight !== null && best.weight > 0.995 ? "over .99" : formatShare(best.weight)}.`,
    );
  }
  for (const { first, second: other, nested, absolute, log10BayesFactor: factor } of pairs) {
    if (nested) {
      const smaller = nested.larger === first ? other : first;
      const test = nested.F === null ? "" : words`, ${fStatement(nested.F, nested.df, nested.p)}`;
      sentences.push(words`${nested.larger} holds all of ${smaller} and adds ${DELTA_R2} = ${formatShare(nested.change, 3)}${test}.`);
    } else {
      const favours =
        factor === null ? "" : ` BIC favours ${factor >= 0 ? first : other} (log10 of the Bayes factor ${formatNumber(Math.abs(factor))}).`;
      sentences.push(
        words`${first} and ${other} do not hold one another: no ${SYMBOL.p} value. Their predictions differ by ${formatNumber(absolute.mean)} SD of the outcome on average, at most ${formatNumber(absolute.max)}.${favours}`,
      );
    }
  }
  return sentences;
}
