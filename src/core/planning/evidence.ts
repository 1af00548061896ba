import { correlationTest } from "../describe/correlation-tests";
import { normalUpperTail } from "../distributions/normal-distribution";
import { bcaLimits, percentileLimits } from "../resampling/interval-limits";
import { type Evidence, replicateP } from "./verdict";

/**
 * Evidence from replicates: p by counting those at or beyond a value, limits as the intervals of the ladder are read.
 * @param acceleration of BCa limits; 0 where percentile limits are read
 */
export function replicateEvidence(
  replicates: Float64Array,
  { estimate, acceleration }: { estimate: number; acceleration: number },
  by: "bca" | "percentile",
): Evidence {
  const against = (value: number, direction: "+" | "-" | "none") => {
    let [atOrBelow, atOrAbove] = [0, 0];
    for (const one of replicates) {
      if (one <= value) atOrBelow++;
      if (one >= value) atOrAbove++;
    }
    return replicateP({ atOrBelow, atOrAbove, replicates: replicates.length }, estimate - value, { direction, before: true });
  };
  return {
    estimate,
    above: (value) => against(value, "+"),
    below: (value) => against(value, "-"),
    twoSided: against(0, "none"),
    interval(confidence) {
      const corrected = by === "bca" ? bcaLimits(replicates, estimate, acceleration, confidence) : null;
      const { lower, upper } = corrected ?? percentileLimits(replicates, confidence);
      return { lower, upper };
    },
  };
}

/**
 * Evidence of what is claimed of several estimates at once: each has to hold, so the weakest decides (an intersection–union test, each at the full level).
 * What is shown is the estimate nearest to 0, and limits that hold all of theirs.
 * Source: Berger (1982), Technometrics 24, 295–300.
 */
export function everyOne(of: readonly [Evidence, ...Evidence[]]): Evidence {
  const most = (p: (one: Evidence) => number) => Math.max(...of.map(p));
  const nearest = of.reduce((a, b) => (Math.abs(b.estimate) < Math.abs(a.estimate) ? b : a));
  return {
    estimate: nearest.estimate,
    above: (value) => most((one) => one.above(value)),
    below: (value) => most((one) => one.below(value)),
    // on one side, or on the other
    twoSided: Math.min(1, 2 * Math.min(most((one) => one.above(0)), most((one) => one.below(0)))), // prettier-ignore
    interval(confidence) {
      const all = of.map((one) => one.interval(confidence));
      return { lower: Math.min(...all.map((i) => i.lower)), upper: Math.max(...all.map((i) => i.upper)) };
    },
  };
}

/**
 * Evidence of a correlation of n cases: against 0 by t with n − 2 degrees of freedom, as a table of correlations has it; against anything else, and for limits, on Fisher's z.
 * @returns null where there are too few cases, or the two are one line
 */
export function correlationEvidence(r: number, n: number): Evidence | null {
  const tested = correlationTest(r, n, 0.95);
  if (tested === null || tested.t === null || tested.p === null || n <= 3) return null;
  const half = tested.p / 2;
  const from = (value: number) => (Math.atanh(r) - Math.atanh(value)) * Math.sqrt(n - 3);
  return {
    estimate: r,
    above: (value) => (value === 0 ? (r >= 0 ? half : 1 - half) : normalUpperTail(from(value))),
    below: (value) => (value === 0 ? (r <= 0 ? half : 1 - half) : normalUpperTail(-from(value))),
    twoSided: tested.p,
    interval(confidence) {
      const { lower, upper } = correlationTest(r, n, confidence)!;
      return { lower: lower!, upper: upper! };
    },
  };
}
