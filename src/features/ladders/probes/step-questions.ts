import type { LadderFit } from "@/core/regression/ladder";
import { columnKey } from "@/core/regression/terms";
import { Added } from "@/study/model/added";
import { Comparison } from "@/study/model/comparison";
import type { Edit } from "@/study/model/edit";
import { Importance } from "@/study/model/importance";
import { activeTerms, type Ladder } from "@/study/model/ladder";
import { Means } from "@/study/model/means";
import { newId } from "@/study/model/new-id";
import type { Probe } from "@/study/model/probe";
import { Residuals } from "@/study/model/residuals";
import { MOST_CANDIDATES, Search } from "@/study/model/search";
import { Shift } from "@/study/model/shift";
import type { Study } from "@/study/model/study";
import { listed } from "@/study/report/format-number";
import type { Titles } from "@/study/report/level-title";
import { partsTitle } from "@/study/report/ladder/coefficient-words";
import { asked, type Offer, probeOffers } from "./probe-offers";
import { searchCandidates } from "./searched-ladder";

/** Something a step can be asked, in words, and the object that answers it. */
export interface StepQuestion {
  text: string;
  edit: Edit;
  /** A comparison that is then opened: it has a page of its own. */
  comparison?: string;
}

/** What can still be asked of a step of a ladder. @param step from 0 */
export function stepQuestions(study: Study, ladder: Ladder, step: number, fit: LadderFit, title: Titles): StepQuestion[] {
  const last = ladder.steps.length;
  const at = step + 1 === last ? null : step + 1;
  const here = (of: { ladder: string; step: number | null }) => of.ladder === ladder.id && Math.min(of.step ?? last, last) === step + 1;
  const isCategory = (name: string) => study.codebook.some((v) => v.name === name && v.kind === "category");
  const terms = ladder.steps.slice(0, step + 1).flatMap(activeTerms);
  const base = { ladder: ladder.id, step: at };
  const found: StepQuestion[] = [];

  for (const offer of probeOffers(ladder, step, isCategory)) {
    if (study.probes.some((p: Probe) => here(p) && asked(p) === asked(offer))) continue;
    const id = newId(`${offer.focal} by ${offer.moderators.map((m) => m.variable).join(" ")}`, study.probes.map((p) => p.id)); // prettier-ignore
    found.push({
      text: probeText(offer, title, isCategory(offer.focal)),
      edit: { subject: "probe", id, to: { id, ...base, metric: "raw", ...offer } },
    });
  }
  const categories = [...new Set(terms.flatMap((t) => t.components))].filter(isCategory);
  for (const variable of categories) {
    if (study.means.some((m) => m.ladder === ladder.id && m.variable === variable)) continue;
    const id = newId(`means of ${variable}`, study.means.map((m) => m.id)); // prettier-ignore
    found.push({
      text: `What is predicted for each level of ${title(variable)}?`,
      edit: { subject: "means", id, to: Means.parse({ id, ...base, variable }) },
    });
  }
  for (const { key, moved } of shiftChoices(study, ladder, step, fit)) {
    if (moved) found.push({ text: `Why did ${partsTitle(fit.parts.get(key)!, title)} change from step ${step}?`, edit: shiftEdit(study, ladder, step, fit, key) }); // prettier-ignore
  }
  if (terms.length > 0 && !study.residuals.some(here)) {
    const id = newId("residuals", study.residuals.map((one) => one.id)); // prettier-ignore
    found.push({ text: "Can the residuals be trusted?", edit: { subject: "residuals", id, to: Residuals.parse({ id, ...base }) } });
  }
  if (terms.length > 0 && !study.added.some(here)) {
    const id = newId("what each adds", study.added.map((one) => one.id)); // prettier-ignore
    found.push({ text: "What does each term add beside all others?", edit: { subject: "added", id, to: Added.parse({ id, ...base }) } });
  }
  if (terms.length > 1 && !study.importances.some(here)) {
    const id = newId("importance", study.importances.map((i) => i.id)); // prettier-ignore
    found.push({ text: "How much does each term explain?", edit: { subject: "importance", id, to: Importance.parse({ id, ...base }) } });
  }
  if (step > 0) {
    const id = newId(`steps of ${ladder.name}`, study.comparisons.map((one) => one.id)); // prettier-ignore
    const steps = ladder.steps.slice(0, step + 1).map((_, k) => k + 1).slice(-4); // prettier-ignore
    const models = steps.map((k) => ({ name: `${ladder.name}, step ${k}`.slice(-200), ladder: ladder.id, step: k === last ? null : k }));
    const to = Comparison.parse({ id, name: `Steps of ${ladder.name}`.slice(0, 200), models });
    found.push({ text: "How does it compare with the steps before?", edit: { subject: "comparison", id, to }, comparison: id });
  }
  const candidates = searchCandidates(study, ladder, step + 1);
  if (
    candidates.length > 1 &&
    ladder.outcome !== null &&
    !study.searches.some((one) => one.ladder === ladder.id && one.controls === step + 1)
  ) {
    const id = newId("search", study.searches.map((one) => one.id)); // prettier-ignore
    const to = Search.parse({ id, ladder: ladder.id, controls: step + 1, candidates: candidates.slice(0, MOST_CANDIDATES) });
    found.push({ text: "Which further predictors would a search choose?", edit: { subject: "search", id, to } });
  }
  return found;
}

/** Coefficients in a step and the one before of which the change has not been asked, those that moved by more than their standard error first. @param step from 0 */
export function shiftChoices(study: Study, ladder: Ladder, step: number, fit: LadderFit): { key: string; moved: boolean }[] {
  const [before, after] = [fit.steps[step - 1], fit.steps[step]];
  const last = ladder.steps.length;
  const asked = new Set(study.shifts.flatMap((one) => (one.ladder === ladder.id && Math.min(one.step ?? last, last) === step + 1 ? [columnKey(one.column)] : []))); // prettier-ignore
  const moves = (before?.coefficients ?? []).flatMap(({ column, b }) => {
    const now = after?.coefficients.find((c) => c.column === column);
    return now && b.se && !asked.has(column) ? [{ key: column, by: Math.abs(b.estimate - now.b.estimate) / b.se }] : [];
  });
  return moves.sort((a, b) => b.by - a.by).map(({ key, by }) => ({ key, moved: by > 1 })); // prettier-ignore
}

/** The question why a coefficient changed when a step (from 0) entered. */
export function shiftEdit(study: Study, ladder: Ladder, step: number, fit: LadderFit, key: string): Edit {
  const id = newId(`change of ${key}`, study.shifts.map((one) => one.id)); // prettier-ignore
  const at = step + 1 === ladder.steps.length ? null : step + 1;
  return { subject: "shift", id, to: Shift.parse({ id, ladder: ladder.id, step: at, column: fit.parts.get(key) }) };
}

function probeText({ focal, moderators }: Offer, title: Titles, category: boolean): string {
  const names = moderators.map((m) => m.variable);
  if (names.length === 1 && names[0] === focal) return `Where does the slope of ${title(focal)} bend?`;
  return `How does ${category ? "the difference by" : "the slope of"} ${title(focal)} change with ${listed(names.map((name) => title(name)))}?`;
}
