import type { LadderModels } from "../regression/ladder";
import { orthonormalBasis } from "../regression/orthonormal-basis";

/**
 * A ladder turned into rows z = [Q, e/‖e‖]: the orthonormal basis of its columns and the unit residual of its last step. The cross-products of all
 * rows are the identity, so those of a resample stay well-conditioned where raw ones would lose their digits: with G = Σ w·z·zᵀ = L·Lᵀ, the
 * triangle of the resample is Lᵀ·R, its leading columns those of every step.
 * Source: Björck (1996), Numerical Methods for Least Squares Problems, 2.7; the triangle of a weighted fit from that of another.
 */
export interface WhitenedRows {
  readonly n: number;
  /** Columns of Q, the intercept's first. */
  readonly q: number;
  /** q + 1. */
  readonly width: number;
  /** n × width, row after row. */
  readonly z: Float64Array;
  /** R of all kept columns, q × q, row-major, in the centred and scaled units of the design. */
  readonly r: Float64Array;
  /** The outcome, centred and scaled, in the basis: length width. */
  readonly y: Float64Array;
  /** One unit of the scaled outcome in outcome units. */
  readonly outcomeUnit: number;
}

/** @returns null when the last step leaves nothing unexplained: no residual to resample */
export function whitenedRows({ fits }: LadderModels): WhitenedRows | null {
  const fit = fits.at(-1)!;
  if (fit.perfect) return null;
  const { design, kept, triangle, solution } = fit.basis;
  const { n } = fit;
  const q = kept.length;
  const width = q + 1;
  const basis = orthonormalBasis(design);
  const { scale } = design.outcome;
  let squares = 0;
  for (let i = 0; i < n; i++) squares += (fit.residuals[i]! * scale) ** 2;
  const length = Math.sqrt(squares);
  const z = new Float64Array(n * width);
  for (let i = 0; i < n; i++) {
    for (let c = 0; c < q; c++) z[i * width + c] = basis[c * n + i]!;
    z[i * width + q] = (fit.residuals[i]! * scale) / length;
  }
  const y = new Float64Array(width);
  for (let a = 0; a < q; a++) for (let b = a; b < q; b++) y[a] = y[a]! + triangle[a * q + b]! * solution[b]!;
  y[q] = length;
  return { n, q, width, z, r: triangle, y, outcomeUnit: 1 / scale };
}

/** Entries of a packed lower triangle of some width. */
export const packedLength = (width: number) => (width * (width + 1)) / 2;

/** The products of each row with itself, packed row by row of the lower triangle; summed within units where given. n or `units` × packedLength. */
export function rowProducts({ n, width, z }: WhitenedRows, unitOf: Int32Array | null, units: number): Float64Array {
  const size = packedLength(width);
  const products = new Float64Array(units * size);
  for (let i = 0; i < n; i++) {
    const from = i * width;
    let at = (unitOf ? unitOf[i]! : i) * size;
    for (let a = 0; a < width; a++) {
      const za = z[from + a]!;
      for (let b = 0; b <= a; b++, at++) products[at] = products[at]! + za * z[from + b]!;
    }
  }
  return products;
}
