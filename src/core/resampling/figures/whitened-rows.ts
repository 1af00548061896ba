import type { LadderModels } from "../../regression/ladder";
import { orthonormalBasis } from "../../regression/orthonormal-basis";
import type { Part } from "../engine/problem";
import type { Units } from "../units";

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
  /** R of all kept columns, q × q, row-major, in the centred and scaled units of the design. */
  readonly r: Float64Array;
  /** The outcome, centred and scaled, in the basis: length width. */
  readonly y: Float64Array;
  /** What is drawn, and the sums that are taken of it. */
  readonly part: Part;
}

/** @returns null when the last step leaves nothing unexplained: no residual to resample */
export function whitenedRows({ fits }: LadderModels, units: Units): WhitenedRows | null {
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
    const at = (units.together ? i : units.unitOf(i)) * width;
    for (let c = 0; c < q; c++) z[at + c] = basis[c * n + i]!;
    z[at + q] = (fit.residuals[i]! * scale) / length;
  }
  const y = new Float64Array(width);
  for (let a = 0; a < q; a++) for (let b = a; b < q; b++) y[a] = y[a]! + triangle[a * q + b]! * solution[b]!;
  y[q] = length;
  const size = packedLength(width);
  const whole = { strata: units.strata, size, total: identity(width) };
  const part: Part = units.together ? { ...whole, width: 0, rows: summedProducts(z, width, units) } : { ...whole, width, rows: z };
  return { n, q, width, r: triangle, y, part };
}

/** Entries of a packed lower triangle of some width. */
export const packedLength = (width: number) => (width * (width + 1)) / 2;

function identity(width: number): Float64Array {
  const packed = new Float64Array(packedLength(width));
  for (let a = 0; a < width; a++) packed[packedLength(a) + a] = 1;
  return packed;
}

/** The products of each row with itself, packed row by row of the lower triangle, summed within units: units × packedLength. */
function summedProducts(z: Float64Array, width: number, units: Units): Float64Array {
  const size = packedLength(width);
  const products = new Float64Array(units.count * size);
  for (let i = 0, from = 0; from < z.length; i++, from += width) {
    let at = units.unitOf(i) * size;
    for (let a = 0; a < width; a++) {
      const za = z[from + a]!;
      for (let b = 0; b <= a; b++, at++) products[at] = products[at]! + za * z[from + b]!;
    }
  }
  return products;
}
