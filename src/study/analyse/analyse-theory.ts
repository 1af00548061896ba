import { holm } from "@/core/distributions/holm";
import { judge, type Judged, normalTheory } from "@/core/planning/verdict";
import { ladderTables, type LadderFit } from "@/core/regression/ladder";
import { columnKey } from "@/core/regression/terms";
import type { Desk } from "../kinds/kind";
import { exploratoryMark } from "../model/exploratory";
import type { Hypothesis } from "../model/hypothesis";
import type { Ladder } from "../model/ladder";
import type { Theory } from "../model/theory";
import { fitLadderOf } from "./analyse-ladder";
import type { Refusal } from "./refusal";

/** Why a hypothesis waits. */
export type Waits =
  | { for: "ladder" }
  | { for: "open" }
  | { for: "step"; step: number }
  | { for: "coefficient" }
  | { for: "smallest-effect" }
  | { for: "test" }
  | { for: "refused"; refusal: Refusal };

/** How one hypothesis stands, with its evidence. */
export interface Stand extends Omit<Judged, "verdict"> {
  id: string;
  verdict: Judged["verdict"];
  waits: Waits | null;
  /** The estimate with its test: t or z of a coefficient, F of a step. */
  estimate: number | null;
  test: { t: number | null; df: number | null } | { F: number; df: readonly [number, number] } | null;
  /** p of its family, where there is one. */
  pHolm: number | null;
  n: number | null;
  step: number | null;
  /** It rests on a ladder that a search has made, on its own respondents. */
  exploratory: boolean;
  /** Smallest effect it was judged by. */
  delta: number;
}

export interface TheoryResult {
  status: "told";
  /** In the order of the hypotheses. */
  stands: Stand[];
}

type Fitted = { status: "fitted"; fit: LadderFit; n: number; exploratory: boolean } | { status: "refused"; refusal: Refusal };

interface Told {
  judged: (holmed: (p: number) => number) => Judged;
  estimate: number;
  test: Stand["test"];
}

/** Every hypothesis by the ladder it rests on, each ladder fitted once; p of the family corrected together. */
export function analyseTheory(
  { theory, hypotheses, ladders }: { theory: Theory; hypotheses: readonly Hypothesis[]; ladders: readonly Ladder[] },
  { study, responses, columns }: Desk,
): TheoryResult {
  const fitted = new Map(
    ladders.map((ladder): [string, Fitted] => {
      // all intervals at 1 − α, that of ΔR² too
      const found = fitLadderOf(study, { ...ladder, confidence: 1 - theory.alpha }, responses, columns);
      if (found.status === "refused") return [ladder.id, found];
      const exploratory = exploratoryMark(ladder, found.sample.rowsUsed)?.kind === "exploratory";
      return [ladder.id, { status: "fitted" as const, fit: ladderTables(found.models), n: found.sample.used, exploratory }];
    }),
  );
  const found = hypotheses.map((h) => {
    const ladder = h.ladder === null ? undefined : fitted.get(h.ladder);
    if (h.rests.on === "open") return { h, waits: { for: "open" } as Waits };
    if (!ladder) return { h, waits: { for: "ladder" } as Waits };
    if (ladder.status === "refused") return { h, waits: { for: "refused", refusal: ladder.refusal } as Waits };
    const evidence = evidenceOf(h, theory, ladder.fit);
    return "for" in evidence ? { h, waits: evidence as Waits, ladder } : { h, told: evidence as Told, ladder };
  });
  const tested = found.flatMap((one, k) => {
    const p = one.told && one.h.family ? one.told.judged((value) => value).p : null;
    return p === null ? [] : [{ k, p }];
  });
  const corrected = new Map(holm(tested.map(({ p }) => p)).map((p, at) => [tested[at]!.k, p]));
  const stands = found.map(({ h, waits, told, ladder }, k): Stand => {
    const base = { id: h.id, n: ladder?.n ?? null, step: ladder ? Math.min(h.step ?? Infinity, ladder.fit.steps.length) : null, exploratory: ladder?.exploratory ?? false, delta: deltaOf(h, theory) }; // prettier-ignore
    if (!told) return { ...base, ...judge(null, claimOf(h, theory)), waits: waits ?? null, estimate: null, test: null, pHolm: null };
    const pHolm = theory.holm ? (corrected.get(k) ?? null) : null;
    const judged = told.judged(pHolm === null ? (p) => p : () => pHolm);
    const none: Waits | null = judged.verdict !== "not testable yet" ? null : { for: h.claim === "equivalence" && !(base.delta > 0) ? "smallest-effect" : "test" }; // prettier-ignore
    return { ...base, ...judged, waits: none, estimate: told.estimate, test: told.test, pHolm };
  });
  return { status: "told", stands };
}

/** Its own smallest effect; without one, that of the study for β, and none for what is in other units. */
const deltaOf = (h: Hypothesis, theory: Theory) =>
  h.delta ?? (h.rests.on === "coefficient" && h.rests.metric === "beta" ? theory.delta : 0);

const claimOf = (h: Hypothesis, theory: Theory) => ({ claim: h.claim, direction: h.direction, delta: deltaOf(h, theory), alpha: theory.alpha, before: h.before }); // prettier-ignore

function evidenceOf(h: Hypothesis, theory: Theory, fit: LadderFit): Told | Waits {
  const at = h.step ?? fit.steps.length;
  const step = fit.steps[at - 1];
  if (!step) return { for: "step", step: at };
  const claim = claimOf(h, theory);
  if (h.rests.on === "change") {
    const { change, F, df, p } = step.change;
    if (F === null || p === null) return { for: "test" };
    // a share of variance has no direction, and F tests it against nothing
    return {
      estimate: change,
      test: { F, df },
      judged: (holmed) => ({
        verdict: holmed(p) < claim.alpha ? "supported" : "not supported",
        p,
        twoSided: p,
        interval: step.changeInterval && { lower: step.changeInterval.lower, upper: step.changeInterval.upper },
        equivalence: null,
      }),
    };
  }
  const { rests } = h;
  const c = rests.on === "coefficient" ? step.coefficients.find((one) => one.column === columnKey(rests.column)) : undefined;
  const told = c && (rests.on === "coefficient" && rests.metric === "beta" ? c.beta : c.b);
  if (!told) return { for: "coefficient" };
  // by the ladder's own errors: t with the residual's degrees of freedom, or those of its clusters
  const df = step.clusters === null ? step.model.df[1] : step.clusters - 1;
  const evidence = normalTheory(told.estimate, told.se, df);
  if (!evidence) return { for: "test" };
  return { estimate: told.estimate, test: { t: told.t, df }, judged: (holmed) => judge(evidence, claim, holmed) };
}
