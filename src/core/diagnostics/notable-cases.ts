import { tTwoSided } from "../distributions/t-distribution";
import type { Fit } from "../regression/least-squares";
import { hasFullLeverage, leverages } from "../regression/orthonormal-basis";
import { dfbetasOfCase } from "./case-statistics";

/** A case to look at, and why. */
export interface NotableCase {
  /** Counted from 0 within the sample. */
  at: number;
  cooksD: number;
  /** Externally studentized residual. */
  residual: number;
  /** The coefficient it moves most, and by how many standard errors; the intercept is left out. */
  moves: { column: string; errors: number } | null;
  /** "moves": it changes the coefficients clearly. "far": its residual is larger than chance among so many would have it. */
  why: "moves" | "far";
}

/** Cook's D from which a case is said to change the coefficients clearly. */
const MOVES = 0.5;
/** Chance of naming any residual far when all are as the model has them. */
const FAR = 0.05;
const MOST = 10;

/**
 * Cases whose Cook's D is at least .5, and cases whose deleted residual is too large for chance among n (Bonferroni, p < .05). Places to look,
 * never grounds to leave someone out.
 * @returns the ten with the largest Cook's D
 * Sources: Cook & Weisberg (1982), Residuals and Influence in Regression, ch. 3; Weisberg (2014), Applied Linear Regression, 4th ed., 9.1.
 */
export function notableCases(fit: Fit): NotableCase[] {
  const { n, residuals, dfResidual: df, perfect } = fit;
  if (perfect || df < 2) return [];
  const leverage = leverages(fit);
  const q = fit.basis.kept.length;
  const s = Math.sqrt(fit.ssResidual / df);
  const notable: NotableCase[] = [];
  for (let at = 0; at < n; at++) {
    const [e, h] = [residuals[at]!, leverage[at]!];
    if (hasFullLeverage(h)) continue;
    const r = e / s / Math.sqrt(1 - h);
    const left = (df - r * r) / (df - 1);
    if (!(left > 1e-14)) continue; // the others fit perfectly
    const cooksD = (r * r * h) / ((1 - h) * q);
    const residual = r / Math.sqrt(left);
    const far = Math.abs(residual) > 3 && tTwoSided(residual, df - 1) * n < FAR;
    if (cooksD < MOVES && !far) continue;
    const moved = dfbetasOfCase(fit, at, e / (1 - h), s * Math.sqrt(left))
      .slice(1)
      .sort((a, b) => Math.abs(b.errors) - Math.abs(a.errors));
    notable.push({ at, cooksD, residual, moves: moved[0] ?? null, why: cooksD >= MOVES ? "moves" : "far" });
  }
  return notable.sort((a, b) => b.cooksD - a.cooksD).slice(0, MOST);
}
