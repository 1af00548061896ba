import type { LadderFit } from "@/core/regression/ladder";
import type { Part } from "@/core/regression/terms";
import type { Edit } from "@/study/model/edit";
import { ColumnParts } from "@/study/model/column-parts";
import { hasDirection, Hypothesis, MOST_CHANGES, numberKey, type RestsOn, TESTED, type Tested } from "@/study/model/hypothesis";
import { activeTerms, type Ladder } from "@/study/model/ladder";
import { newId } from "@/study/model/new-id";
import type { Study } from "@/study/model/study";
import { THEORY, Theory } from "@/study/model/theory";

/**
 * Whether the result of a hypothesis has been looked at before it says this: its ladder, or for a correlation a look, or the same number in the verdict of any.
 * @param looked keys of what was looked at, by kind and id @param shown ids of the hypotheses whose estimates are on the page
 */
export function seenBefore(
  h: Pick<Hypothesis, "ladder" | "step" | "rests">,
  study: Pick<Study, "ladders" | "hypotheses">,
  looked: readonly string[],
  shown: ReadonlySet<string>,
): boolean {
  const stepsOf = (id: string | null) => study.ladders.find((l) => l.id === id)?.steps.length ?? Infinity;
  const own = numberKey(h, stepsOf(h.ladder));
  if (own !== null && study.hypotheses.some((o) => shown.has(o.id) && numberKey(o, stepsOf(o.ladder)) === own)) return true;
  const correlated = h.rests.on === "correlation";
  return looked.some((key) => (correlated ? key.startsWith("first-look ") : h.ladder !== null && key === `ladder ${h.ladder}`));
}

/** The edits that make a hypothesis, with the study's level and family where there are none yet. @param now ISO date */
export function newHypothesis(study: Study, own: Partial<Hypothesis>, seen: boolean, now: string): { id: string; edits: Edit[] } {
  const id = newId(`h${study.hypotheses.length + 1}`, study.hypotheses.map((h) => h.id)); // prettier-ignore
  const to = Hypothesis.parse({ ...own, id, before: !seen, since: now });
  const level: Edit[] = study.theories.length > 0 ? [] : [{ subject: "theory", id: THEORY, to: Theory.parse({ id: THEORY }) }];
  return { id, edits: [...level, { subject: "hypothesis", id, to }] };
}

/**
 * The same hypothesis with something changed: of what decides what is tested, the day is kept, and after its result was seen what it said before.
 * @param seen its result was looked at before @param now ISO date
 */
export function changed(h: Hypothesis, to: Partial<Hypothesis>, seen: boolean, now: string): Hypothesis {
  const next = { ...h, ...to };
  // what cannot lie on one side is tested against nothing
  if (!hasDirection(next.rests)) Object.assign(next, { claim: "effect", direction: "none" });
  if (TESTED.every((key) => JSON.stringify(h[key]) === JSON.stringify(next[key]))) return next;
  const said = h.rests.on !== "open" && seen;
  const was = Object.fromEntries(TESTED.map((key) => [key, h[key]])) as Tested;
  const changes = said ? [...h.changes, { at: now, was }] : h.changes;
  const kept = changes.length > MOST_CHANGES ? [changes[0]!, ...changes.slice(2)] : changes;
  return { ...next, before: !seen, since: now, changes: kept };
}

/** One place further up (−1) or down (1), as one change. */
export function moved(hypotheses: readonly Hypothesis[], at: number, by: -1 | 1): Edit[] {
  const to = at + by;
  if (to < 0 || to >= hypotheses.length) return [];
  const h = hypotheses[at]!;
  return [
    { subject: "hypothesis", id: h.id, to: null },
    { subject: "hypothesis", id: h.id, to: h, at: to },
  ];
}

/** Columns of a ladder up to a step that a hypothesis can rest on: from its fit, or from its terms where there is none. */
export function testableColumns(ladder: Ladder, step: number, fit: LadderFit | null): readonly (readonly Part[])[] {
  if (fit) return (fit.steps[step - 1]?.coefficients ?? []).map((c) => fit.parts.get(c.column)!);
  return ladder.steps.slice(0, step).flatMap(activeTerms).map(({ components }) => components.map((variable) => ({ variable, level: null }))); // prettier-ignore
}

/** A coefficient as what a hypothesis rests on. */
export const restsOnColumn = (parts: readonly Part[]) => ({
  on: "coefficient" as const,
  column: ColumnParts.parse(parts),
  metric: "beta" as const,
});

/** What a hypothesis of some kind rests on at first: the first that there is. Null: there is nothing of the kind. */
export function firstOf(kind: RestsOn["on"], columns: readonly (readonly Part[])[], of: RestsParts): RestsOn | null {
  const [first, second] = columns.filter((parts) => parts.length === 1);
  const [product] = of.products;
  switch (kind) {
    case "coefficient":
      return first ? restsOnColumn(first) : null;
    case "difference":
      return first && second ? { on: kind, first: ColumnParts.parse(first), second: ColumnParts.parse(second) } : null;
    case "slope": {
      if (!product) return null;
      const levels = of.levels.get(product.moderator);
      return { on: kind, focal: product.focal, moderator: product.moderator, at: levels ? { level: levels[0]! } : { place: "high" }, metric: "beta" }; // prettier-ignore
    }
    case "region": {
      const along = of.products.find(({ moderator }) => !of.levels.has(moderator));
      return along ? { on: kind, focal: along.focal, moderator: along.moderator, from: null, to: null, metric: "beta" } : null;
    }
    case "groups": {
      const [variable] = of.groupings;
      const levels = variable === undefined ? undefined : of.levels.get(variable);
      const column = columns.find((parts) => parts.every((part) => part.variable !== variable));
      if (variable === undefined || !levels || !column) return null;
      const [a, b] = levels;
      return { on: kind, variable, column: ColumnParts.parse(column), first: a!, second: b!, metric: "beta" };
    }
    case "means": {
      const category = of.categories.find((name) => (of.levels.get(name)?.length ?? 0) > 1);
      const [a, b] = category === undefined ? [] : of.levels.get(category)!;
      return category === undefined ? null : { on: kind, variable: category, first: a!, second: b! };
    }
    case "correlation": {
      const [x, y] = of.numbers;
      return x !== undefined && y !== undefined ? { on: kind, x, y, respondents: null } : null;
    }
    case "indirect": {
      const [from, through] = of.singles;
      return from !== undefined && through !== undefined ? { on: kind, from, through } : null;
    }
    default:
      return { on: kind };
  }
}

/** What there is to rest on. */
export interface RestsParts {
  /** Every predictor of a product with each of the others, both ways; a category by each level but the reference. */
  products: { focal: Part; moderator: string }[];
  /** Levels of every category that is asked about, as written in the file. */
  levels: ReadonlyMap<string, readonly string[]>;
  /** Categories of the step, and those of the codebook that can make groups. */
  categories: string[];
  groupings: string[];
  /** Numbers of the study: of correlations. */
  numbers: string[];
  /** Predictors of the step that stand alone. */
  singles: string[];
}

/** @param columns of the step @param fit of the ladder, which knows the levels that somebody has; null: those of the codebook serve */
export function restsParts(
  study: Pick<Study, "codebook" | "scales">,
  columns: readonly (readonly Part[])[],
  fit: LadderFit | null,
): RestsParts {
  const told = study.codebook.filter((v) => v.kind === "category").map((v) => [v.name, v.levels.map(({ value }) => value)] as const);
  const had = (fit?.tables ?? []).map((t) => [t.variable, t.levels.map(({ level }) => level)] as const);
  const levels = new Map<string, readonly string[]>([...told, ...had].filter(([, all]) => all.length > 1));
  const products = columns
    .filter((parts) => parts.length > 1)
    .flatMap(
      (parts) =>
      parts.flatMap((focal, i) => parts.flatMap((other, k) => (i === k ? [] : [{ focal: { variable: focal.variable, level: focal.level }, moderator: other.variable }]))), // prettier-ignore
    );
  const distinct = [...new Map(products.map((one) => [JSON.stringify(one), one])).values()];
  const singles = [...new Set(columns.filter((parts) => parts.length === 1).map(([part]) => part!.variable))];
  const numbers = [...study.scales.map((s) => s.id), ...study.codebook.filter((v) => v.kind === "number" || v.kind === "item").map((v) => v.name)]; // prettier-ignore
  return { products: distinct, levels, categories: singles.filter((name) => levels.has(name)), groupings: [...levels.keys()], numbers, singles }; // prettier-ignore
}
