import type { GroupMetric } from "../../analyse/analyse-groups";
import type { Groups } from "../../model/groups";
import { counted, formatCount, formatNumber, formatShare, fStatement, listed, pStatement } from "../format-number";
import { levelTitle, type Titles } from "../level-title";
import { refusalWords } from "../refusals";
import { SYMBOL, type Words, words } from "../words";
import { columnTitle } from "./coefficient-words";
import { type Compared, groupsRows, type GroupsBeside, toldDifferences } from "./groups-rows";

/** A group with fewer respondents than this a predictor says little of itself. */
const FEW_A_COLUMN = 10;
/** Residual variances that differ by more than this factor make one for all a poor summary. */
const UNLIKE = 2;

export const METRIC_WORDS: Record<GroupMetric, string> = {
  raw: "points (b)",
  all: "SDs of all (β)",
  own: "SDs of each group (β)",
};

export const metricSymbol = (metric: GroupMetric): Words => (metric === "raw" ? [SYMBOL.b] : "β");
export const printIn = (metric: GroupMetric) => (v: number | null) => (metric === "raw" ? formatNumber(v) : formatShare(v));

/** A group as it is named: `online`; `online + blended`. */
export function groupName(levels: readonly string[], variable: string, title: Titles): string {
  return levels.map((level) => levelTitle(title, variable, level)).join(" + ");
}

/** What a step told by groups says: which differences can be told, all together, and what to keep in mind. Associations, never causes. */
export function whatTheGroupsSay(groups: Groups, result: Compared, beside: GroupsBeside, title: Titles): Words[] {
  return [
    ...differencesSay(groups, result, beside, title),
    ...togetherSays(result),
    ...metricSays(groups, result, title),
    ...groupsLack(groups, result, title),
    ...whoIsNot(groups, result, title),
  ];
}

function differencesSay({ metric, variable }: Groups, result: Compared, beside: GroupsBeside, title: Titles): Words[] {
  const all = toldDifferences(result, metric, beside);
  const tested = all.filter((d) => d.pHolm !== null);
  const surest = tested[0];
  if (!surest) return ["No difference between groups can be tested: see what each group lacks below."];
  const level = 1 - result.confidence;
  const print = printIn(metric);
  const name = (g: number) => groupName(result.groups[g]!.levels, variable, title);
  const slope = (d: typeof surest, g: number) => result.columns.find((c) => c.column === d.column)!.found[metric][g]!.estimate;
  const term = columnTitle(surest.column, result, title);
  const symbol = metricSymbol(metric);
  const over = tested.length > 1 ? ` by Holm over ${tested.length}` : "";
  const test = words`difference ${print(surest.estimate)}, ${SYMBOL.z} = ${formatNumber(surest.z)}, ${pStatement(surest.pHolm)}${over}`;
  const held = tested.filter((d) => d.pHolm! < level);
  if (held.length === 0)
    return [
      words`No difference between groups can be told from chance. The surest is of ${term}: ${symbol} ${print(slope(surest, surest.first))} for ${name(surest.first)}, ${print(slope(surest, surest.second))} for ${name(surest.second)} (${test}).`,
    ];
  const others = [...new Set(held.map((d) => d.column))].filter((column) => column !== surest.column);
  const rest =
    others.length > 0
      ? `Of ${listed(others.map((column) => columnTitle(column, result, title)))} too a difference can be told from chance.`
      : result.columns.length > 1
        ? "Of the other terms none can be told from chance."
        : "";
  return [
    words`The slope of ${term} on ${title(result.outcome)} is higher for ${name(surest.first)} (${symbol} ${print(slope(surest, surest.first))}) than for ${name(surest.second)} (${print(slope(surest, surest.second))}): more apart than chance would put them (${test}).`,
    ...(rest === "" ? [] : [rest]),
  ];
}

function togetherSays({ alike, pooled, groups, confidence }: Compared): Words[] {
  const said: Words[] = [];
  const level = 1 - confidence;
  if (alike.p !== null) {
    const of = alike.groups.length < groups.length ? ` (${counted(alike.groups.length, "group")} that can tell all of them)` : "";
    said.push(words`All slopes together${of}: ${alike.p < level ? "they differ between groups" : "that they differ cannot be told"}, each group with its own residual variance (Wald χ²(${alike.df}) = ${formatNumber(alike.chi2)}, ${pStatement(alike.p)}).`); // prettier-ignore
  }
  if (pooled?.p != null) {
    said.push(words`One regression for all, with intercepts of their own: ${pooled.p < level ? "it leaves more unexplained than separate ones" : "separate ones explain no more than chance would"} (${fStatement(pooled.F!, pooled.df, pooled.p)}).`); // prettier-ignore
    if (alike.p !== null && alike.p < level !== pooled.p < level) {
      const s = residualSds(groups);
      said.push(
        `The two do not agree: χ² takes each group's own residual variance, F one for all, and residual SDs go from ${formatNumber(s[0]!)} to ${formatNumber(s.at(-1)!)}.`,
      );
    }
  }
  const s = residualSds(groups);
  if (s.length > 1 && s.at(-1)! ** 2 > UNLIKE * s[0]! ** 2)
    said.push(
      `What is left unexplained differs: residual SDs go from ${formatNumber(s[0]!)} to ${formatNumber(s.at(-1)!)}. A single model with products assumes one for all, so its tests may say otherwise; trust those of the separate fits.`,
    );
  return said;
}

const residualSds = (groups: Compared["groups"]) => groups.flatMap(({ fitted }) => (fitted && !fitted.perfect ? [fitted.s] : [])).sort((a, b) => a - b); // prettier-ignore

function metricSays({ metric, variable }: Groups, { groups, outcome }: Compared, title: Titles): Words[] {
  if (metric !== "own") return [];
  const each = groups.flatMap(({ fitted, levels }) => (fitted ? [`${formatNumber(fitted.sdY)} for ${groupName(levels, variable, title)}`] : [])); // prettier-ignore
  return [
    `By SDs of each group a β mixes slope and spread: where a group is more alike, the same slope in points gives another β. The SD of ${title(outcome)} is ${listed(each)}. SDs of all keep the slopes comparable.`,
  ];
}

function groupsLack({ variable }: Groups, { groups, columns, parts }: Compared, title: Titles): Words[] {
  const name = (g: (typeof groups)[number]) => groupName(g.levels, variable, title);
  const refused = groups.flatMap((g) => (g.refusal ? [`${name(g)} cannot be fitted: ${refusalWords(g.refusal, title).what}`] : []));
  const dropped = groups.flatMap((g) =>
    (g.fitted?.dropped ?? []).map(({ column, reason }) => {
      const what = columnTitle(column, { parts }, title);
      return reason === "constant" ? `${what} does not vary for ${name(g)}, so it has no slope there.` : `For ${name(g)} ${what} is a combination of the other terms, so what depends on it is not told there.`; // prettier-ignore
    }),
  );
  const perfect = groups.filter((g) => g.fitted?.perfect).map(name);
  const unsure = groups.filter((g) => g.fitted?.noErrors != null).map(name);
  const few = groups.filter((g) => g.fitted && g.cases < FEW_A_COLUMN * (columns.length + 1));
  return [
    ...refused,
    ...dropped,
    ...(perfect.length > 0 ? [`For ${listed(perfect)} nothing but rounding is left to explain, so there are no tests.`] : []),
    ...(unsure.length > 0 ? [`For ${listed(unsure)} the standard errors of the ladder are not available.`] : []),
    ...(few.length > 0
      ? [`Few respondents for ${counted(columns.length, "slope")}: ${listed(few.map((g) => `${name(g)} (${formatCount(g.cases)})`))}. Their slopes are uncertain, and what differs from them can hardly be told.`] // prettier-ignore
      : []),
  ];
}

function whoIsNot({ variable, leftOut, together }: Groups, { sample, empty, without, groups, parts }: Compared, title: Titles): Words[] {
  const missing = sample.missingByVariable[variable] ?? 0;
  const level = (value: string) => levelTitle(title, variable, value);
  const there = new Set(groups.flatMap((g) => g.levels));
  const nowhere = together.flat().filter((value) => !there.has(value) && !empty.includes(value));
  const name = title(variable);
  const unmet = sample.leftOut.at(-1)?.unmet ?? [];
  return [
    ...(missing > 0 ? [`${counted(missing, "respondent")} without an answer to ${name} ${missing === 1 ? "is" : "are"} in no group.`] : []),
    ...(empty.length > 0 ? [`Nobody in the sample has ${listed(empty.map(level))}.`] : []),
    ...(leftOut.length > 0 ? [`Not compared: ${listed(leftOut.map(level))}. ${unmet.length > 0 ? `No cell has ${listed(unmet)}. ` : ""}Means and SDs are of those who are.`] : []), // prettier-ignore
    ...(nowhere.length > 0 ? [`No cell of ${name} has ${listed(nowhere)}, which was to be put together with others.`] : []),
    ...(without.length > 0
      ? [`Within a group ${name} does not vary: ${listed(without.map((term) => columnTitle(term, { parts }, title)))} ${without.length === 1 ? "is" : "are"} left out of the step here.`] // prettier-ignore
      : []),
  ];
}

/** The column whose groups differ most surely; null: none can be told. */
export function differsMost(groups: Groups, result: Compared, beside: GroupsBeside, title: Titles): string | null {
  const rows = groupsRows(result, groups.metric, beside, title).filter((row) => row.largest?.z != null);
  return rows.length === 0 ? null : rows.reduce((most, row) => (row.largest!.z! > most.largest!.z! ? row : most)).column;
}
