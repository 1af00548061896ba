import type { Fit } from "../regression/least-squares";
import { hasFullLeverage, leverages, orthonormalBasis } from "../regression/orthonormal-basis";

/** A value per case, null where it is not available: with leverage 1, or with nothing left to divide by. */
export type PerCase = (number | null)[];

/** How each case fits, and what it does to the fit (docs/methods.md, “Who makes the result”). In the order of the sample. */
export interface CaseStatistics {
  fitted: Float64Array;
  /** Observed − fitted, outcome units. */
  residual: Float64Array;
  /** e/s. */
  standardized: PerCase;
  /** Internally studentized: e/(s·√(1 − h)). */
  studentized: PerCase;
  /** Externally studentized, the case left out of s: t with df − 1. */
  deletedStudentized: PerCase;
  leverage: Float64Array;
  cooksD: PerCase;
  dffits: PerCase;
  /** Change of each coefficient when the case leaves, in standard errors; the intercept's first, then the fit's columns. */
  dfbetas: { name: string; values: PerCase }[];
  /** Cases with leverage 1, counted from 1 within the sample. */
  fullLeverage: number[];
}

/**
 * Case statistics of a fit, from one pass over its basis.
 * Source: Belsley, Kuh & Welsch (1980), Regression Diagnostics, ch. 2; Cook (1977), Technometrics 19, 15–18.
 */
export function caseStatistics(fit: Fit, y: Float64Array): CaseStatistics {
  const { n, residuals, dfResidual: df, perfect } = fit;
  const q = fit.basis.kept.length;
  const leverage = leverages(fit);
  const s = Math.sqrt(fit.ssResidual / df);
  const standardized: PerCase = new Array(n).fill(null);
  const studentized: PerCase = new Array(n).fill(null);
  const deletedStudentized: PerCase = new Array(n).fill(null);
  const cooksD: PerCase = new Array(n).fill(null);
  const dffits: PerCase = new Array(n).fill(null);
  const fullLeverage: number[] = [];
  // e/(1 − h) and the residual SD without the case, for DFBETAS; 0 marks a case without them
  const jump = new Float64Array(n);
  const without = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const e = residuals[i]!;
    const h = leverage[i]!;
    if (!perfect) standardized[i] = e / s;
    if (hasFullLeverage(h)) {
      fullLeverage.push(i + 1);
      continue;
    }
    if (perfect) continue;
    const r = e / s / Math.sqrt(1 - h);
    studentized[i] = r;
    cooksD[i] = (r * r * h) / ((1 - h) * q);
    if (df < 2) continue;
    const leftVariance = (df - r * r) / (df - 1); // s²₍ᵢ₎/s²
    if (!(leftVariance > 1e-14)) continue; // the others fit perfectly
    const t = r / Math.sqrt(leftVariance);
    deletedStudentized[i] = t;
    dffits[i] = t * Math.sqrt(h / (1 - h));
    jump[i] = e / (1 - h);
    without[i] = s * Math.sqrt(leftVariance);
  }
  return {
    fitted: y.map((v, i) => v - residuals[i]!),
    residual: residuals,
    standardized,
    studentized,
    deletedStudentized,
    leverage,
    cooksD,
    dffits,
    dfbetas: dfbetas(fit, jump, without),
    fullLeverage,
  };
}

/** Size of the internally studentized residual with which a case of some leverage has a given Cook's distance, in a model of `p` columns besides the intercept. */
export function studentizedAt(cooksD: number, leverage: number, p: number): number {
  return Math.sqrt((cooksD * (p + 1) * (1 - leverage)) / leverage);
}

/** (b − b₍ᵢ₎)/(s₍ᵢ₎·√(XᵀX)⁻¹ⱼⱼ), with b − b₍ᵢ₎ = (XᵀX)⁻¹xᵢ·e/(1 − h) and (XᵀX)⁻¹Xᵀ = R⁻¹Qᵀ. */
function dfbetas(fit: Fit, jump: Float64Array, without: Float64Array): CaseStatistics["dfbetas"] {
  const basis = orthonormalBasis(fit.basis.design);
  return directions(fit).map(({ name, direction }) => {
    const change = new Float64Array(fit.n);
    direction.forEach((weight, c) => {
      for (let i = 0; i < fit.n; i++) change[i] = change[i]! + weight * basis[c * fit.n + i]!;
    });
    const values = Array.from(change, (v, i) => (without[i] === 0 ? null : (v * jump[i]!) / without[i]!));
    return { name, values };
  });
}

/**
 * DFBETAS of one case: how far each coefficient moves when it leaves, in standard errors; the intercept's first.
 * @param jump e/(1 − h) of the case; @param without the residual SD without it
 */
export function dfbetasOfCase(fit: Fit, at: number, jump: number, without: number): { column: string; errors: number }[] {
  const basis = orthonormalBasis(fit.basis.design);
  return directions(fit).map(({ name, direction }) => ({
    column: name,
    errors: (direction.reduce((sum, weight, c) => sum + weight * basis[c * fit.n + at]!, 0) * jump) / without,
  }));
}

/** The row of R⁻¹ of each coefficient as it stands in the model, brought to length 1. */
function directions(fit: Fit): { name: string; direction: Float64Array }[] {
  const { design, kept, inverse } = fit.basis;
  const q = kept.length;
  const rows = kept.map((_, at) => inverse.slice(at * q, (at + 1) * q));
  kept.forEach((k, at) => {
    if (k === 0) return;
    const { centre, scale } = design.columns[k - 1]!;
    for (let c = 0; c < q; c++) rows[0]![c]! -= centre * scale * rows[at]![c]!; // the intercept of the columns as they entered
  });
  return kept.map((k, at) => {
    const row = rows[at]!;
    const length = Math.sqrt(row.reduce((sum, v) => sum + v * v, 0));
    return { name: k === 0 ? "(Intercept)" : design.columns[k - 1]!.name, direction: row.map((v) => v / length) };
  });
}

/** What an added-variable plot shows of one coefficient: both sides freed of all other columns. The slope of y on x is b. */
export interface AddedVariable {
  column: string;
  /** Residuals of the column on the other columns, in its own units. */
  x: Float64Array;
  /** Residuals of the outcome on the other columns, outcome units. */
  y: Float64Array;
}

/**
 * Added-variable data of every column of a fit, without a further fit: with a the column's row of R⁻¹, Q·a/‖a‖² is what is
 * left of the column, and the outcome's residuals are e + b·x.
 * Source: Cook & Weisberg (1982), Residuals and Influence in Regression, 2.3.2.
 */
export function addedVariables(fit: Fit): AddedVariable[] {
  return fit.columns.map((column, i) => {
    const x = leftOfColumn(fit, i);
    const b = fit.slopes[i]!;
    return { column, x, y: x.map((v, j) => fit.residuals[j]! + b * v) };
  });
}

/** What is left of a column of the fit without the others, in its own units, one value per case. */
export function leftOfColumn(fit: Fit, column: number): Float64Array {
  const { design, kept, inverse } = fit.basis;
  const { n } = fit;
  const q = kept.length;
  const basis = orthonormalBasis(design);
  const row = inverse.subarray((column + 1) * q, (column + 2) * q);
  const squares = row.reduce((sum, v) => sum + v * v, 0);
  const { scale } = design.columns[kept[column + 1]! - 1]!;
  const x = new Float64Array(n);
  for (let c = column + 1; c < q; c++) {
    const weight = row[c]! / squares / scale;
    const from = c * n;
    for (let j = 0; j < n; j++) x[j] = x[j]! + weight * basis[from + j]!;
  }
  return x;
}
