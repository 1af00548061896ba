import { normalQuantile, normalUpperTail } from "../distributions/normal-distribution";
import { tCritical, tTwoSided } from "../distributions/t-distribution";

/** What a hypothesis claims of its estimate. */
export interface Claim {
  /** That there is an effect; one beyond the smallest that matters; or none that matters. */
  claim: "effect" | "beyond" | "equivalence";
  direction: "+" | "-" | "none";
  /** Smallest effect that matters, in the estimate's unit; 0 when none is stated. */
  delta: number;
  alpha: number;
  /** True when the direction stood before the result was first looked at: only then is a test one-sided. */
  before: boolean;
}

export type Verdict =
  "not testable yet" | "supported" | "opposite direction" | "practically nothing" | "too uncertain to say" | "not supported";

/** An estimate with its tests. */
export interface Evidence {
  estimate: number;
  /** One-sided p of θ > value. */
  above(value: number): number;
  /** One-sided p of θ < value. */
  below(value: number): number;
  /** Two-sided, against 0. */
  twoSided: number;
  interval(confidence: number): { lower: number; upper: number };
}

export interface Judged {
  verdict: Verdict;
  /** Of the claim; of an equivalence the larger of two one-sided ones. Null where it cannot be tested. */
  p: number | null;
  twoSided: number | null;
  /** At 1 − α. */
  interval: { lower: number; upper: number } | null;
  /** With a smallest effect: two one-sided tests, the larger p, and the interval at 1 − 2α. */
  equivalence: { aboveMinus: number; belowPlus: number; p: number; interval: { lower: number; upper: number } } | null;
}

const criticals = new Map<string, number>();

/** Many hypotheses ask for the same few values, and finding one takes longer than all else about a verdict (bench/theory.ts). */
function criticalOnce(confidence: number, df: number): number {
  const key = `${confidence} ${df}`;
  const found = criticals.get(key) ?? tCritical(confidence, df);
  if (criticals.size > 200) criticals.clear();
  criticals.set(key, found);
  return found;
}

/**
 * Evidence by normal theory.
 * @param df null: the normal distribution
 * @returns null where an estimate, an error above 0 or a degree of freedom is missing
 */
export function normalTheory(estimate: number | null, se: number | null, df: number | null): Evidence | null {
  if (estimate === null || se === null || !(se > 0) || (df !== null && df < 1)) return null;
  const upper = (z: number) => {
    if (df === null) return normalUpperTail(z);
    const two = tTwoSided(z, df);
    return z >= 0 ? two / 2 : 1 - two / 2;
  };
  const critical = (confidence: number) => (df === null ? -normalQuantile((1 - confidence) / 2) : criticalOnce(confidence, df));
  return {
    estimate,
    above: (value) => upper((estimate - value) / se),
    below: (value) => upper((value - estimate) / se),
    twoSided: Math.min(1, 2 * upper(Math.abs(estimate / se))),
    interval(confidence) {
      const half = critical(confidence) * se;
      return { lower: estimate - half, upper: estimate + half };
    },
  };
}

/**
 * How a hypothesis stands: the first verdict that holds, in the order of docs/methods.md, “Hypotheses”.
 * @param holm makes the p of the claim that of its family; nothing when left out
 * Sources: Schuirmann (1987), Journal of Pharmacokinetics and Biopharmaceutics 15, 657–680; Lakens (2017), Social Psychological and Personality Science 8, 355–362.
 */
export function judge(evidence: Evidence | null, claim: Claim, holm: (p: number) => number = (p) => p): Judged {
  const { direction, delta, alpha } = claim;
  const untestable: Judged = { verdict: "not testable yet", p: null, twoSided: null, interval: null, equivalence: null };
  if (evidence === null || (claim.claim === "equivalence" && !(delta > 0))) return untestable;
  const { estimate, twoSided } = evidence;
  const interval = evidence.interval(1 - alpha);
  const equivalence = delta > 0 ? equivalenceOf(evidence, delta, alpha) : null;
  const p = claim.claim === "equivalence" ? equivalence!.p : pOfClaim(evidence, claim);
  const told = { p, twoSided, interval, equivalence };
  const supported = holm(p) < alpha;
  if (claim.claim === "equivalence") {
    if (supported) return { ...told, verdict: "supported" };
    const outside = estimate >= 0 ? evidence.above(delta) : evidence.below(-delta);
    return { ...told, verdict: outside < alpha ? "not supported" : "too uncertain to say" };
  }
  const agrees = direction === "none" || Math.sign(estimate) === (direction === "+" ? 1 : -1);
  if (supported && agrees) return { ...told, verdict: "supported" };
  if (!agrees && twoSided < alpha) return { ...told, verdict: "opposite direction" };
  if (equivalence && equivalence.interval.lower > -delta && equivalence.interval.upper < delta)
    return { ...told, verdict: "practically nothing" };
  return { ...told, verdict: delta > 0 ? "too uncertain to say" : "not supported" };
}

/** One-sided only where the direction stood before; of 'beyond', against the smallest effect on the stated side, or on the estimate's. */
function pOfClaim(evidence: Evidence, { claim, direction, delta, before }: Claim): number {
  const { estimate, twoSided, above, below } = evidence;
  const at = claim === "beyond" ? delta : 0;
  if (direction === "none") {
    if (at === 0) return twoSided;
    return Math.min(1, 2 * (estimate >= 0 ? above(at) : below(-at)));
  }
  const oneSided = direction === "+" ? above(at) : below(-at);
  if (before) return oneSided;
  return at === 0 ? twoSided : Math.min(1, 2 * oneSided);
}

function equivalenceOf({ above, below, interval }: Evidence, delta: number, alpha: number): Judged["equivalence"] {
  const [aboveMinus, belowPlus] = [above(-delta), below(delta)];
  return { aboveMinus, belowPlus, p: Math.max(aboveMinus, belowPlus), interval: interval(1 - 2 * alpha) };
}

/**
 * p from replicates: min(1, 2·min(1 + #{θ* ≤ 0}, 1 + #{θ* ≥ 0})/(B + 1)); with a direction that stood before half of it, or 1 less that half when the estimate goes the other way.
 * @param atOrBelow, atOrAbove counts of replicates at or beyond 0
 */
export function replicateP(
  { atOrBelow, atOrAbove, replicates }: { atOrBelow: number; atOrAbove: number; replicates: number },
  estimate: number,
  { direction, before }: Pick<Claim, "direction" | "before">,
): number {
  const two = Math.min(1, (2 * Math.min(1 + atOrBelow, 1 + atOrAbove)) / (replicates + 1));
  if (direction === "none" || !before) return two;
  return Math.sign(estimate) === (direction === "+" ? 1 : -1) ? two / 2 : 1 - two / 2;
}
