import { cholesky, solveLower, solveLowerTransposed } from "./cholesky";

/** A function of k coordinates with its first and second derivatives at a place. */
export interface Valley {
  value: number;
  gradient: Float64Array;
  /** k × k, row-major. */
  hessian: Float64Array;
  /** A positive semidefinite stand-in for the Hessian, for places where that one is not positive definite. */
  safeHessian: Float64Array;
}

interface Search {
  at: Float64Array;
  value: number;
  rounds: number;
  /** False when the gradient had not vanished after all rounds. */
  settled: boolean;
}

const MOST_ROUNDS = 200;
/** Largest slope along a free direction that counts as none. */
const FLAT = 1e-13;
/** By so little, against 1 + its size, a value may be larger through rounding alone. */
const ROUNDING = 1e-13;

/**
 * Least place of a smooth function above a lower bound: Newton steps among the free coordinates (a coordinate on its bound with the
 * slope against it is held), halved until the function falls.
 * Source: Bertsekas (1982), SIAM Journal on Control and Optimization 20(2), 221–246.
 */
function searchAbove(bound: number, start: Float64Array, look: (at: Float64Array) => Valley): Search {
  const k = start.length;
  let at = start.map((x) => Math.max(bound, x));
  let here = look(at);
  for (let round = 1; round <= MOST_ROUNDS; round++) {
    const free = freeOf(bound, at, here);
    const slope = steepest(bound, at, here);
    if (slope < FLAT) return { at, value: here.value, rounds: round - 1, settled: true };
    const step = newtonStep(here, free, k);
    const near = -step.reduce((sum, x, i) => sum + x * here.gradient[i]!, 0) < ROUNDING * (1 + Math.abs(here.value));
    const best = near
      ? flatter(bound, at, here, step, look)
      : (fall(bound, at, here, step, look) ?? fall(bound, at, here, downhill(here, free, k), look) ?? flatter(bound, at, here, step, look));
    // nothing lower or flatter to be had within rounding: this is the bottom
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

/**
 * Where the value falls by less than rounding shows, the slopes still tell where the bottom is: a whole step that halves them is taken. Without it a place was
 * only known to the root of the rounding, 1e-8, and moved by that with the order of items or the machine.
 */
function flatter(bound: number, at: Float64Array, here: Valley, step: Float64Array, look: (at: Float64Array) => Valley) {
  const next = at.map((x, i) => Math.max(bound, x + step[i]!));
  const there = look(next);
  const level = there.value <= here.value + ROUNDING * (1 + Math.abs(here.value));
  return level && steepest(bound, next, there) < steepest(bound, at, here) / 2 ? { at: next, here: there } : null;
}

/** Coordinates that are not held on their bound by a slope against it. */
const freeOf = (bound: number, at: Float64Array, { gradient }: Valley): number[] => Array.from(at.keys()).filter((i) => !(at[i]! <= bound && gradient[i]! >= 0)); // prettier-ignore

const steepest = (bound: number, at: Float64Array, here: Valley): number => freeOf(bound, at, here).reduce((most, i) => Math.max(most, Math.abs(here.gradient[i]!)), 0); // prettier-ignore

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

/** The best of several searches, and how many of the others ended higher. */
export interface BestSearch extends Search {
  /** Searches made. */
  starts: number;
  /** Those that settled at a place that lies higher: the function has several valleys. */
  higher: number;
}

/** Two valleys are one when they differ by less than this, against 1 + their depth. */
const SAME_DEPTH = 1e-9;

/**
 * The least place that searches from several starts find. The first start's is kept where no other lies lower by more than rounding, so that further starts
 * change nothing that was found well.
 * @param starts at least one; length k each
 * @param further where to begin as well when several starts end at different places, or one at the bound
 */
export function searchFrom(
  starts: readonly Float64Array[],
  bound: number,
  look: (at: Float64Array) => Valley,
  further: () => readonly Float64Array[] = () => [],
): BestSearch {
  const found = starts.map((start) => searchAbove(bound, start, look));
  const lower = (a: Search, b: Search) => a.value < b.value - SAME_DEPTH * (1 + Math.abs(b.value));
  const apart = found.some((one) => one.at.some((x) => x <= bound) || lower(found[0]!, one) || lower(one, found[0]!));
  if (starts.length > 1 && apart) found.push(...further().map((start) => searchAbove(bound, start, look)));
  const sound = found.filter((one) => one.settled);
  const best = (sound.length > 0 ? sound : found).reduce((least, one) => (lower(one, least) ? one : least));
  return { ...best, starts: found.length, higher: sound.filter((one) => lower(best, one)).length };
}
