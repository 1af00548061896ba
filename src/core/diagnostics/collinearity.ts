import { SingularValueDecomposition } from "ml-matrix";
import { factorize } from "../linear-algebra/householder";
import type { DesignColumn } from "../regression/design-matrix";
import type { Fit } from "../regression/least-squares";
import { termPositions } from "../regression/term-tests";
import { type Term, termName } from "../regression/terms";
import { whitenedBlock } from "../regression/wald-test";

/** How much a whole term shares with the others. */
export interface TermInflation {
  term: string;
  /** Columns of the term that carry a coefficient. */
  columns: number;
  /** Generalized variance inflation factor, ≥ 1; null without columns. */
  gvif: number | null;
  /** Its 1/(2·columns) power, comparable between terms of different size: the square root of VIF for one column. */
  root: number | null;
}

/**
 * det(C_T)·det(C_O)/det(C) with C the correlations of the step's columns, T the term's and O the others.
 * Source: Fox & Monette (1992), Journal of the American Statistical Association 87, 178–183.
 */
export function termInflations(columns: readonly DesignColumn[], terms: readonly Term[], fit: Fit): TermInflation[] {
  return termPositions(columns, terms, fit).map(({ term, positions }) => {
    const m = positions.length;
    if (m === 0) return { term: termName(term), columns: 0, gvif: null, root: null };
    // det(C_O)/det(C) is the determinant of the term's block of C⁻¹; the columns' lengths cancel
    const gvif = Math.max(1, determinantOfColumns(fit, positions) * whitenedBlock(fit, positions).determinant);
    return { term: termName(term), columns: m, gvif, root: gvif ** (1 / (2 * m)) };
  });
}

/** Determinant of the centred cross-products of some columns, from their entries in R below the intercept's row. */
function determinantOfColumns(fit: Fit, positions: readonly number[]): number {
  const { triangle, kept } = fit.basis;
  const q = kept.length;
  const m = positions.length;
  const packed = new Float64Array((q - 1) * m);
  positions.forEach((at, column) => {
    for (let row = 1; row <= at; row++) packed[column * (q - 1) + row - 1] = triangle[row * q + at]!;
  });
  const f = factorize(packed, q - 1, m, new Float64Array(m));
  let determinant = 1;
  for (let k = 0; k < m; k++) determinant *= f.packed[k * (q - 1) + k]! ** 2;
  return determinant;
}

/** Condition indices, largest direction first, and each coefficient's share of variance in every direction. */
export interface ConditionIndices {
  /** Largest singular value ÷ each one, 1…; length q. */
  index: number[];
  /** "(Intercept)" and each column: shares that add up to 1, in the order of `index`. */
  proportions: Map<string, number[]>;
}

/**
 * Condition indices and variance proportions on unit-length columns with the intercept, as they stand in the model.
 * The singular values are those of R, so nothing is squared: about 16 − log₁₀(index) digits.
 * Source: Belsley (1991), Conditioning Diagnostics, ch. 2.
 */
export function conditionIndices(fit: Fit): ConditionIndices {
  const { design, triangle, kept } = fit.basis;
  const q = kept.length;
  const unit = kept.map((k, at) => {
    const column = Array.from({ length: q }, (_, row) => triangle[row * q + at]!);
    if (k > 0) {
      const { centre, scale } = design.columns[k - 1]!;
      column[0]! += centre * scale * triangle[0]!; // back from the centred column: its mean along the intercept
    }
    const longest = Math.max(...column.map(Math.abs));
    const length = longest * Math.hypot(...column.map((v) => v / longest));
    return column.map((v) => v / length);
  });
  const rows = Array.from({ length: q }, (_, row) => unit.map((column) => column[row]!));
  const svd = new SingularValueDecomposition(rows, {
    computeLeftSingularVectors: false,
    computeRightSingularVectors: true,
    autoTranspose: false,
  });
  const singular = svd.diagonal;
  const vectors = svd.rightSingularVectors;
  const proportions = new Map<string, number[]>();
  kept.forEach((k, at) => {
    const shares = singular.map((value, direction) => (vectors.get(at, direction) / value) ** 2);
    const sum = shares.reduce((total, share) => total + share, 0);
    proportions.set(
      k === 0 ? "(Intercept)" : design.columns[k - 1]!.name,
      shares.map((share) => share / sum),
    );
  });
  return { index: singular.map((value) => singular[0]! / value), proportions };
}
