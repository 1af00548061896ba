import type { ScaleAnalysis } from "../analyse/analyse-scale";
import type { AnswerStrip } from "../analyse/answer-strip";
import type { Scale } from "../model/scale";
import { counted, formatNumber, formatShare, listed } from "./format-number";

/** A caution about a scale; `missingCode` is a value that could be declared missing in an item to mend it. */
export interface ScaleWatch {
  id: string;
  words: string;
  missingCode?: { variable: string; code: string };
  turn?: string;
}

/** What the reliability and the scores say. */
export function whatTheScaleSays(scale: Scale, analysis: ScaleAnalysis): string[] {
  const { reliability, prorated, unscored } = analysis;
  const sentences: string[] = [];
  if (reliability?.alpha != null) {
    const judged = reliability.alpha >= 0.8 ? "hang together well" : reliability.alpha >= 0.7 ? "hang together" : "hang together loosely";
    sentences.push(
      `The ${counted(scale.items.length, "item")} ${judged} (α = ${formatShare(reliability.alpha)}, ${counted(reliability.n, "complete respondent")}).`,
    );
  }
  const weakest = weakestItem(analysis);
  if (weakest && reliability?.alpha != null && weakest.alphaWithout > reliability.alpha + 0.005) {
    sentences.push(
      `${weakest.variable} goes with the rest at ${formatShare(weakest.r)}; without it α would be ${formatShare(weakest.alphaWithout)}.`,
    );
  }
  if (prorated > 0)
    sentences.push(
      `${counted(prorated, "respondent is", "respondents are")} scored from fewer than all items; ${unscored === 0 ? "nobody is" : counted(unscored, "respondent is", "respondents are")} left without a score.`,
    );
  else if (unscored > 0) sentences.push(`${counted(unscored, "respondent has", "respondents have")} too few answers for a score.`);
  return sentences;
}

function weakestItem({ reliability, strips }: ScaleAnalysis): { variable: string; r: number; alphaWithout: number } | null {
  const items = (reliability?.perItem ?? []).flatMap((item, i) =>
    item.withTheRest === null || item.alphaWithout === null
      ? []
      : [{ variable: strips[i]!.variable, r: item.withTheRest, alphaWithout: item.alphaWithout }],
  );
  return items.sort((a, b) => a.r - b.r)[0] ?? null;
}

/** Answers that cannot be right and items that seem keyed the wrong way. */
export function scaleWatches(scale: Scale, strips: readonly AnswerStrip[], analysis: ScaleAnalysis | null): ScaleWatch[] {
  const watches: ScaleWatch[] = [];
  for (const strip of strips) {
    for (const { value, count } of strip.outside.slice(0, 4)) {
      watches.push({
        id: `outside ${strip.variable} ${value}`,
        missingCode: { variable: strip.variable, code: String(value) },
        words: `${strip.variable} holds ${formatNumber(value, 0)} ${count === 1 ? "once" : `${count} times`}, outside the declared answers. It counts as it stands.`,
      });
    }
    if (strip.wordsInNumbers > 0)
      watches.push({
        id: `words ${strip.variable}`,
        words: `${strip.variable} holds words in ${counted(strip.wordsInNumbers, "cell")}; they count as missing.`,
      });
  }
  // only the one that goes most against the rest: it drags the others down with it, and turning it may right them all
  const against = analysis && weakestItem(analysis);
  if (against && against.r < -0.1) {
    const keyed = scale.items.find((item) => item.variable === against.variable)?.reversed ? "turned round" : "as asked";
    watches.push({
      id: `key ${against.variable}`,
      turn: against.variable,
      words: `${against.variable} runs against the other items (${formatShare(against.r)} with the rest). It is keyed ${keyed}: check its wording.`,
    });
  }
  return watches;
}

/** A sentence for a method section. */
export function methodSentence(scale: Scale, analysis: ScaleAnalysis): string {
  const reversed = scale.items.filter((item) => item.reversed).map((item) => item.variable);
  const turned = reversed.length === 0 ? "" : ` (${listed(reversed)} reverse-keyed)`;
  const alpha = analysis.reliability?.alpha == null ? "" : `; Cronbach's α = ${formatShare(analysis.reliability.alpha)}`;
  return `${scale.name} is the ${scale.rule} of ${counted(scale.items.length, "item")}${turned} for respondents who answered at least ${formatShare(scale.answeredShare * 100, 0)} % of them (M = ${formatNumber(analysis.description.mean)}, SD = ${formatNumber(analysis.description.sd)}${alpha}).`;
}
