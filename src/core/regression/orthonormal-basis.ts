import { applyTransposed, apply, independentColumns } from "../linear-algebra/householder";
import type { Fit } from "./least-squares";
import type { PreparedDesign } from "./prepared-design";

const known = new WeakMap<PreparedDesign, Float64Array>();

/**
 * The columns of Q that belong to the kept columns of a whole design, column after column, n each; the leading ones are the
 * basis of every step. Formed once per design, by reflections, so that they stay orthonormal to the last digit.
 */
export function orthonormalBasis(design: PreparedDesign): Float64Array {
  const found = known.get(design);
  if (found) return found;
  const { n, factorization } = design;
  const kept = independentColumns(factorization, factorization.columns);
  const q = new Float64Array(n * kept.length);
  kept.forEach((_, at) => basisColumn(design, kept, at, q.subarray(at * n, (at + 1) * n)));
  known.set(design, q);
  return q;
}

/**
 * One of these columns by itself, for who cannot hold them all.
 * @param kept the independent columns of the factorization
 * @param v length n; overwritten
 */
export function basisColumn({ factorization }: PreparedDesign, kept: readonly number[], at: number, v: Float64Array): void {
  v.fill(0);
  v[at] = 1;
  apply(factorization, kept[at]! + 1, v); // later reflections leave the first rows alone
}

/** Diagonal of the hat matrix, one value per case, 1/n…1: how far a case lies from the others in the predictors. */
export function leverages(fit: Fit): Float64Array {
  const { design, kept } = fit.basis;
  const basis = orthonormalBasis(design);
  const h = new Float64Array(fit.n);
  for (let k = 0; k < kept.length; k++) {
    const at = k * fit.n;
    for (let i = 0; i < fit.n; i++) h[i] = h[i]! + basis[at + i]! ** 2;
  }
  return h;
}

/** Up to this the fitted value of a case is its own answer alone: nothing can be said about how it would be predicted. */
const NOTHING_LEFT = 1e-12;

/** True when the leverage of a case is 1 but for rounding. */
export function hasFullLeverage(h: number): boolean {
  return 1 - h < NOTHING_LEFT;
}

/** Share of a column's length² that lies outside the space of a fit's columns, 0…1. `values` is centred, length n. */
export function shareOutside(fit: Fit, values: Float64Array): number {
  const { design, width, kept } = fit.basis;
  const v = values.slice();
  applyTransposed(design.factorization, width + 1, v);
  let [inside, outside] = [0, 0];
  for (let i = 0; i < v.length; i++) {
    if (i < kept.length) inside += v[i]! ** 2;
    else outside += v[i]! ** 2;
  }
  return inside + outside === 0 ? 0 : outside / (inside + outside);
}
