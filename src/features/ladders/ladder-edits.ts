import { type Term, termIdentity } from "@/core/regression/terms";
import type { Ladder, LadderStep } from "@/study/model/ladder";

function changeStep(ladder: Ladder, at: number, change: (step: LadderStep) => LadderStep): Ladder {
  return { ...ladder, steps: ladder.steps.map((step, k) => (k === at ? change(step) : step)) };
}

/** Adds a term to a step (from 0); a term that stands in the ladder already moves there. */
export function addTerm(ladder: Ladder, at: number, components: readonly string[]): Ladder {
  const term: Term = { components };
  const cleared = {
    ...ladder,
    steps: ladder.steps.map((s) => ({ ...s, terms: s.terms.filter((t) => termIdentity(t) !== termIdentity(term)) })),
  };
  return changeStep(cleared, at, (step) => ({ ...step, terms: [...step.terms, { components: [...components] }] }));
}

/** Takes a term out of a step. */
export function removeTerm(ladder: Ladder, at: number, term: Term): Ladder {
  return changeStep(ladder, at, (step) => ({ ...step, terms: step.terms.filter((t) => termIdentity(t) !== termIdentity(term)) }));
}

/** Names a step. */
export function nameStep(ladder: Ladder, at: number, name: string): Ladder {
  return changeStep(ladder, at, (step) => ({ ...step, name }));
}

/** Adds an empty step at the end. */
export function addStep(ladder: Ladder): Ladder {
  const taken = ladder.steps.map((step) => step.id);
  let k = ladder.steps.length + 1;
  while (taken.includes(`step_${k}`)) k++;
  return { ...ladder, steps: [...ladder.steps, { id: `step_${k}`, name: "", terms: [] }] };
}

/** Takes a step with its terms out. The last step stays. */
export function removeStep(ladder: Ladder, at: number): Ladder {
  return ladder.steps.length === 1 ? ladder : { ...ladder, steps: ladder.steps.filter((_, k) => k !== at) };
}
