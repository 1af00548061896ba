import type { CodingTable } from "@/core/regression/categories";
import type { Coefficient } from "@/core/regression/coefficients";
import type { LadderFit } from "@/core/regression/ladder";
import type { Part } from "@/core/regression/terms";
import { decimalsFor, formatNumber, formatShare, listed } from "../format-number";
import { levelTitle, type Titles } from "../level-title";

/** What is told of each coefficient: standardized, in raw units, or its share of its own. */
export type Told = "beta" | "b" | "part" | "part2";

/** The words of a study's names, and what a number of each counts: "months"; "" where the codebook does not say. */
export interface Naming {
  title: Titles;
  unit: (name: string) => string;
}

/** `Confidence × Support` for what a column or a term is made of. @param alone true where a heading names the category already: a level by its own words */
export function partsTitle(parts: readonly Part[], title: Titles, alone = false): string {
  const words = ({ variable, level }: Part) => (alone && level !== null ? levelTitle(title, variable, level) : title(variable, level));
  const [first, second] = parts;
  const square = parts.length === 2 && first!.variable === second!.variable && first!.level === second!.level;
  return square ? `${words(first!)} squared` : parts.map(words).join(" × ");
}

/** The same for a column or a term of a fit, by its key. */
export function columnTitle(key: string, { parts }: Pick<LadderFit, "parts">, title: Titles, alone = false): string {
  return partsTitle(parts.get(key) ?? [], title, alone);
}

/** One of a unit: "month" for "months". */
function single(unit: string): string {
  return unit === "" ? "point" : unit.replace(/([^s])s$/, "$1");
}

/** One coefficient as a sentence, in the metric that is shown. */
export function coefficientSentence(c: Coefficient, fit: LadderFit, { title, unit }: Naming, told: Told = "beta"): string {
  if (told === "part" || told === "part2") return shareSentence(c, fit, title);
  if (told === "beta" && c.beta === null) return `${columnTitle(c.column, fit, title)} has no standardized coefficient.`;
  const raw = told === "b";
  const estimate = raw ? c.b : c.beta!;
  const value = estimate.estimate;
  const direction = value < 0 ? "lower" : "higher";
  const number = (v: number) => (raw ? formatNumber(v, decimalsFor(estimate.se)) : formatShare(v));
  const outcome = title(fit.outcome);
  const amount = raw ? `${number(Math.abs(value))} ${unit(fit.outcome) || "points"}` : `${number(Math.abs(value))} SD`;
  const one = (name: string) => (raw ? `One more ${single(unit(name))} of ${title(name)}` : `One SD more of ${title(name)}`);
  const each = (name: string) => (raw ? `each ${single(unit(name))} of ${title(name)}` : `each SD of ${title(name)}`);
  const others = `${whereItHolds(c, fit, title, raw)}the others held constant`;
  const parts = fit.parts.get(c.column)!.map((part) => ({ ...part, name: part.variable, table: tableOf(fit, part) }));
  const [first, second] = parts;
  if (parts.length === 1 && first!.table) {
    return `${title(first!.variable, first!.level)} goes with ${amount} ${direction} ${outcome} than ${against(first!.table, title)}, ${others}.`;
  }
  if (parts.length === 1) return `${one(first!.variable)} goes with ${amount} ${direction} ${outcome}, ${others}.`;
  const [numeric, level] = first!.table ? [second!, first!] : [first!, second!];
  if (parts.length === 2 && !numeric.table && level.table) {
    return `The slope of ${title(numeric.name)} is ${number(Math.abs(value))} ${raw ? "" : "SD "}${direction} with ${title(level.variable, level.level)} than with ${against(level.table, title)}.`;
  }
  if (parts.some((part) => part.table) || parts.length > 2) {
    return `${columnTitle(c.column, fit, title)}: ${amount} ${direction} ${outcome} than its parts add up to.`;
  }
  return `${columnTitle(c.column, fit, title)}: the slope of ${title(first!.name)} changes by ${number(value)}${raw ? "" : " SD"} for ${each(second!.name)}.`;
}

function shareSentence(c: Coefficient, fit: LadderFit, title: Titles): string {
  const share = formatShare(c.part ** 2 * 100, 1).replace(/^\./, "0.");
  return `${columnTitle(c.column, fit, title)} by itself, beyond all the others, goes with ${share} % of the variance of ${title(fit.outcome)} (part correlation ${formatShare(c.part)}).`;
}

/**
 * Beside a product a coefficient speaks of the place where the other component is zero: its mean, or the reference level.
 * @param raw in raw units, where a variable that is not centred has its zero at 0
 * @returns "at the mean of Support, ", or nothing for a term that is in no product of its step
 */
export function whereItHolds(c: Coefficient, fit: LadderFit, title: Titles, raw = false): string {
  const step = fit.steps.find((s) => s.coefficients.includes(c));
  const own = fit.parts.get(c.term)!;
  const partners = (step?.terms ?? []).flatMap(({ term }) => {
    const names = fit.parts.get(term)!.map((part) => part.variable);
    const at = own.length === 1 ? names.indexOf(own[0]!.variable) : -1;
    return names.length > 1 && at >= 0 ? names.toSpliced(at, 1) : [];
  });
  const places = [...new Set(partners)].map((name) => {
    const table = fit.tables.find((t) => t.variable === name);
    if (!table && raw && !fit.codings.some((coding) => coding.variable === name)) return `where ${title(name)} is 0`;
    if (!table) return name === own[0]!.variable ? "at its mean" : `at the mean of ${title(name)}`;
    return table.coding === "deviation" ? `averaged over ${title(name)}` : `with ${against(table, title)}`;
  });
  return places.length === 0 ? "" : `${listed(places)}, `;
}

/** The coding of the category that a part belongs to; null for a numeric variable. */
function tableOf(fit: LadderFit, { variable, level }: Part): CodingTable | null {
  return level === null ? null : (fit.tables.find((t) => t.variable === variable) ?? null);
}

/** What a level's coefficient is compared with. */
function against(table: CodingTable, title: Titles): string {
  return table.coding === "deviation" ? "the mean of all levels" : title(table.variable, table.reference);
}
