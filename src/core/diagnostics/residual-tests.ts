import { chiSquaredUpperTail } from "../distributions/chi-squared-distribution";
import { mean } from "../describe/mean";
import { isConstant } from "../describe/constant";
import { standardDeviation } from "../describe/standard-deviation";
import { randomStream } from "../random/random-stream";
import { shuffle } from "../random/shuffle";
import { type Fit, leastSquares } from "../regression/least-squares";
import { shareOutside } from "../regression/orthonormal-basis";
import { prepareDesign } from "../regression/prepared-design";
import { rSquaredChange } from "../regression/r-squared-change";

/** Why a test of the residuals cannot be had. */
export interface NoTest {
  reason: "perfect-fit" | "no-columns" | "nothing-to-add" | "no-degrees-of-freedom" | "residuals-all-alike";
}

/** Do the squared residuals go with the columns? n·R² of that regression, χ² with as many degrees of freedom as columns. */
export interface BreuschPagan {
  chi2: number;
  df: number;
  p: number;
}

/**
 * Breusch and Pagan's test of constant variance in Koenker's form.
 * Source: Koenker (1981), Journal of Econometrics 17, 107–112.
 */
export function breuschPagan(fit: Fit): BreuschPagan | NoTest {
  const df = fit.columns.length;
  if (fit.perfect) return { reason: "perfect-fit" };
  if (df === 0) return { reason: "no-columns" };
  const s = Math.sqrt(fit.ssResidual / fit.n);
  const squared = fit.residuals.map((e) => (e / s) ** 2);
  if (isConstant(squared)) return { reason: "residuals-all-alike" };
  const centre = mean(squared);
  const explained =
    1 -
    shareOutside(
      fit,
      squared.map((v) => v - centre),
    );
  const chi2 = fit.n * explained;
  return { chi2, df, p: chiSquaredUpperTail(chi2, df) };
}

/** Do squares and cubes of the fitted values add anything? F of entering both. */
export interface Reset {
  F: number;
  df: readonly [number, number];
  p: number;
}

/**
 * Ramsey's regression specification error test with squared and cubed fitted values.
 * @param fitted fitted values of the fit, length n
 * Source: Ramsey (1969), Journal of the Royal Statistical Society B 31, 350–371.
 */
export function reset(fit: Fit, fitted: Float64Array): Reset | NoTest {
  if (fit.perfect) return { reason: "perfect-fit" };
  if (fit.columns.length === 0 || isConstant(fitted)) return { reason: "no-columns" };
  if (fit.dfResidual < 3) return { reason: "no-degrees-of-freedom" };
  // powers of the z-scores span the same space beside the columns, without their size
  const [centre, sd] = [mean(fitted), standardDeviation(fitted)];
  const z = fitted.map((v) => (v - centre) / sd);
  const largest = z.reduce((size, v) => Math.max(size, Math.abs(v)), 0);
  const noise = 64 * Number.EPSILON * (Math.abs(centre) / sd + largest); // fitted values carry the rounding of a fit
  const { design, kept } = fit.basis;
  const columns = kept.slice(1).map((k) => design.columns[k - 1]!);
  const powers = [2, 3].map((k) => ({ name: `fitted^${k}`, values: z.map((v) => v ** k), noise: k * largest ** (k - 1) * noise }));
  const wider = prepareDesign([...columns, ...powers], design.outcome);
  const before = leastSquares(wider, columns.length);
  const after = leastSquares(wider, columns.length + 2);
  const { F, df, p } = rSquaredChange(before, after);
  if (df[0] === 0) return { reason: "nothing-to-add" };
  return F === null || p === null ? { reason: "perfect-fit" } : { F, df, p };
}

/** Do neighbours in the stated order resemble one another? d is near 2 when not, below 2 when they do. */
export interface DurbinWatson {
  d: number;
  /** Two-sided: twice the smaller share of shuffled orders with a d at least as extreme, (1 + count)/(B + 1). Null without shuffles. */
  p: number | null;
  permutations: number;
  seed: number;
}

/** How many shuffled orders had a d no larger, and no smaller, than that of the stated order. */
export interface Beyond {
  below: number;
  above: number;
}

/**
 * Shuffled orders of a range, counted for each fit: the counts of ranges add up, so that they can be dealt out. All fits see the same shuffles; the k-th
 * draws from stream (seed, k).
 */
export function shuffledBeyond(
  fits: readonly Fit[],
  order: ArrayLike<number>,
  seed: number,
  { first, count }: { first: number; count: number },
): Beyond[] {
  const tested = fits.map((fit) => {
    const e = scaledResiduals(fit);
    return { e, observed: sumOfSteps(e, order), below: 0, above: 0 };
  });
  const shuffled = Int32Array.from(order);
  for (let k = first; k < first + count; k++) {
    shuffled.set(order);
    shuffle(shuffled, randomStream(seed, k));
    for (const one of tested) {
      const found = sumOfSteps(one.e, shuffled);
      const same = Math.abs(found - one.observed) <= 1e-12 * one.observed;
      if (same || found < one.observed) one.below++;
      if (same || found > one.observed) one.above++;
    }
  }
  return tested.map(({ below, above }) => ({ below, above }));
}

/**
 * Durbin–Watson d of the residuals of one or more fits of a sample in a stated order, with a permutation p.
 * @param order the cases (from 0) in that order
 * @param permutations with 0 shuffles d alone
 * @param beyond counts over all the shuffles, one a fit; made here when left out
 * Source: Durbin & Watson (1950), Biometrika 37, 409–428.
 */
export function durbinWatson(
  fits: readonly Fit[],
  order: ArrayLike<number>,
  { seed, permutations }: { seed: number; permutations: number },
  beyond: readonly Beyond[] = shuffledBeyond(fits, order, seed, { first: 0, count: permutations }),
): (DurbinWatson | NoTest)[] {
  return fits.map((fit, k) => {
    if (fit.perfect) return { reason: "perfect-fit" };
    const e = scaledResiduals(fit);
    const { below, above } = beyond[k]!;
    const p = permutations === 0 ? null : Math.min(1, (2 * Math.min(1 + below, 1 + above)) / (permutations + 1));
    return { d: sumOfSteps(e, order) / e.reduce((sum, v) => sum + v * v, 0), p, permutations, seed };
  });
}

function scaledResiduals(fit: Fit): Float64Array {
  const s = Math.sqrt(fit.ssResidual / fit.n) || 1;
  return fit.residuals.map((v) => v / s);
}

/** Σ (e of a case − e of the case before it)². */
function sumOfSteps(e: Float64Array, order: ArrayLike<number>): number {
  let sum = 0;
  let before = e[order[0]!]!;
  for (let i = 1; i < order.length; i++) {
    const value = e[order[i]!]!;
    sum += (value - before) * (value - before);
    before = value;
  }
  return sum;
}
