import { tCritical } from "../distributions/t-distribution";
import { solveUpperTransposed } from "../linear-algebra/triangular";
import { type Estimate, type Inference, estimate } from "./coefficients";
import type { Fit, FitBasis } from "./least-squares";
import type { ScaledColumn } from "./prepared-design";
import { hasFullLeverage, leverages, orthonormalBasis } from "./orthonormal-basis";

/** Which standard errors: equal variances assumed, allowed to differ from case to case, or cases dependent within clusters. */
export type ErrorChoice =
  { readonly kind: "classical" } | { readonly kind: "hc3" } | { readonly kind: "cluster"; readonly codes: Int32Array };

/**
 * Covariance of the coefficients as R⁻¹·M·R⁻ᵀ, in the scaled units of the fit's basis. `middle` is M, q × q.
 */
export interface Covariance {
  readonly kind: ErrorChoice["kind"];
  /** Degrees of freedom of t and of the denominator of F. */
  readonly df: number;
  readonly middle: Float64Array;
  /** Number of clusters; null without. */
  readonly clusters: number | null;
}

/** Why robust errors cannot be had. */
export type NoCovariance = { readonly reason: "full-leverage"; readonly cases: number[] } | { readonly reason: "too-few-clusters" };

/**
 * The covariance of a fit's coefficients (docs/methods.md, “Standard errors”).
 * Sources: HC3: MacKinnon & White (1985), Journal of Econometrics 29, 305–325. CR1: Liang & Zeger (1986), Biometrika 73, 13–22,
 * with the factor G/(G − 1)·(n − 1)/df.
 */
export function covariance(fit: Fit, choice: ErrorChoice): Covariance | NoCovariance {
  switch (choice.kind) {
    case "classical":
      return classical(fit);
    case "hc3":
      return hc3(fit);
    case "cluster":
      return clusterRobust(fit, choice.codes);
  }
}

function classical(fit: Fit): Covariance {
  const q = fit.basis.kept.length;
  const middle = new Float64Array(q * q);
  const variance = fit.perfect ? 0 : fit.exact.residual[0] / fit.dfResidual;
  for (let k = 0; k < q; k++) middle[k * q + k] = variance;
  return { kind: "classical", df: fit.dfResidual, middle, clusters: null };
}

function hc3(fit: Fit): Covariance | NoCovariance {
  const h = leverages(fit);
  const cases: number[] = [];
  h.forEach((value, i) => {
    if (hasFullLeverage(value)) cases.push(i + 1);
  });
  if (cases.length > 0) return { reason: "full-leverage", cases };
  const q = fit.basis.kept.length;
  const scale = fit.exact.scale;
  const weights = h.map((value, i) => (fit.perfect ? 0 : (fit.residuals[i]! * scale) / (1 - value)));
  const basis = orthonormalBasis(fit.basis.design);
  const middle = new Float64Array(q * q);
  const weighted = new Float64Array(fit.n);
  for (let a = 0; a < q; a++) {
    for (let i = 0; i < fit.n; i++) weighted[i] = basis[a * fit.n + i]! * weights[i]! ** 2;
    for (let b = 0; b <= a; b++) {
      let sum = 0;
      for (let i = 0; i < fit.n; i++) sum += weighted[i]! * basis[b * fit.n + i]!;
      middle[a * q + b] = middle[b * q + a] = sum;
    }
  }
  return { kind: "hc3", df: fit.dfResidual, middle, clusters: null };
}

function clusterRobust(fit: Fit, codes: Int32Array): Covariance | NoCovariance {
  const groups = new Map<number, number>();
  for (const code of codes) if (!groups.has(code)) groups.set(code, groups.size);
  const clusters = groups.size;
  if (clusters < 2) return { reason: "too-few-clusters" };
  const q = fit.basis.kept.length;
  const basis = orthonormalBasis(fit.basis.design);
  const scale = fit.perfect ? 0 : fit.exact.scale;
  const at = Int32Array.from(codes, (code) => groups.get(code)!);
  const sums = new Float64Array(q * clusters);
  for (let k = 0; k < q; k++) {
    for (let i = 0; i < fit.n; i++) sums[k * clusters + at[i]!]! += basis[k * fit.n + i]! * fit.residuals[i]! * scale;
  }
  const factor = (clusters / (clusters - 1)) * ((fit.n - 1) / fit.dfResidual);
  const middle = new Float64Array(q * q);
  for (let a = 0; a < q; a++) {
    for (let b = 0; b < q; b++) {
      let sum = 0;
      for (let g = 0; g < clusters; g++) sum += sums[a * clusters + g]! * sums[b * clusters + g]!;
      middle[a * q + b] = factor * sum;
    }
  }
  return { kind: "cluster", df: clusters - 1, middle, clusters };
}

/** What combinations of the coefficients of a fit are worked out from, and nothing of the size of the sample. */
export interface CombinedFit {
  readonly n: number;
  readonly perfect: boolean;
  readonly basis: Pick<FitBasis, "width" | "kept" | "triangle" | "solution" | "dependent"> & {
    readonly design: {
      readonly columns: readonly Pick<ScaledColumn, "centre" | "scale">[];
      readonly outcome: Pick<ScaledColumn, "centre" | "scale">;
    };
  };
}

/** What a test of one coefficient or combination needs. `confidence` as .95. */
export function inference(fit: Pick<CombinedFit, "perfect">, { df }: Pick<Covariance, "df">, confidence: number): Inference {
  return { df, critical: tCritical(confidence, df), exact: fit.perfect };
}

/** Standard errors in outcome units per unit of the column: the intercept's first, then one per column of the fit. */
export function coefficientErrors(fit: Fit, of: Covariance): Float64Array {
  const { kept } = fit.basis;
  return Float64Array.from(kept, (_, i) => {
    const weights = new Float64Array(kept.length);
    weights[i] = 1;
    return combinationError(fit, of, weights);
  });
}

/**
 * Standard error of w₀·intercept + Σ wⱼ·bⱼ, outcome units.
 * @param weights length q: the intercept's first, then one per column of the fit, in the units the columns entered in
 */
function combinationError(fit: CombinedFit, of: Covariance, weights: ArrayLike<number>): number {
  const { design, triangle, kept } = fit.basis;
  const scaled = scaledWeights(fit, weights);
  const size = scaled.reduce((largest, w) => Math.max(largest, Math.abs(w)), 0);
  if (size === 0) return 0;
  // a column in a unit of 1e-160 has weights whose squares would overflow
  const u = solveUpperTransposed(
    triangle,
    scaled.map((w) => w / size),
    kept.length,
  );
  return (Math.sqrt(Math.max(0, varianceAlong(of, u))) * size) / design.outcome.scale;
}

/** uᵀ·M·u. */
function varianceAlong({ kind, middle }: Covariance, u: Float64Array): number {
  const q = u.length;
  let variance = 0;
  for (let a = 0; a < q; a++) {
    let sum = 0;
    if (kind === "classical")
      sum = middle[a * q + a]! * u[a]!; // M is s² times the identity
    else for (let b = 0; b < q; b++) sum += middle[a * q + b]! * u[b]!;
    variance += u[a]! * sum;
  }
  return variance;
}

/** The same combination in the centred and scaled units of the basis. */
function scaledWeights(fit: CombinedFit, weights: ArrayLike<number>): Float64Array {
  const { design, kept } = fit.basis;
  return Float64Array.from(kept, (k, i) => {
    if (k === 0) return weights[0]!;
    const { centre, scale } = design.columns[k - 1]!;
    return (weights[i]! - weights[0]! * centre) * scale;
  });
}

/** A combination w₀·intercept + Σ wⱼ·bⱼ with its test. See combinationError for the weights. */
export function combination(fit: CombinedFit, of: Covariance, weights: ArrayLike<number>, confidence: number): Estimate {
  const { design, solution } = fit.basis;
  const scaled = scaledWeights(fit, weights);
  let value = 0;
  for (let i = 0; i < scaled.length; i++) value += scaled[i]! * solution[i]!;
  value = value / design.outcome.scale + weights[0]! * design.outcome.centre;
  return estimate(value, combinationError(fit, of, weights), inference(fit, of, confidence));
}

/**
 * Variances and covariance of two combinations, [w·w, w·v, v·v], in squared outcome units: what the error of w + t·v is made of for any t.
 * @param w, v as in `combination`; their sizes should not differ by much
 */
export function combinationCovariance(
  fit: CombinedFit,
  of: Covariance,
  w: ArrayLike<number>,
  v: ArrayLike<number>,
): [number, number, number] {
  const { design, triangle, kept } = fit.basis;
  const solved = [w, v].map((weights) => solveUpperTransposed(triangle, scaledWeights(fit, weights), kept.length));
  const [a, b] = [solved[0]!, solved[1]!];
  const sum = varianceAlong(of, a.map((x, i) => x + b[i]!)); // prettier-ignore
  const difference = varianceAlong(of, a.map((x, i) => x - b[i]!)); // prettier-ignore
  const unit = 1 / design.outcome.scale ** 2;
  return [varianceAlong(of, a) * unit, ((sum - difference) / 4) * unit, varianceAlong(of, b) * unit];
}

/** True when the weights say of a dropped column what the kept ones say of it: otherwise its share is not known. @param row a weight per column of the design */
export function isEstimable(fit: CombinedFit, intercept: number, row: readonly number[]): boolean {
  const { design, kept, dependent } = fit.basis;
  const scaled = (column: number) => {
    const { centre, scale } = design.columns[column - 1]!;
    return (row[column - 1]! - intercept * centre) * scale;
  };
  return dependent.every(({ column, weights }) => {
    const own = scaled(column);
    let implied = weights[0]! * intercept;
    let size = Math.abs(own);
    for (let i = 1; i < weights.length; i++) {
      const part = weights[i]! * scaled(kept[i]!);
      implied += part;
      size = Math.max(size, Math.abs(part));
    }
    return Math.abs(own - implied) <= 1e-8 * Math.max(size, 1 / Math.sqrt(fit.n));
  });
}
