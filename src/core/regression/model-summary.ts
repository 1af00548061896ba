import { fUpperTail } from "../distributions/f-distribution";
import type { Fit } from "./least-squares";

/** How well one step's model does as a whole. Null: not available, for the reason in the step's notes. */
export interface ModelSummary {
  n: number;
  /** Columns besides the intercept. */
  p: number;
  dfResidual: number;
  /** Share of the outcome's variance explained, 0…1. */
  R2: number;
  /** 1 − (1 − R²)(n − 1)/df; may be negative. */
  adjustedR2: number;
  R: number;
  F: number | null;
  df: readonly [number, number];
  pF: number | null;
  ssRegression: number;
  ssResidual: number;
  ssTotal: number;
  msRegression: number | null;
  msResidual: number;
  /** Residual SD √(SSE/df), outcome units. */
  residualSd: number;
  /** √(SSE/n), outcome units. */
  rmse: number;
  logLikelihood: number | null;
  /** Parameters counted by the information criteria: p + 2. */
  k: number;
  AIC: number | null;
  AICc: number | null;
  BIC: number | null;
}

/** Contract section 3. A model without columns has no F; a perfect fit has neither F nor a likelihood. */
export function modelSummary(fit: Fit): ModelSummary {
  const { n, dfResidual: df, ssTotal, ssResidual, ssRegression, perfect } = fit;
  const p = fit.columns.length;
  const R2 = Math.min(1, ssRegression / ssTotal);
  const unexplained = ssResidual / ssTotal;
  const F = p === 0 || perfect ? null : ssRegression / p / (ssResidual / df);
  const k = p + 2;
  const logLikelihood = perfect ? null : (-n / 2) * (Math.log(2 * Math.PI) + Math.log(ssResidual / n) + 1);
  const AIC = logLikelihood === null ? null : -2 * logLikelihood + 2 * k;
  return {
    n,
    p,
    dfResidual: df,
    R2,
    adjustedR2: 1 - (unexplained * (n - 1)) / df,
    R: Math.sqrt(R2),
    F,
    df: [p, df],
    pF: F === null ? null : fUpperTail(F, p, df),
    ssRegression,
    ssResidual,
    ssTotal,
    msRegression: p === 0 ? null : ssRegression / p,
    msResidual: ssResidual / df,
    residualSd: Math.sqrt(ssResidual / df),
    rmse: Math.sqrt(ssResidual / n),
    logLikelihood,
    k,
    AIC,
    AICc: AIC === null || n - k - 1 <= 0 ? null : AIC + (2 * k * (k + 1)) / (n - k - 1),
    BIC: logLikelihood === null ? null : -2 * logLikelihood + k * Math.log(n),
  };
}
