import { activeTerms, type Ladder } from "@/study/model/ladder";
import { Look, MOST_LOOKED_AT } from "@/study/model/look";
import type { Study } from "@/study/model/study";

/** So many numbers at most where a study has no scales yet. */
const MOST_NUMBERS = 12;

/** The look that is there before anybody has made one: scales and outcomes, or the first numbers. */
export function defaultLook(study: Pick<Study, "scales" | "ladders" | "codebook">): Look {
  const outcomes = study.ladders.flatMap((l) => (l.outcome === null ? [] : [l.outcome]));
  const named = [...new Set([...study.scales.map((s) => s.id), ...outcomes])];
  const numbers = study.codebook.filter((v) => v.kind === "number" || v.kind === "item").map((v) => v.name);
  const variables = named.length > 1 ? named.slice(0, MOST_LOOKED_AT) : [...new Set([...named, ...numbers])].slice(0, MOST_NUMBERS);
  return Look.parse({ id: "first", name: "First look", variables });
}

/** Everything a ladder names as a number or category: outcome first. */
export function namesOfLadder(ladder: Ladder): string[] {
  const terms = ladder.steps.flatMap(activeTerms).flatMap((t) => t.components);
  return [...new Set([...(ladder.outcome === null ? [] : [ladder.outcome]), ...terms])].slice(0, MOST_LOOKED_AT);
}
