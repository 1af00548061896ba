import { termIdentity } from "@/core/regression/terms";
import type { Groups } from "@/study/model/groups";
import { activeTerms, type Ladder } from "@/study/model/ladder";
import { MOST_COMPONENTS } from "../ladder-edits";

/** Why a comparison of groups is no single ladder as it stands; null: it is one. */
export function notCrossed(ladder: Ladder, { step, together, leftOut }: Groups): string | null {
  if (together.length > 0) return "As a ladder it would need the joined levels as a variable of its own: cut them under Responses.";
  if (leftOut.length > 0) return "As a ladder it would need the levels that are left out as a filter: make one under Responses.";
  const long = ladder.steps.slice(0, step ?? ladder.steps.length).flatMap(activeTerms).some((term) => term.components.length >= MOST_COMPONENTS); // prettier-ignore
  return long ? `As a ladder its products would have more than ${MOST_COMPONENTS} parts.` : null;
}

/** The ladder that holds the groups and every product with them: the steps up to the compared one, then the groups, then the products. */
export function crossedLadder(ladder: Ladder, { step, variable }: Groups, names: { id: string; name: string; group: string }): Ladder {
  const kept = ladder.steps.slice(0, step ?? ladder.steps.length);
  const there = kept.flatMap(activeTerms);
  const known = new Set(there.map(termIdentity));
  const added = (components: readonly string[]) => {
    const term = { components: [...components], off: false };
    if (known.has(termIdentity(term))) return [];
    known.add(termIdentity(term));
    return [term];
  };
  const group = added([variable]);
  const products = there.filter((term) => !term.components.includes(variable)).flatMap((term) => added([variable, ...term.components]));
  const ids = new Set(kept.map((s) => s.id));
  const free = (id: string): string => (ids.has(id) ? free(`${id}-2`) : id);
  return {
    ...ladder,
    id: names.id,
    name: names.name.slice(0, 200),
    steps: [
      ...kept,
      ...(group.length > 0 ? [{ id: free("groups"), name: names.group, terms: group, off: false }] : []),
      { id: free("products"), name: `By ${names.group}`, terms: products, off: false },
    ],
  };
}
