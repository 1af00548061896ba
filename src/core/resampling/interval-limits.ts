import { normalQuantile, normalUpperTail } from "../distributions/normal-distribution";
import { OrderStatistics } from "./order-statistics";

/** Limits of an interval read from replicates. */
export interface IntervalLimits {
  lower: number;
  upper: number;
  /** True: the limit lies beyond the outermost replicate, which stands in its place; more replicates would be needed. */
  lowerClamped: boolean;
  upperClamped: boolean;
  /** So many replicates would put both limits inside the outermost ones; Infinity when a limit's share of the replicates is 0 in double precision. */
  needed: number;
}

/** How a BCa interval came about. Null: not available, every replicate on one side of the estimate or a correction that leaves the unit interval. */
export interface BcaLimits extends IntervalLimits {
  /** Bias correction. */
  z0: number;
  acceleration: number;
}

/** A rank that differs from a whole one by no more stands there: .05 of 20 is 1. */
const ROUNDING = 1e-9;

/**
 * Quantile of replicates at rank (B + 1)·α, linear between neighbours, at most the outermost (docs/methods.md, “Bootstrap intervals”).
 */
function atRank(of: OrderStatistics, alpha: number): { value: number; clamped: boolean } {
  const { count } = of;
  const rank = (count + 1) * alpha;
  if (rank < 1 - ROUNDING) return { value: of.pairAt(1)[0], clamped: true };
  if (rank > count + ROUNDING) return { value: of.pairAt(count)[0], clamped: true };
  const low = Math.min(count, Math.max(1, Math.floor(rank)));
  const [from, to] = of.pairAt(low);
  return { value: from + Math.max(0, rank - low) * (to - from), clamped: false };
}

function limitsAt(replicates: Float64Array, lower: number, upper: number): IntervalLimits {
  const of = new OrderStatistics(replicates);
  const [low, high] = [atRank(of, lower), atRank(of, upper)];
  return {
    lower: low.value,
    upper: high.value,
    lowerClamped: low.clamped,
    upperClamped: high.clamped,
    needed: replicatesFor(lower, upper),
  };
}

/** So many replicates put the ranks of both limits inside the outermost ones. */
function replicatesFor(lower: number, upper: number): number {
  const tail = Math.min(lower, 1 - upper);
  // (B + 1)·α ≥ 1 and (B + 1)·(1 − α) ≤ B say the same
  return tail > 0 ? Math.ceil(1 / tail - 1 - ROUNDING) : Infinity;
}

/** @param replicates in any order, at least one; @param confidence as .95 */
export function percentileLimits(replicates: Float64Array, confidence: number): IntervalLimits {
  return limitsAt(replicates, (1 - confidence) / 2, (1 + confidence) / 2);
}

/**
 * Bias-corrected and accelerated limits.
 * @param replicates in any order, at least one
 * @returns null where they are not defined: percentile limits serve then
 * Source: Efron (1987), Journal of the American Statistical Association 82, 171–185.
 */
export function bcaLimits(replicates: Float64Array, estimate: number, acceleration: number, confidence: number): BcaLimits | null {
  const share = countBelow(replicates, estimate) / replicates.length;
  if (!(share > 0 && share < 1)) return null;
  const z0 = normalQuantile(share);
  const alphaAt = (alpha: number): number | null => {
    const z = z0 + normalQuantile(alpha);
    const shrink = 1 - acceleration * z;
    return shrink > 0 ? normalUpperTail(-(z0 + z / shrink)) : null;
  };
  const [lower, upper] = [alphaAt((1 - confidence) / 2), alphaAt((1 + confidence) / 2)];
  if (lower === null || upper === null) return null;
  return { ...limitsAt(replicates, lower, upper), z0, acceleration };
}

/** #{θ* < θ̂} + ½·#{θ* = θ̂}. */
function countBelow(replicates: Float64Array, estimate: number): number {
  let [low, equal] = [0, 0];
  for (const value of replicates) {
    if (value < estimate) low++;
    else if (value === estimate) equal++;
  }
  return low + equal / 2;
}

/** Two-sided p that a difference is 0, read from its replicates: 2·min(1 + #{d* ≤ 0}, 1 + #{d* ≥ 0})/(B + 1), at most 1. */
export function replicateP(replicates: Float64Array): number {
  let [notAbove, notBelow] = [0, 0];
  for (const d of replicates) {
    if (d <= 0) notAbove++;
    if (d >= 0) notBelow++;
  }
  return Math.min(1, (2 * Math.min(1 + notAbove, 1 + notBelow)) / (replicates.length + 1));
}
