import type { Coefficient } from "@/core/regression/coefficients";
import { decimalsFor, formatInterval, formatNumber, formatPercent, formatShare, fStatement, listed, pStatement } from "../format-number";
import { columnTitle } from "../ladder/coefficient-words";
import type { Titles } from "../level-title";
import { DELTA_R2, joined, R2, SYMBOL, type Words, words } from "../words";
import type { FittedSource } from "./source";

/** So many coefficients are told in a sentence; the rest stand in the table. */
const TOLD = 5;

/** What the steps of a ladder show, as a results section tells it: what each explains and adds, then the coefficients of the last that can be told from zero. */
export function whatTheStepsSay({ ladder, fit }: FittedSource, title: Titles): Words[] {
  const there = fit.steps.flatMap((step, k) => (ladder.steps[k]!.off ? [] : [{ step, k, name: ladder.steps[k]!.name || `step ${k + 1}` }]));
  const outcome = title(fit.outcome);
  const said = there.map(({ step, k, name }): Words => {
    const { model, change, changeInterval } = step;
    const own = ladder.steps[k]!.name === "" ? `Step ${k + 1}` : `Step ${k + 1} (${name})`;
    if (change.df[0] === 0) return `${own} adds no column of its own, so it explains nothing more.`;
    const test = change.F === null ? "" : words`, ${fStatement(change.F, change.df, change.p)}`;
    const first = fit.steps[k - 1] === undefined || fit.steps[k - 1]!.model.p === 0;
    const limits = changeInterval && ladder.intervals.by !== "normal" ? `, ${formatPercent(ladder.confidence)} CI ${formatInterval(changeInterval.lower, changeInterval.upper, (v) => formatShare(v, 3))}` : ""; // prettier-ignore
    if (first) return words`${own} explained ${R2} = ${formatShare(model.R2, 3)} of the variance of ${outcome}${limits}${test}.`;
    const adds = change.p !== null && change.p < 1 - ladder.confidence;
    return words`${own} ${adds ? "added to it" : "did not add to it reliably"}, ${DELTA_R2} = ${formatShare(change.change, 3)}${limits}${test}; ${R2} = ${formatShare(model.R2, 3)}.`; // prettier-ignore
  });
  const last = there.at(-1);
  if (!last) return said;
  const alpha = 1 - ladder.confidence;
  const held = last.step.coefficients.filter((c) => c.b.p !== null && c.b.p < alpha);
  const sorted = held.toSorted((a, b) => Math.abs(b.beta?.estimate ?? 0) - Math.abs(a.beta?.estimate ?? 0));
  const tell = (c: Coefficient): Words => {
    const e = c.beta ?? c.b;
    const print = (v: number | null) => (c.beta ? formatShare(v) : formatNumber(v, decimalsFor(c.b.se)));
    const limits = e.lower === null ? "" : `, ${formatPercent(ladder.confidence)} CI ${formatInterval(e.lower, e.upper, print)}`;
    return words`${columnTitle(c.column, fit, title)} (${c.beta ? "β" : SYMBOL.b} = ${print(e.estimate)}${limits}, ${pStatement(c.b.p)})`;
  };
  const where = there.length > 1 ? `In step ${last.k + 1}` : "There";
  const [higher, lower] = [sorted.slice(0, TOLD).filter((c) => c.b.estimate >= 0), sorted.slice(0, TOLD).filter((c) => c.b.estimate < 0)];
  const row = (all: Coefficient[]): Words =>
    all.length < 2 ? tell(all[0]!) : joined([joined(all.slice(0, -1).map(tell), ", "), " and ", tell(all.at(-1)!)]);
  if (held.length === 0 && last.step.coefficients.length > 0) said.push(`${where} no coefficient could be told from zero.`);
  if (higher.length > 0) said.push(words`${where} ${outcome} was higher with ${row(higher)}.`);
  if (lower.length > 0) said.push(words`${higher.length > 0 ? "It" : `${where} ${outcome}`} was lower with ${row(lower)}.`);
  const rest = last.step.coefficients.filter((c) => !held.includes(c)).map((c) => columnTitle(c.column, fit, title));
  if (held.length > 0 && rest.length > 0 && rest.length <= TOLD) said.push(`${listed(rest)} could not be told from zero.`);
  return said;
}
