import gammaln from "@stdlib/math-base-special-gammaln";
import { normalUpperTail } from "./normal-distribution";

/** Both sides of a distribution at a point, each to its own relative precision. */
export interface BothTails {
  lower: number;
  upper: number;
}

/** Where the integrand is this much below its peak (in logarithms) nothing counts any more. */
const FAR_BELOW = 46;
const POINTS = 500;

/**
 * P(T ≤ t) and P(T > t) of the noncentral t. T = (Z + ncp)/S with S² a χ² over its df: given S = s, T lies below t when Z < t·s − ncp; the mean of that over ln s is an integral whose
 * ends fall off so fast that equal steps give it to the last digits, and both tails keep their own precision.
 * Relative error below 1e-10 for df ≥ 1 and |ncp| ≤ 40, down to 1e-290.
 * Source: Johnson, Kotz & Balakrishnan (1995), Continuous Univariate Distributions 2, ch. 31; trapezoids: Trefethen & Weideman (2014), SIAM Review 56, 385–458.
 */
export function noncentralT(t: number, df: number, ncp: number): BothTails {
  return { lower: noncentralTail(t, df, ncp, -1), upper: noncentralTail(t, df, ncp, 1) };
}

/** One side: P(T > t) for 1, P(T ≤ t) for −1. */
export function noncentralTail(t: number, df: number, ncp: number, sign: 1 | -1): number {
  if (Math.abs(t) === Infinity) return sign * t > 0 ? 0 : 1;
  // density of u = ln S: 2·(df/2)^(df/2)/Γ(df/2) · exp(df·u − df·e^(2u)/2)
  const constant = Math.LN2 + (df / 2) * Math.log(df / 2) - gammaln(df / 2);
  const logDensity = (u: number) => constant + df * u - (df / 2) * Math.exp(2 * u);
  return integral((u) => logDensity(u) + Math.log(normalUpperTail(sign * (t * Math.exp(u) - ncp))));
}

/** ∫ exp(g(u)) du of a function with one peak that falls off on both sides. */
function integral(g: (u: number) => number): number {
  const peak = summit(g);
  const top = g(peak);
  if (top === -Infinity) return 0;
  const [low, high] = [edge(g, peak, top, -1), edge(g, peak, top, 1)];
  const step = (high - low) / POINTS;
  let sum = 0;
  for (let k = 0; k <= POINTS; k++) sum += Math.exp(g(low + k * step) - top);
  return Math.exp(top + Math.log(sum * step));
}

/** Where a function with one peak is largest, near enough. */
function summit(g: (u: number) => number): number {
  let [low, high] = [-40, 8];
  // −∞ at one end says nothing about which side to go: a coarse look first
  let best = low;
  for (let u = low; u <= high; u += 0.25) if (g(u) > g(best)) best = u;
  [low, high] = [best - 0.25, best + 0.25];
  for (let k = 0; k < 60; k++) {
    const [a, b] = [low + (high - low) / 3, high - (high - low) / 3];
    if (g(a) < g(b)) low = a;
    else high = b;
  }
  return (low + high) / 2;
}

function edge(g: (u: number) => number, peak: number, top: number, direction: 1 | -1): number {
  let [inside, outside] = [0, 0.05];
  while (g(peak + direction * outside) > top - FAR_BELOW) {
    inside = outside;
    outside *= 2;
  }
  for (let k = 0; k < 40; k++) {
    const middle = (inside + outside) / 2;
    if (g(peak + direction * middle) > top - FAR_BELOW) inside = middle;
    else outside = middle;
  }
  return peak + direction * outside;
}
