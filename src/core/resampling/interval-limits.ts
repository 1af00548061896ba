import { normalQuantile, normalUpperTail } from "../distributions/normal-distribution";

/** Limits of an interval read from replicates. */
export interface IntervalLimits {
  lower: number;
  upper: number;
  /** True: the limit lies beyond the outermost replicate, which stands in its place; more replicates would be needed. */
  lowerClamped: boolean;
  upperClamped: boolean;
}

/** How a BCa interval came about. Null: not available, every replicate on one side of the estimate or a correction that leaves the unit interval. */
export interface BcaLimits extends IntervalLimits {
  /** Bias correction. */
  z0: number;
  acceleration: number;
}

/**
 * Quantile of sorted replicates at rank (B + 1)·α, linear between neighbours, at most the outermost (contract section 5).
 * @param sorted ascending, length B ≥ 1
 */
function atRank(sorted: Float64Array, alpha: number): { value: number; clamped: boolean } {
  const count = sorted.length;
  const rank = (count + 1) * alpha;
  if (rank < 1) return { value: sorted[0]!, clamped: true };
  if (rank > count) return { value: sorted[count - 1]!, clamped: true };
  const low = Math.floor(rank);
  const from = sorted[low - 1]!;
  const to = sorted[Math.min(count - 1, low)]!;
  return { value: from + (rank - low) * (to - from), clamped: false };
}

function limitsAt(sorted: Float64Array, lower: number, upper: number): IntervalLimits {
  const [low, high] = [atRank(sorted, lower), atRank(sorted, upper)];
  return { lower: low.value, upper: high.value, lowerClamped: low.clamped, upperClamped: high.clamped };
}

/** @param sorted replicates, ascending; @param confidence as .95 */
export function percentileLimits(sorted: Float64Array, confidence: number): IntervalLimits {
  return limitsAt(sorted, (1 - confidence) / 2, (1 + confidence) / 2);
}

/**
 * Bias-corrected and accelerated limits.
 * @param sorted replicates, ascending
 * @returns null where they are not defined: percentile limits serve then
 * Source: Efron (1987), Journal of the American Statistical Association 82, 171–185.
 */
export function bcaLimits(sorted: Float64Array, estimate: number, acceleration: number, confidence: number): BcaLimits | null {
  const below = countBelow(sorted, estimate);
  const share = below / sorted.length;
  if (!(share > 0 && share < 1)) return null;
  const z0 = normalQuantile(share);
  const alphaAt = (alpha: number): number | null => {
    const z = z0 + normalQuantile(alpha);
    const shrink = 1 - acceleration * z;
    return shrink > 0 ? normalUpperTail(-(z0 + z / shrink)) : null;
  };
  const [lower, upper] = [alphaAt((1 - confidence) / 2), alphaAt((1 + confidence) / 2)];
  if (lower === null || upper === null) return null;
  return { ...limitsAt(sorted, lower, upper), z0, acceleration };
}

/** #{θ* < θ̂} + ½·#{θ* = θ̂}. */
function countBelow(sorted: Float64Array, estimate: number): number {
  let [low, equal] = [0, 0];
  for (const value of sorted) {
    if (value < estimate) low++;
    else if (value === estimate) equal++;
    else break;
  }
  return low + equal / 2;
}

/** Jackknife values that differ by no more than this share of their size differ by rounding alone. */
const ROUNDING = 1e-12;

/**
 * Acceleration from leave-one-out values, Σ(θ̄ − θ₍ᵢ₎)³ / (6·(Σ(θ̄ − θ₍ᵢ₎)²)^1.5); 0 where they differ by rounding alone.
 * @param jackknife one value per case, or per cluster
 */
export function jackknifeAcceleration(jackknife: Float64Array): number {
  let sum = 0;
  let largest = 0;
  for (const value of jackknife) {
    sum += value;
    largest = Math.max(largest, Math.abs(value));
  }
  const centre = sum / jackknife.length;
  let [squares, cubes, farthest] = [0, 0, 0];
  for (const value of jackknife) {
    const d = centre - value;
    farthest = Math.max(farthest, Math.abs(d));
    squares += d * d;
    cubes += d * d * d;
  }
  if (farthest <= ROUNDING * largest || squares === 0) return 0;
  return cubes / (6 * squares ** 1.5);
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
