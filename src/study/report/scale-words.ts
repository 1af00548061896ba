import { weakestItem } from "@/core/reliability/weakest-item";
import type { ScaleAnalysis } from "../analyse/analyse-scale";
import type { AnswerStrip } from "../analyse/answer-strip";
import { denialIn } from "../analyse/denial";
import type { Scale } from "../model/scale";
import type { Study } from "../model/study";
import { EXTRACTION_WORDS } from "./factoring-words";
import type { Watch } from "./watch";
import { SYMBOL, type Words, words } from "./words";
import { counted, formatInterval, formatMean, formatNumber, formatShare, listed } from "./format-number";
import { levelTitle, type Titles } from "./level-title";

/** What would mend a scale: a code to declare missing, items to turn round, or z-scores to count instead of answers. */
export type ScaleFix = { do: "missing-code"; variable: string; code: string } | { do: "turn"; items: string[] } | { do: "weigh-equally" };
export type ScaleWatch = Watch<ScaleFix>;

/** What the reliability and the scores say. */
export function whatTheScaleSays(scale: Scale, analysis: ScaleAnalysis, title: Titles = (name) => name): string[] {
  const { prorated, unscored, groups } = analysis;
  const { alpha: reliability, factor } = analysis.reliability;
  const sentences: string[] = [];
  if (reliability?.alpha != null) {
    const judged = reliability.alpha >= 0.8 ? "hang together well" : reliability.alpha >= 0.7 ? "hang together" : "hang together loosely";
    sentences.push(
      `The ${counted(scale.items.length, "item")} ${judged} (α = ${formatShare(reliability.alpha)}, ${counted(reliability.n, "complete respondent")}).`,
    );
  }
  const weakest = reliability && weakestItem(reliability);
  if (weakest && reliability.alpha !== null && weakest.alphaWithout > reliability.alpha + 0.005) {
    sentences.push(
      `${title(analysis.strips[weakest.item]!.variable)} goes with the rest at ${formatShare(weakest.r)}; without it α would be ${formatShare(weakest.alphaWithout)}.`,
    );
  }
  if (reliability?.spearmanBrown != null)
    sentences.push(
      `Two items: the Spearman–Brown coefficient, ${formatShare(reliability.spearmanBrown)}, is the one to report; nothing shows which of the two is the better.`,
    );
  if (factor)
    sentences.push(
      `By way of one factor ω = ${formatShare(factor.omega)}; the factor explains ${formatShare(factor.averageVarianceExtracted * 100, 0)} % of the items on average${factor.averageVarianceExtracted < 0.5 ? ", less than their errors do" : ""}.`,
    );
  if (groups && scale.byGroup !== null) {
    const category = scale.byGroup;
    sentences.push(...groupSentences(groups, (level) => levelTitle(title, category, level)));
  }
  if (prorated > 0)
    sentences.push(
      `${counted(prorated, "respondent is", "respondents are")} scored from fewer than all items; ${unscored === 0 ? "nobody is" : counted(unscored, "respondent is", "respondents are")} left without a score.`,
    );
  else if (unscored > 0) {
    const whole = scale.rule !== "mean" && scale.rule !== "sum";
    const who = counted(unscored, "respondent has", "respondents have");
    sentences.push(whole ? `${who} an item unanswered, so no score of this kind.` : `${who} too few answers for a score.`);
  }
  return sentences;
}

function groupSentences(groups: NonNullable<ScaleAnalysis["groups"]>, words: (level: string) => string): string[] {
  const alphas = groups.flatMap(({ level, reliability }) => {
    const { alpha } = reliability;
    return alpha?.alpha == null || alpha.lower === null || alpha.upper === null
      ? []
      : [{ level, alpha: alpha.alpha, lower: alpha.lower, upper: alpha.upper }];
  });
  if (alphas.length < 2) return [];
  const [low, high] = [alphas.reduce((a, b) => (b.alpha < a.alpha ? b : a)), alphas.reduce((a, b) => (b.alpha > a.alpha ? b : a))];
  const apart = low.upper < high.lower;
  return [
    `Between groups α runs from ${formatShare(low.alpha)} (${words(low.level)}) to ${formatShare(high.alpha)} (${words(high.level)}); ${apart ? "these two intervals do not overlap, so the items do not serve all groups alike" : "the intervals overlap"}.`,
  ];
}

/** Answers that cannot be right, items that seem keyed the wrong way by their answers or their wording, and what else a scale suffers from. */
export function scaleWatches(
  scale: Scale,
  strips: readonly AnswerStrip[],
  analysis: ScaleAnalysis | null,
  study: Pick<Study, "codebook" | "scales"> = { codebook: [], scales: [] },
  title: Titles = (name) => name,
): ScaleWatch[] {
  const watches: ScaleWatch[] = [];
  for (const strip of strips) {
    for (const { value, count } of strip.outside.slice(0, 4)) {
      watches.push({
        id: `outside ${strip.variable} ${value}`,
        fixes: [{ do: "missing-code", variable: strip.variable, code: String(value) }],
        words: `${strip.variable} holds ${formatNumber(value, 0)} ${count === 1 ? "once" : `${count} times`}, outside the declared answers. It counts as it stands.`,
      });
    }
    if (strip.wordsInNumbers > 0)
      watches.push({
        id: `words ${strip.variable}`,
        words: `${strip.variable} holds words in ${counted(strip.wordsInNumbers, "cell")}; they count as missing.`,
      });
  }
  if (analysis) watches.push(...keyWatches(scale, analysis, study, title), ...reliabilityWatches(scale, analysis, title));
  watches.push(...rangeWatches(scale, study), ...sharedWatches(scale, study, title));
  return watches;
}

function keyWatches(scale: Scale, analysis: ScaleAnalysis, study: Pick<Study, "codebook">, title: Titles): ScaleWatch[] {
  const watches: ScaleWatch[] = [];
  const keyed = (name: string) => scale.items.find((item) => item.variable === name)?.reversed ?? false;
  const rest = (name: string) =>
    analysis.reliability.alpha?.perItem[analysis.strips.findIndex((s) => s.variable === name)]?.withTheRest ?? null;
  const { against } = analysis;
  if (against.length > 0) {
    const alike = new Set(against.map(keyed)).size === 1;
    const how = `${against.length === 1 ? "It is" : "They are"} keyed ${keyed(against[0]!) ? "turned round" : "as asked"}: check ${against.length === 1 ? "its" : "their"} wording.`;
    const rs = against.map((name) => formatShare(rest(name))).join(", ");
    watches.push({
      id: `key ${against.join(" ")}`,
      fixes: [{ do: "turn", items: against }],
      words: `${listed(against.map((name) => title(name)))} ${against.length === 1 ? "runs" : "run"} against the other items (${rs} with the rest). ${alike ? how : "Check their wording."}`,
    });
  }
  // wording speaks only where the answers do not speak louder
  for (const { variable, reversed } of scale.items) {
    const denial = denialIn(study.codebook.find((v) => v.name === variable)?.label ?? "");
    const r = rest(variable);
    if (denial === null || reversed || against.includes(variable) || (r !== null && r >= 0.3)) continue;
    watches.push({
      id: `wording ${variable}`,
      fixes: [{ do: "turn", items: [variable] }],
      words: `${title(variable)} reads like a denial (“${denial}”) and is keyed as asked: look whether it should be turned round.`,
    });
  }
  return watches;
}

function reliabilityWatches(scale: Scale, { reliability, unscored, rows, complete }: ScaleAnalysis, title: Titles): ScaleWatch[] {
  const { alpha, factor, factorRefusal } = reliability;
  const watches: ScaleWatch[] = [];
  const still = alpha?.perItem.flatMap((item, i) => (item.sd === 0 ? [scale.items[i]!.variable] : [])) ?? [];
  if (still.length > 0)
    watches.push({
      id: "constant",
      words: `Everyone complete on the scale gave the same answer to ${listed(still.map((name) => title(name)))}, so ${still.length === 1 ? "it says" : "they say"} nothing about differences and correlates with nothing.`,
    });
  else if (factorRefusal?.code === "singular-correlations")
    watches.push({
      id: "singular",
      words: factorRefusal.details.fewCases
        ? "There are no more complete respondents than items, so ω cannot be worked out."
        : `${title(factorRefusal.details.item)} is determined by the items before it, so ω cannot be worked out. Is an item in the scale twice, or a sum of others?`,
    });
  if (factor && factor.heywood.length > 0)
    watches.push({
      id: "heywood",
      words: `The one-factor solution leaves next to nothing of ${listed(factor.heywood.map((i) => title(scale.items[i]!.variable)))} unexplained (a Heywood case): ω is not to be trusted. Often two items say nearly the same, or there are too few respondents.`,
    });
  if (alpha && alpha.items > 2 && alpha.alpha !== null && alpha.alpha >= 0.95)
    watches.push({ id: "alike", words: `α is ${formatShare(alpha.alpha)}: the items may ask nearly the same thing again and again.` });
  if (rows > 0 && scale.rule !== "mean" && scale.rule !== "sum" && unscored > 0.1 * rows)
    watches.push({
      id: "unscored",
      words: `${counted(unscored, "respondent")} of ${rows} have no score, since this rule needs every item answered (${complete} did). A mean of the answered items would keep more.`,
    });
  return watches;
}

function rangeWatches(scale: Scale, { codebook }: Pick<Study, "codebook">): ScaleWatch[] {
  if (scale.rule !== "mean" && scale.rule !== "sum" && !(scale.rule === "weighted" && scale.weigh === "answers")) return [];
  const ranges = scale.items.map((item) => codebook.find((v) => v.name === item.variable)?.range ?? null);
  const widths = new Map(ranges.flatMap((r) => (r ? [[`${r.low} to ${r.high}`, r.high - r.low] as const] : [])));
  if (new Set(widths.values()).size < 2) return [];
  return [
    {
      id: "unlike",
      fixes: [{ do: "weigh-equally" }],
      words: `The items have unlike ranges (${[...widths.keys()].join(", ")}): those with the wider one count more in the ${scale.rule === "weighted" ? "score" : scale.rule}.`,
    },
  ];
}

function sharedWatches(scale: Scale, { scales }: Pick<Study, "scales">, title: Titles): ScaleWatch[] {
  const others = scales.filter((s) => s.id !== scale.id);
  const shared = scale.items.filter((item) => others.some((s) => s.items.some((i) => i.variable === item.variable)));
  if (shared.length === 0) return [];
  const holders = others.filter((s) => s.items.some((i) => shared.some((item) => item.variable === i.variable))).map((s) => s.name);
  return [
    {
      id: "shared",
      words: `${listed(shared.map((item) => title(item.variable)))} ${shared.length === 1 ? "serves" : "serve"} ${listed(holders)} as well: scores that share items correlate for that reason alone.`,
    },
  ];
}

/** Sentences for a method section, to be copied. */
export function methodSentence(scale: Scale, analysis: ScaleAnalysis, title: Titles = (name) => name): Words {
  const reversed = scale.items.filter((item) => item.reversed).map((item) => title(item.variable));
  const turned = reversed.length === 0 ? "" : ` (${listed(reversed)} reverse-keyed)`;
  const { alpha, factor } = analysis.reliability;
  const { mean, sd } = analysis.description;
  const reliability = [
    ...(alpha?.spearmanBrown != null
      ? [`Spearman–Brown coefficient ${formatShare(alpha.spearmanBrown)}`]
      : alpha?.alpha == null
        ? []
        : [`Cronbach's α = ${formatShare(alpha.alpha)}, 95 % CI ${formatInterval(alpha.lower, alpha.upper, formatShare)}`]),
    ...(factor && factor.heywood.length === 0 ? [`ω = ${formatShare(factor.omega)}`] : []),
  ];
  const told = words`${SYMBOL.M} = ${formatMean(mean, sd)}, ${SYMBOL.SD} = ${formatNumber(sd)}${reliability.length === 0 ? "" : `; ${reliability.join(", ")}`}`;
  return words`${scale.name} is ${ruleWords(scale, turned)} (${told}).`;
}

function ruleWords(scale: Scale, turned: string): string {
  const items = `${counted(scale.items.length, "item")}${turned}`;
  switch (scale.rule) {
    case "mean":
    case "sum":
      return `the ${scale.rule} of ${items} for respondents who answered at least ${formatShare(scale.answeredShare * 100, 0)} % of them`;
    case "weighted": {
      const from = scale.weightsFrom === "" ? "" : `, weights from ${scale.weightsFrom}`;
      return `the weighted sum of ${scale.weigh === "z" ? "z-scores of " : ""}${items}${from}, for respondents who answered all of them`;
    }
    case "regression":
    case "bartlett": {
      const { extraction, rotation, factors, factor } = scale.factor;
      const turn = rotation === "none" || factors === 1 ? "" : `, ${rotation} rotation`;
      const which = factors === 1 ? "the factor" : `factor ${factor} of ${factors}`;
      return `the ${scale.rule === "bartlett" ? "Bartlett" : "regression"} score of ${which} of ${items} (${EXTRACTION_WORDS[extraction]}${turn}), for respondents who answered all of them`;
    }
  }
}
