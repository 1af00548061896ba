import type { LadderModels } from "../../regression/ladder";
import { basisColumn } from "../../regression/orthonormal-basis";
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
  const { scale } = design.outcome;
  let squares = 0;
  for (let i = 0; i < n; i++) squares += (fit.residuals[i]! * scale) ** 2;
  const length = Math.sqrt(squares);
  const y = new Float64Array(width);
  for (let a = 0; a < q; a++) for (let b = a; b < q; b++) y[a] = y[a]! + triangle[a * q + b]! * solution[b]!;
  y[q] = length;
  const size = packedLength(width);
  const whole = { strata: units.strata, size, total: identity(width) };
  const writeAt =
    (place: (row: number) => number): Part["write"] =>
    (to, at, step) => {
      // one column of the basis at a time: for a million rows there is no room for all of them twice
      const v = new Float64Array(n);
      for (let c = 0; c < width; c++) {
        if (c < q) basisColumn(design, kept, c, v);
        else for (let i = 0; i < n; i++) v[i] = (fit.residuals[i]! * scale) / length;
        for (let i = 0; i < n; i++) to[at + place(i) * step + c] = v[i]!;
      }
    };
  const part: Part = units.together
    ? {
        ...whole,
        width: 0,
        write: summedProducts(
          writeAt((row) => row),
          n,
          width,
          units,
        ),
      }
    : { ...whole, width, write: writeAt(units.unitOf) };
  return { n, q, width, r: triangle, y, part };
}

/** Entries of a packed lower triangle of some width. */
export const packedLength = (width: number) => (width * (width + 1)) / 2;

function identity(width: number): Float64Array {
  const packed = new Float64Array(packedLength(width));
  for (let a = 0; a < width; a++) packed[packedLength(a) + a] = 1;
  return packed;
}

/** The products of each row with itself, packed row by row of the lower triangle, summed within units. */
function summedProducts(write: Part["write"], n: number, width: number, units: Units): Part["write"] {
  return (to, start, step) => {
    const z = new Float64Array(n * width);
    write(z, 0, width);
    for (let i = 0; i < n; i++) {
      const from = i * width;
      let at = start + units.unitOf(i) * step;
      for (let a = 0; a < width; a++) {
        const za = z[from + a]!;
        for (let b = 0; b <= a; b++, at++) to[at] = to[at]! + za * z[from + b]!;
      }
    }
  };
}
