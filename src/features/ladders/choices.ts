import { everyone } from "@/study/report/sample-words";
import { searchWords } from "@/study/model/variable";
import { type Term, termIdentity } from "@/core/regression/terms";
import { type CaseFilter, type Ladder, ladderNames } from "@/study/model/ladder";
import { categoryChoices, type Names, numericChoices } from "@/features/study/name-choices";
import { type Study, titleOf } from "@/study/model/study";
import type { Choice } from "@/ui/parts/choice";

/** A choice with the number of the study's ladders that stand on it. */
export interface UsedChoice extends Choice {
  uses: number;
}

/** Puts the choices that most ladders stand on first; those of equal use stay in order. */
function byUse(study: Pick<Study, "ladders">, choices: readonly Choice[], nameOf: (choice: Choice) => string): UsedChoice[] {
  const names = study.ladders.map((l) => new Set(ladderNames(l)));
  const uses = (name: string) => names.filter((all) => all.has(name)).length;
  return choices.map((choice) => ({ ...choice, uses: uses(nameOf(choice)) })).sort((a, b) => b.uses - a.uses);
}

/** Every variable and scale that the ladder does not have yet, the most used in the study first. */
export function namesByUse(study: Names & Pick<Study, "ladders">, ladder: Ladder): UsedChoice[] {
  const present = new Set(ladder.steps.flatMap((s) => s.terms.map(termIdentity)));
  const all = [...numericChoices(study, new Set(ladder.outcome === null ? [] : [ladder.outcome])), ...categoryChoices(study)];
  const order = ["Scales", "Numbers", "Categories", "Items"];
  const sorted = all
    .filter((c) => !present.has(termIdentity({ components: [c.value] })))
    .sort((a, b) => order.indexOf(a.group ?? "") - order.indexOf(b.group ?? ""));
  return byUse(study, sorted, (c) => c.value);
}

/** A term as a choice's value, and back. */
export const termValue = (components: readonly string[]) => JSON.stringify(components);
export const termOf = (value: string) => JSON.parse(value) as string[];

/** What a step can take: variables not in the ladder yet, then products of those that are. */
export function termChoices(study: Names & Pick<Study, "ladders">, ladder: Ladder): Choice[] {
  const present = new Set(ladder.steps.flatMap((s) => s.terms.map(termIdentity)));
  const fresh = (term: Term) => !present.has(termIdentity(term));
  const singles = [...numericChoices(study, new Set(ladder.outcome === null ? [] : [ladder.outcome])), ...categoryChoices(study)]
    .filter((c) => fresh({ components: [c.value] }))
    .map((c) => ({ ...c, value: termValue([c.value]) }));
  const inLadder = [...new Set(ladder.steps.flatMap((s) => s.terms.filter((t) => t.components.length === 1).map((t) => t.components[0]!)))];
  const categories = new Set(categoryChoices(study).map((c) => c.value));
  const pairs = inLadder.flatMap((a, i) => inLadder.slice(i + 1).map((b) => [a, b]));
  const products = [...pairs, ...inLadder.filter((a) => !categories.has(a)).map((a) => [a, a])]
    .filter((components) => fresh({ components }))
    .map((components) => ({
      value: termValue(components),
      group: "Products",
      label:
        components[0] === components[1]
          ? `${titleOf(study, components[0]!)} squared`
          : components.map((c) => titleOf(study, c)).join(" × "),
    }));
  // within each group the most used first
  const groups = [...new Set(singles.map((c) => c.group))];
  return [
    ...products,
    ...groups.flatMap((group) =>
      byUse(
        study,
        singles.filter((c) => c.group === group),
        (c) => termOf(c.value)[0]!,
      ),
    ),
  ];
}

const EVERYONE = "everyone";

/** Who is in: everyone, whom a filter of the study keeps, or the respondents with one value of a category. */
export function filterChoices(study: Names): Choice[] {
  const named = study.filters
    .filter((f) => !f.everywhere)
    .map((f) => ({ value: `${NAMED}${f.id}`, label: f.name, search: f.reason, group: "Filters" }));
  const levels = study.codebook
    .filter((v) => v.kind === "category")
    .flatMap((v) =>
      v.levels.map((level) => ({
        value: filterValue({ variable: v.name, equals: [level.value] }),
        label: `${titleOf(study, v.name)}: ${level.label || level.value}`,
        search: searchWords(v),
        group: titleOf(study, v.name),
      })),
    );
  return [{ value: EVERYONE, label: everyone(study) }, ...named, ...levels];
}

const NAMED = "filter ";

export function filterValue(filter: CaseFilter | null, respondents: string | null = null): string {
  if (respondents !== null) return `${NAMED}${respondents}`;
  return filter ? JSON.stringify([filter.variable, ...filter.equals]) : EVERYONE;
}

export function filterOf(value: string): Pick<Ladder, "filter" | "respondents"> {
  if (value.startsWith(NAMED)) return { filter: null, respondents: value.slice(NAMED.length) };
  if (value === EVERYONE) return { filter: null, respondents: null };
  const [variable, ...equals] = JSON.parse(value) as [string, ...string[]];
  return { filter: { variable, equals }, respondents: null };
}
