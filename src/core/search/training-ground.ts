import type { Folds } from "../comparison/cross-validation";
import { cholesky, solveLower, solveLowerTransposed } from "../linear-algebra/cholesky";
import { dot, type Searchable, type SearchGround } from "./search-ground";

/** Cross-products of Q (intercept and controls), Z (the columns) and y over some cases, the lower triangle of (w + q + 1)², row-major; and how many cases. */
export interface Products {
  cases: number;
  values: Float64Array;
}

/** A column varies among the training cases when this share of its length² is left. */
const VARIES = 1e-20;
/** … and this share of what it had there before the controls. */
const NOTHING_LEFT = 1e-14;

/** Over all cases: Q is orthonormal and has nothing in common with the others. */
export function wholeProducts({ n, basis, G, r }: SearchGround): Products {
  const [w, q] = [basis.length / n, r.length];
  const wide = w + q + 1;
  const values = new Float64Array(wide * wide);
  for (let k = 0; k < wide; k++) values[k * wide + k] = 1;
  for (let a = 0; a < q; a++) {
    for (let b = 0; b < a; b++) values[(w + a) * wide + w + b] = G[a * q + b]!;
    values[(w + q) * wide + w + a] = r[a]!;
  }
  return { cases: n, values };
}

/** @param times how often each case counts; once each when left out */
export function foldProducts({ n, basis, z, y }: SearchGround, { of, count }: Folds, times: ArrayLike<number> | null = null): Products[] {
  const w = basis.length / n;
  const wide = w + z.length + 1;
  const row = new Float64Array(wide);
  const folds = Array.from({ length: count }, (): Products => ({ cases: 0, values: new Float64Array(wide * wide) }));
  for (let i = 0; i < n; i++) {
    const weight = times === null ? 1 : times[i]!;
    if (weight === 0) continue;
    for (let k = 0; k < w; k++) row[k] = basis[k * n + i]!;
    for (let j = 0; j < z.length; j++) row[w + j] = z[j]![i]!;
    row[wide - 1] = y[i]!;
    const fold = folds[of[i]!]!;
    fold.cases += weight;
    const { values } = fold;
    for (let a = 0; a < wide; a++) {
      const own = weight * row[a]!;
      if (own === 0) continue;
      const at = a * wide;
      for (let b = 0; b <= a; b++) values[at + b] = values[at + b]! + own * row[b]!;
    }
  }
  return folds;
}

/** @param sign 1 for the sum, −1 for what is left when the second is taken out */
export function combined(a: Products, b: Products, sign: 1 | -1): Products {
  return { cases: a.cases + sign * b.cases, values: a.values.map((value, k) => value + sign * b.values[k]!) };
}

/** Squared errors, in the outcome's residual length², of predictions by weights of Q and Z. */
export function squaredErrors({ values }: Products, weights: Float64Array): number {
  const wide = weights.length + 1;
  const own = (k: number) => (k === wide - 1 ? -1 : weights[k]!);
  let sum = 0;
  for (let a = 0; a < wide; a++) {
    const weight = own(a);
    if (weight === 0) continue;
    let along = 0.5 * weight * values[a * wide + a]!;
    for (let b = 0; b < a; b++) along += own(b) * values[a * wide + b]!;
    sum += 2 * weight * along;
  }
  return Math.max(0, sum);
}

/** What a search works with on some of the cases, everything formed anew there. */
export interface TrainingGround {
  ground: Searchable;
  /** Of each of its columns the place in the whole; and the places of those that do not vary here. */
  places: number[];
  leftOut: number[];
  /** @param beta of its columns, in its own SDs; @returns weights of the whole's Q and Z */
  weights(beta: ArrayLike<number>): Float64Array;
}

/**
 * The ground of a search on the cases of some cross-products: means, fits on the controls and SDs are theirs alone.
 * @returns null when the controls cannot be fitted on them, or they leave nothing of the outcome
 */
export function trainingGround(whole: SearchGround, { cases, values }: Products): TrainingGround | null {
  const { n, basis, r } = whole;
  const [w, q] = [basis.length / n, r.length];
  const wide = w + q + 1;
  /** @param a not below b */
  const left = (a: number, b: number) => values[a * wide + b]!;
  const M = new Float64Array(w * w);
  for (let a = 0; a < w; a++) for (let b = 0; b <= a; b++) M[a * w + b] = M[b * w + a] = left(a, b);
  const l = cholesky(M, w);
  if (l === null) return null;
  // residuals on the controls: P = L⁻¹·(cross-products with them)
  const P = Array.from({ length: q + 1 }, (_, j) => solveLower(l, Float64Array.from({ length: w }, (__, k) => left(w + j, k)), w)); // prettier-ignore
  const product = (a: number, b: number) => left(w + a, w + b) - dot(P[a]!, P[b]!);
  const lengths = Float64Array.from({ length: q }, (_, j) => product(j, j));
  const all = Array.from({ length: q }, (_, j) => j);
  const places = all.filter((j) => lengths[j]! > VARIES && lengths[j]! > NOTHING_LEFT * left(w + j, w + j));
  const outcome = product(q, q);
  if (!(outcome > 0)) return null;
  const m = places.length;
  const G = new Float64Array(m * m);
  const own = new Float64Array(m);
  places.forEach((j, a) => {
    own[a] = product(q, j) / Math.sqrt(lengths[j]! * outcome);
    G[a * m + a] = 1;
    for (let b = 0; b < a; b++) G[a * m + b] = G[b * m + a] = product(j, places[b]!) / Math.sqrt(lengths[j]! * lengths[places[b]!]!);
  });
  const ground: Searchable = {
    n: cases,
    controls: whole.controls,
    // what is chosen does not depend on how much the controls explain: all of R² is counted from them
    controlsR2: 0,
    rest: whole.rest * outcome,
    names: places.map((j) => whole.names[j]!),
    terms: whole.terms.map(({ name, columns }) => ({ name, columns: columns.flatMap((j) => (places.includes(j) ? [places.indexOf(j)] : [])) })), // prettier-ignore
    G,
    r: own,
  };
  return {
    ground,
    places,
    leftOut: all.filter((j) => !places.includes(j)),
    weights(beta) {
      const weights = new Float64Array(w + q);
      places.forEach((j, a) => (weights[w + j] = beta[a]! * Math.sqrt(outcome / lengths[j]!)));
      // what the controls then predict: M⁻¹·(Qᵀy − QᵀZ·b)
      const along = P[q]!.map((value, k) => places.reduce((sum, j) => sum - P[j]![k]! * weights[w + j]!, value));
      weights.set(solveLowerTransposed(l, along, w));
      return weights;
    },
  };
}
