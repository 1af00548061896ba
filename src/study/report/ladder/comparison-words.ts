import type { ComparisonResult } from "../../analyse/analyse-comparison";
import { formatNumber, formatShare, pStatement } from "../format-number";

/** What ladders side by side say: which is preferred and by how much, and what a larger one adds to one it holds. */
export function comparisonSays({ models, pairs }: Extract<ComparisonResult, { status: "compared" }>): string[] {
  const ranked = models
    .map((m) => ({ name: m.name, aic: m.fit.steps[m.step]!.model.AIC, weight: m.aicWeight }))
    .filter((m) => m.aic !== null)
    .sort((a, b) => a.aic! - b.aic!);
  const [best, second] = ranked;
  const sentences: string[] = [];
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
      const test = nested.F === null ? "" : `, F(${nested.df[0]}, ${nested.df[1]}) = ${formatNumber(nested.F)}, ${pStatement(nested.p)}`;
      sentences.push(`${nested.larger} holds all of ${smaller} and adds ΔR² = ${formatShare(nested.change, 3)}${test}.`);
    } else {
      const favours =
        factor === null ? "" : ` BIC favours ${factor >= 0 ? first : other} (log10 of the Bayes factor ${formatNumber(Math.abs(factor))}).`;
      sentences.push(
        `${first} and ${other} do not hold one another: no p value. Their predictions differ by ${formatNumber(absolute.mean)} SD of the outcome on average, at most ${formatNumber(absolute.max)}.${favours}`,
      );
    }
  }
  return sentences;
}
