import { holm } from "@/core/distributions/holm";
import { type Claim, judge, type Judged } from "@/core/planning/verdict";
import type { Desk } from "../kinds/kind";
import { exploratoryMark } from "../model/exploratory";
import type { Hypothesis } from "../model/hypothesis";
import type { Ladder } from "../model/ladder";
import type { Theory } from "../model/theory";
import { refusalOf, unlessRefused } from "./refusal";
import { announce, correlationFound, type Found, groundOf, restsFound, type Test, type Waits } from "./theory-evidence";

export type { Test, Waits } from "./theory-evidence";

/** How one hypothesis stands, with its evidence. */
export interface Stand extends Omit<Judged, "verdict"> {
  id: string;
  verdict: Judged["verdict"];
  waits: Waits | null;
  /** The estimate with its test. */
  estimate: number | null;
  test: Test | null;
  /** p of its family, where there is one. */
  pHolm: number | null;
  n: number | null;
  step: number | null;
  /** It rests on a ladder that a search has made, on its own respondents. */
  exploratory: boolean;
  /** Smallest effect it was judged by. */
  delta: number;
  /** Where the data do not decide: respondents who would show the smallest effect with a power of .80. */
  would: number | null;
}

export interface TheoryResult {
  status: "told";
  /** In the order of the hypotheses. */
  stands: Stand[];
}

/** Every hypothesis by what it rests on, each ladder fitted once; p of the family corrected together. */
export function analyseTheory(
  { theory, hypotheses, ladders }: { theory: Theory; hypotheses: readonly Hypothesis[]; ladders: readonly Ladder[] },
  desk: Desk,
): TheoryResult {
  const grounds = new Map(ladders.map((ladder) => [ladder.id, groundOf(ladder, theory.alpha, desk)]));
  for (const h of hypotheses) {
    const ground = h.ladder === null ? undefined : grounds.get(h.ladder);
    // what cannot be announced says why where it is judged
    if (ground?.status === "fitted") unlessRefused(() => announce(h, ground));
  }
  const restsOn = (h: Hypothesis): Found | Waits => {
    try {
      if (h.rests.on === "open") return { for: "open" };
      if (h.rests.on === "correlation") return correlationFound(h.rests, desk);
      const ground = h.ladder === null ? undefined : grounds.get(h.ladder);
      if (!ground) return { for: "ladder" };
      return ground.status === "refused" ? { for: "refused", refusal: ground.refusal } : restsFound(h, ground, desk);
    } catch (error) {
      return { for: "refused", refusal: refusalOf(error) };
    }
  };
  const all = hypotheses.map((h) => ({ h, of: restsOn(h) }));
  const told = all.map(({ h, of }) => ("for" in of ? null : judging(of, claimOf(h, theory))));
  const tested = told.flatMap((one, k) => {
    const p = one && hypotheses[k]!.family ? one((value) => value).p : null;
    return p === null ? [] : [{ k, p }];
  });
  const corrected = new Map(holm(tested.map(({ p }) => p)).map((p, at) => [tested[at]!.k, p]));
  const stands = all.map(({ h, of }, k): Stand => {
    const delta = deltaOf(h, theory);
    if ("for" in of) {
      const none = { estimate: null, test: null, pHolm: null, n: null, step: h.step, exploratory: false, would: null };
      return { id: h.id, delta, ...judge(null, claimOf(h, theory)), ...none, waits: of };
    }
    const pHolm = theory.holm ? (corrected.get(k) ?? null) : null;
    const judged = told[k]!(pHolm === null ? (p) => p : () => pHolm);
    const { estimate, test, n, step, exploratoryOf, rowsUsed } = of;
    const waits: Waits | null = judged.verdict !== "not testable yet" ? null : { for: h.claim === "equivalence" && !(delta > 0) ? "smallest-effect" : "test" }; // prettier-ignore
    const exploratory = exploratoryOf !== null && exploratoryMark(exploratoryOf, rowsUsed!)?.kind === "exploratory";
    const would = judged.verdict === "too uncertain to say" ? (of.would?.(delta) ?? null) : null;
    return { id: h.id, delta, ...judged, waits, estimate, test, pHolm, n, step, exploratory, would };
  });
  return { status: "told", stands };
}

/** Its own smallest effect; without one, that of the study where it is told in SDs, and none for what is in other units. */
function deltaOf(h: Hypothesis, theory: Theory): number {
  const { rests } = h;
  const inSds = "metric" in rests ? rests.metric === "beta" : rests.on === "difference" || rests.on === "correlation";
  return h.delta ?? (inSds ? theory.delta : 0);
}

const claimOf = (h: Hypothesis, theory: Theory): Claim => ({ claim: h.claim, direction: h.direction, delta: deltaOf(h, theory), alpha: theory.alpha, before: h.before }); // prettier-ignore

/** How the claim is judged, for any correction of its p. */
function judging({ evidence, fixed }: Found, claim: Claim): (holmed: (p: number) => number) => Judged {
  if (fixed === null) return (holmed) => judge(evidence, claim, holmed);
  const { p, interval } = fixed;
  return (holmed) => ({ verdict: holmed(p) < claim.alpha ? "supported" : "not supported", p, twoSided: p, interval, equivalence: null });
}
