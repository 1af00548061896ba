import type { ComparisonResult } from "../../analyse/analyse-comparison";
import { formatNumber, formatShare, fStatement, listed } from "../format-number";
import { DELTA_R2, SYMBOL, type Words, words } from "../words";

/** Why folds cannot be made. */
export const NO_FOLDS: Readonly<Record<string, string>> = {
  "folds-have-gaps": "some respondents are in no fold",
  "one-fold": "all are in one fold",
  "folds-refused": "the variable cannot be read",
  "fold-without-controls": "without one of the folds the controls cannot be fitted",
};

const tested = ({ F, df, p }: { F: number | null; df: readonly [number, number]; p: number | null }): Words =>
  F === null ? "" : words` (${fStatement(F, df, p)})`;

/** What ladders side by side say: which is preferred and by how much, and what a larger one adds to one it holds. */
export function comparisonSays({ models, pairs, folds }: Extract<ComparisonResult, { status: "compared" }>): Words[] {
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
  for (const { first, second: other, nested, together, absolute, log10BayesFactor: factor } of pairs) {
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
      if (together)
        sentences.push(words`What only ${first} has adds ${DELTA_R2} = ${formatShare(together.first.change, 3)} to ${other}${tested(together.first)}; what only ${other} has adds ${formatShare(together.second.change, 3)} to ${first}${tested(together.second)}.`); // prettier-ignore
    }
  }
  const held = models.flatMap(({ name, heldOut }) => (heldOut?.rmse == null ? [] : [{ name, rmse: heldOut.rmse, byFold: heldOut.byFold }]));
  if (held.length > 1) {
    const [least, next] = [...held].sort((a, b) => a.rmse - b.rmse);
    // fold by fold the two predict the same respondents
    const wins = least!.byFold.reduce((count, error, f) => count + Number(error < next!.byFold[f]!), 0);
    sentences.push(
      `Respondents held out are predicted best by ${least!.name} (error ${formatNumber(least!.rmse)}, ${next!.name} ${formatNumber(next!.rmse)}), in ${wins} of ${least!.byFold.length} folds.`,
    );
  }
  for (const { name, heldOut } of models)
    if (heldOut && heldOut.inestimable.length > 0)
      sentences.push(`Without ${listed(heldOut.inestimable.map((fold) => ("names" in folds ? `fold ${folds.names[fold - 1]!}` : "")))} a coefficient of ${name} cannot be estimated: it has no error of respondents held out.`); // prettier-ignore
  if ("reason" in folds)
    sentences.push(`There is no error of respondents held out: ${NO_FOLDS[folds.reason] ?? "the folds cannot be made"}.`);
  return sentences;
}
