import { type Term, termIdentity } from "@/core/regression/terms";
import { type CategoryCoding, type Ladder, type LadderStep, LadderStep as LadderStepSchema, type LadderTerm } from "@/study/model/ladder";

/** A term in its place: the step it stands in (from 0), and which. */
export interface PlacedTerm {
  step: number;
  components: readonly string[];
}

/** Products have at most so many components. */
export const MOST_COMPONENTS = 4;

const same = (a: Term, b: Term) => termIdentity(a) === termIdentity(b);

function changeStep(ladder: Ladder, at: number, change: (step: LadderStep) => LadderStep): Ladder {
  return { ...ladder, steps: ladder.steps.map((step, k) => (k === at ? change(step) : step)) };
}

function changeTerm(ladder: Ladder, { step, components }: PlacedTerm, change: (term: LadderTerm) => LadderTerm): Ladder {
  return changeStep(ladder, step, (s) => ({ ...s, terms: s.terms.map((t) => (same(t, { components }) ? change(t) : t)) }));
}

/**
 * Adds a term to a step (from 0); one that stands in the ladder already moves there. A twin that is switched off elsewhere stays:
 * it belongs to another way of writing the ladder.
 * @param place before which term of the step, from 0; the end if left out
 */
export function addTerm(ladder: Ladder, at: number, components: readonly string[], place = Infinity): Ladder {
  const term: LadderTerm = { components: [...components], off: false };
  const own = ladder.steps[at]!.terms.findIndex((t) => same(t, term));
  const steps = ladder.steps.map((s, k) => ({ ...s, terms: s.terms.filter((t) => !same(t, term) || (k !== at && (t.off || s.off))) }));
  const to = own >= 0 && own < place ? place - 1 : place;
  return changeStep({ ...ladder, steps }, at, (step) => ({ ...step, terms: step.terms.toSpliced(to, 0, term) }));
}

/** Moves a term to a step and a place in it; whether it is switched off goes with it. */
export function moveTerm(ladder: Ladder, from: PlacedTerm, to: number, place = Infinity): Ladder {
  const moved = ladder.steps[from.step]!.terms.find((t) => same(t, from));
  if (!moved) return ladder;
  const own = from.step === to ? ladder.steps[to]!.terms.indexOf(moved) : -1;
  const without = changeStep(removeTerm(ladder, from.step, from), to, (step) => ({
    ...step,
    terms: step.terms.filter((t) => !same(t, moved)),
  }));
  const at = own >= 0 && own < place ? place - 1 : place;
  const placed = changeStep(without, to, (step) => ({ ...step, terms: step.terms.toSpliced(at, 0, moved) }));
  // out of a step that was off it may come where it counts: then its twins do not
  return moved.off || placed.steps[to]!.off ? placed : withoutTwins(placed, to, [moved]);
}

/** Takes a term out of a step. */
export function removeTerm(ladder: Ladder, at: number, term: Term): Ladder {
  return changeStep(ladder, at, (step) => ({ ...step, terms: step.terms.filter((t) => !same(t, term)) }));
}

/** Puts another term in the place of one. */
export function replaceTerm(ladder: Ladder, at: number, from: Term, components: readonly string[]): Ladder {
  const place = ladder.steps[at]!.terms.findIndex((t) => same(t, from));
  return addTerm(removeTerm(ladder, at, from), at, components, place < 0 ? Infinity : place);
}

/** Switches a term off, or on again: then its twins in other steps go off, since a term counts once. */
export function switchTerm(ladder: Ladder, at: PlacedTerm): Ladder {
  const term = ladder.steps[at.step]!.terms.find((t) => same(t, at));
  if (!term) return ladder;
  if (!term.off) return changeTerm(ladder, at, (t) => ({ ...t, off: true }));
  return changeTerm(withoutTwins(ladder, at.step, [term]), at, (t) => ({ ...t, off: false }));
}

/** Switches a step off, or on again: then the twins of its terms in other steps go off. */
export function switchStep(ladder: Ladder, at: number): Ladder {
  const step = ladder.steps[at]!;
  if (!step.off) return changeStep(ladder, at, (s) => ({ ...s, off: true }));
  const coming = step.terms.filter((t) => !t.off);
  return changeStep(withoutTwins(ladder, at, coming), at, (s) => ({ ...s, off: false }));
}

function withoutTwins(ladder: Ladder, at: number, coming: readonly Term[]): Ladder {
  const steps = ladder.steps.map((step, k) =>
    k === at ? step : { ...step, terms: step.terms.map((t) => (coming.some((c) => same(c, t)) ? { ...t, off: true } : t)) },
  );
  return { ...ladder, steps };
}

/** Names a step. */
export function nameStep(ladder: Ladder, at: number, name: string): Ladder {
  return changeStep(ladder, at, (step) => ({ ...step, name }));
}

/** Adds an empty step at the end. */
export function addStep(ladder: Ladder): Ladder {
  return { ...ladder, steps: [...ladder.steps, LadderStepSchema.parse({ id: freshId(ladder) })] };
}

/** Takes a step with its terms out. The last step stays. */
export function removeStep(ladder: Ladder, at: number): Ladder {
  return ladder.steps.length === 1 ? ladder : { ...ladder, steps: ladder.steps.toSpliced(at, 1) };
}

/** Moves a step to another place among the steps, from 0. */
export function moveStep(ladder: Ladder, from: number, to: number): Ladder {
  const within = Math.max(0, Math.min(ladder.steps.length - 1, to));
  const steps = ladder.steps.toSpliced(from, 1).toSpliced(within, 0, ladder.steps[from]!);
  return { ...ladder, steps };
}

/** A copy of a step right below it, switched off: another version to change, and to switch on in place of the first. */
export function copyStep(ladder: Ladder, at: number): Ladder {
  const step = ladder.steps[at]!;
  const name = `${step.name || `Step ${at + 1}`}, copy`.slice(0, 200);
  return { ...ladder, steps: ladder.steps.toSpliced(at + 1, 0, { ...step, id: freshId(ladder), name, off: true }) };
}

/**
 * The product of terms, in the step after the last of them: a step that is there, or a new one. One term is multiplied with itself.
 * Null when the product would have too many components.
 */
export function multiply(ladder: Ladder, terms: readonly PlacedTerm[]): Ladder | null {
  const components = terms.flatMap((t) => t.components);
  const product = terms.length === 1 ? [...components, ...components] : components;
  if (product.length > MOST_COMPONENTS) return null;
  const after = Math.max(...terms.map((t) => t.step)) + 1;
  return addTerm(after < ladder.steps.length ? ladder : addStep(ladder), after, product);
}

/** How a category is coded, wherever it stands in the ladder. */
export function codeCategory(ladder: Ladder, coding: CategoryCoding): Ladder {
  const others = ladder.categories.filter((c) => c.variable !== coding.variable);
  const plain = coding.coding === "indicator" && coding.reference === null;
  return { ...ladder, categories: plain ? others : [...others, coding] };
}

/** The same ladder for another outcome, which is no longer among its predictors. */
export function copyLadder(ladder: Ladder, to: { id: string; name: string; outcome: string | null }): Ladder {
  const steps = ladder.steps.map((step) => ({
    ...step,
    terms: step.terms.filter((t) => to.outcome === null || !t.components.includes(to.outcome)),
  }));
  return { ...ladder, ...to, steps };
}

function freshId(ladder: Ladder): string {
  const taken = ladder.steps.map((step) => step.id);
  let k = ladder.steps.length + 1;
  while (taken.includes(`step_${k}`)) k++;
  return `step_${k}`;
}
