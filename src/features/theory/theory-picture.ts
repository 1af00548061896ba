import type { Stand } from "@/study/analyse/analyse-theory";
import { codesOf, type Hypothesis } from "@/study/model/hypothesis";
import { activeTerms, type Ladder } from "@/study/model/ladder";
import type { Titles } from "@/study/report/level-title";
import type { Claimed, TheoryPicture } from "@/ui/charts/layout-theory";

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
  for (const h of own) {
    if (h.rests.on !== "coefficient") continue;
    const [first, second] = h.rests.column;
    if (!second) threads.get(first!.variable)?.claims.push(claim(h));
    else if (second.variable !== first!.variable)
      wedges.push({ from: second.variable, on: first!.variable, opens: h.direction === "none" ? null : h.direction === "+", claim: claim(h) }); // prettier-ignore
  }
  const steps = ladder.steps.map((step, k) => {
    const adds = own.find((h) => h.rests.on === "change" && Math.min(h.step ?? last, last) === k + 1);
    return { name: `Step ${k + 1}${step.name === "" ? "" : `, ${step.name}`}`, claim: adds ? claim(adds) : null };
  });
  return { outcome: ladder.outcome === null ? "the outcome" : title(ladder.outcome), steps, threads: [...threads.values()], wedges };
}
