import { termName } from "@/core/regression/terms";
import { activeTerms, type Ladder } from "../../model/ladder";

/** Where a term stands in the ladder, by its name: its step from 1 and its components. Null when it takes no part. */
export function placeOf(ladder: Pick<Ladder, "steps">, term: string): { step: number; components: string[] } | null {
  for (const [k, step] of ladder.steps.entries()) {
    const found = activeTerms(step).find((t) => termName(t) === term);
    if (found) return { step: k + 1, components: found.components };
  }
  return null;
}

/** The same as what a remedy would be done to; none when the term takes no part. */
export function fixesAt<Kind extends "remove-term" | "switch-off">(
  kind: Kind,
  ladder: Pick<Ladder, "steps">,
  term: string,
): { do: Kind; step: number; components: string[] }[] {
  const place = placeOf(ladder, term);
  return place ? [{ do: kind, ...place }] : [];
}
