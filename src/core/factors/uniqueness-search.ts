import { cholesky, solveLower, solveLowerTransposed } from "../linear-algebra/cholesky";
import type { SymmetricEigen } from "../linear-algebra/symmetric-eigen";

/** A function of the k uniquenesses (or their logarithms) with its first and second derivatives at a place. */
export interface Valley {
  value: number;
  gradient: Float64Array;
  /** k × k, row-major. */
  hessian: Float64Array;
  /** A positive semidefinite stand-in for the Hessian, for places where that one is not positive definite. */
  safeHessian: Float64Array;
}

export interface Search {
  at: Float64Array;
  value: number;
  rounds: number;
  /** False when the gradient had not vanished after all rounds. */
  settled: boolean;
}

const MOST_ROUNDS = 200;
/** Largest slope along a free direction that counts as none. */
const FLAT = 1e-11;

/**
 * Least place of a smooth function above a lower bound: Newton steps among the free coordinates (a coordinate on its bound with the
 * slope against it is held), halved until the function falls.
 * Source: Bertsekas (1982), SIAM Journal on Control and Optimization 20(2), 221–246.
 */
export function searchAbove(bound: number, start: Float64Array, look: (at: Float64Array) => Valley): Search {
  const k = start.length;
  let at = start.map((x) => Math.max(bound, x));
  let here = look(at);
  for (let round = 1; round <= MOST_ROUNDS; round++) {
    const free = Array.from({ length: k }, (_, i) => i).filter((i) => !(at[i]! <= bound && here.gradient[i]! >= 0));
    const slope = free.reduce((most, i) => Math.max(most, Math.abs(here.gradient[i]!)), 0);
    if (slope < FLAT) return { at, value: here.value, rounds: round - 1, settled: true };
    const best = fall(bound, at, here, newtonStep(here, free, k), look) ?? fall(bound, at, here, downhill(here, free, k), look);
    // no fall to be had within rounding: this is the bottom
    if (!best) return { at, value: here.value, rounds: round, settled: slope < 1e-6 };
    ({ at, here } = best);
  }
  return { at, value: here.value, rounds: MOST_ROUNDS, settled: false };
}

/** The first place along a step, halved again and again, where the function lies lower; null when there is none. */
function fall(bound: number, at: Float64Array, here: Valley, step: Float64Array, look: (at: Float64Array) => Valley) {
  for (let length = 1; length > 1e-10; length /= 2) {
    const next = at.map((x, i) => Math.max(bound, x + length * Math.max(-2, Math.min(2, step[i]!))));
    const there = look(next);
    if (there.value < here.value) return { at: next, here: there };
  }
  return null;
}

function downhill(here: Valley, free: readonly number[], k: number): Float64Array {
  const step = new Float64Array(k);
  for (const i of free) step[i] = -here.gradient[i]!;
  return step;
}

/** The Newton step of the free coordinates; with the stand-in, or plainly downhill, where the Hessian is not positive definite. */
function newtonStep(here: Valley, free: readonly number[], k: number): Float64Array {
  const q = free.length;
  const step = new Float64Array(k);
  const slopes = free.map((i) => here.gradient[i]!);
  for (const matrix of [here.hessian, here.safeHessian]) {
    const part = new Float64Array(q * q);
    free.forEach((i, a) => free.forEach((j, b) => (part[a * q + b] = matrix[i * k + j]!)));
    const l = cholesky(part, q);
    if (!l) continue;
    solveLowerTransposed(l, solveLower(l, slopes, q), q).forEach((value, a) => (step[free[a]!] = -value));
    return step;
  }
  return downhill(here, free, k);
}

/**
 * Second derivatives both searches share: Σ over pairs of eigenvectors j > m of weights times ω_ij·ω_lj·ω_im·ω_lm, split
 * into pairs of left-out vectors (no difference of eigenvalues in it, so equal ones do no harm) and pairs with a kept one.
 * @param factors number of kept vectors m
 * @param between weight of the pair (left-out j, kept m)
 */
export function secondDerivatives(
  { vectors }: SymmetricEigen,
  k: number,
  factors: number,
  leftOut: (a: Float64Array) => { hessian: Float64Array; safe: Float64Array },
  between: (j: number, m: number) => number,
): { hessian: Float64Array; safeHessian: Float64Array } {
  const products = outer(vectors, k, factors, k, () => 1);
  const { hessian, safe } = leftOut(products);
  for (let m = 0; m < factors; m++) {
    const mixed = outer(vectors, k, factors, k, (j) => between(j, m));
    for (let i = 0; i < k; i++) {
      for (let l = 0; l < k; l++) {
        const at = i * k + l;
        hessian[at] = hessian[at]! + mixed[at]! * vectors[m * k + i]! * vectors[m * k + l]!;
      }
    }
  }
  return { hessian, safeHessian: safe };
}

/** Σ_j weight(j)·ω_ij·ω_lj over vectors `from` … `to` − 1: k × k. */
export function outer(vectors: Float64Array, k: number, from: number, to: number, weight: (j: number) => number): Float64Array {
  const sum = new Float64Array(k * k);
  for (let j = from; j < to; j++) {
    const w = weight(j);
    for (let i = 0; i < k; i++) {
      const part = w * vectors[j * k + i]!;
      for (let l = 0; l < k; l++) sum[i * k + l] = sum[i * k + l]! + part * vectors[j * k + l]!;
    }
  }
  return sum;
}
