import type { Stand } from "../../analyse/analyse-theory";
import { codesOf, type Hypothesis } from "../../model/hypothesis";
import { activeTerms, type Ladder } from "../../model/ladder";
import { partsTitle } from "../ladder/coefficient-words";
import { levelTitle, type Titles } from "../level-title";
import { heldWords, rangeWords } from "./hypothesis-words";

/** A predictor of the picture: a thread to the outcome. */
export interface Thread {
  key: string;
  name: string;
  /** Step in which it enters, from 0. */
  step: number;
}

/** What is claimed of a thread, or of one that acts on another. */
export interface Claimed {
  code: string;
  /** `+`, `−`, `0`, or nothing. */
  sign: string;
  verdict: string;
  /** Where or against what, where that is not all of it: `Tutor support high`. */
  where: string;
}

export interface TheoryPicture {
  outcome: string;
  steps: { name: string; claim: Claimed | null }[];
  threads: (Thread & { claims: Claimed[] })[];
  /** A moderator that acts on a relation: opens where it strengthens, closes where it weakens. */
  wedges: { from: string; on: string; opens: boolean | null; claim: Claimed }[];
  /** One β against another: two threads tied. */
  ties: { first: string; second: string; claim: Claimed }[];
}

const SIGNS = { "+": "+", "-": "−", none: "" } as const;

/** The picture of what is claimed in one ladder, drawn from the hypotheses alone. */
export function theoryPicture(
  ladder: Ladder,
  hypotheses: readonly Hypothesis[],
  stands: ReadonlyMap<string, Stand>,
  title: Titles,
): TheoryPicture {
  const codes = codesOf(hypotheses);
  const claim = (h: Hypothesis): Claimed => ({
    code: codes[hypotheses.indexOf(h)]!,
    sign: h.claim === "equivalence" ? "0" : SIGNS[h.direction],
    verdict: stands.get(h.id)?.verdict ?? "not testable yet",
    where: whereWords(h, title),
  });
  const own = hypotheses.filter((h) => h.ladder === ladder.id);
  const last = ladder.steps.length;
  const threads = new Map<string, TheoryPicture["threads"][number]>();
  ladder.steps.forEach((step, k) =>
    activeTerms(step).forEach(({ components }) =>
      components.forEach((name) => threads.has(name) || threads.set(name, { key: name, name: title(name), step: k, claims: [] })),
    ),
  );
  const wedges: TheoryPicture["wedges"] = [];
  const ties: TheoryPicture["ties"] = [];
  for (const h of own) {
    const product = h.rests.on === "coefficient" ? h.rests.column : [];
    const [first, second] = product;
    if (second && second.variable !== first!.variable)
      wedges.push({ from: second.variable, on: first!.variable, opens: h.direction === "none" ? null : h.direction === "+", claim: claim(h) }); // prettier-ignore
    else threads.get(threadOf(h) ?? "")?.claims.push(claim(h));
    if (h.rests.on === "difference") ties.push({ first: h.rests.first[0]!.variable, second: h.rests.second[0]!.variable, claim: claim(h) });
  }
  const steps = ladder.steps.map((step, k) => {
    const adds = own.find((h) => h.rests.on === "change" && Math.min(h.step ?? last, last) === k + 1);
    return { name: `Step ${k + 1}${step.name === "" ? "" : `, ${step.name}`}`, claim: adds ? claim(adds) : null };
  });
  return { outcome: ladder.outcome === null ? "the outcome" : title(ladder.outcome), steps, threads: [...threads.values()], wedges, ties };
}

/** The predictor whose thread a claim stands at the end of; null: it is of none. */
function threadOf({ rests }: Hypothesis): string | null {
  switch (rests.on) {
    case "coefficient":
    case "groups":
      return rests.column[0]!.variable;
    case "difference":
      return rests.first[0]!.variable;
    case "slope":
    case "region":
      return rests.focal.variable;
    case "means":
      return rests.variable;
    case "indirect":
      return rests.from;
    default:
      return null;
  }
}

/** What is said besides sign and verdict of a claim at the end of its thread. */
function whereWords({ rests }: Hypothesis, title: Titles): string {
  switch (rests.on) {
    case "coefficient": {
      const [only] = rests.column;
      return rests.column.length === 1 && only!.level !== null ? levelTitle(title, only!.variable, only!.level) : "";
    }
    case "difference":
      return `against ${partsTitle(rests.second, title)}`;
    case "slope":
      return `${title(rests.moderator)} ${heldWords(rests.at, rests.moderator, title)}`;
    case "region":
      return `${title(rests.moderator)} ${rangeWords(rests)}`;
    case "groups":
      return rests.first === null || rests.second === null
        ? `over the groups of ${title(rests.variable)}`
        : `${levelTitle(title, rests.variable, rests.first)} − ${levelTitle(title, rests.variable, rests.second)}`;
    case "means":
      return `${levelTitle(title, rests.variable, rests.first)} − ${levelTitle(title, rests.variable, rests.second)}`;
    case "indirect":
      return `through ${title(rests.through)}`;
    default:
      return "";
  }
}
