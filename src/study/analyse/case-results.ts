import { lowess } from "@/core/describe/lowess";
import { addedVariables, caseStatistics } from "@/core/diagnostics/case-statistics";
import type { LadderModels } from "@/core/regression/ladder";
import type { Fit } from "@/core/regression/least-squares";
import {
  type Beyond,
  breuschPagan,
  type DurbinWatson,
  durbinWatson,
  type NoTest,
  type Reset,
  reset,
  shuffledBeyond,
} from "@/core/diagnostics/residual-tests";
import type { Ladder } from "../model/ladder";
import type { AnalysisSample } from "../prepare/analysis-sample";
import { ladderSample, modelsOn } from "../prepare/ladder-models";
import type { StudyColumns } from "../prepare/study-columns";
import { sampleOrder } from "./row-order";
import { normality } from "./variable-results";

/** Lists with a value per case are written for samples up to this size; the tests are made for any. */
const MOST_LISTED = 20_000;
/** Shuffles behind the p of Durbin and Watson's d. For larger samples fewer, and for the last step only: nobody waits for minutes. */
const PERMUTATIONS = 1_999;
const PERMUTATIONS_OF_MANY = 199;

/**
 * Case statistics, residual tests and their pictures' data: of the last step, but for Durbin–Watson, which has every step.
 * @param beyond what all of ladderShuffles gave; made here when left out
 */
export function caseResults(
  ladder: Ladder,
  models: LadderModels,
  sample: AnalysisSample,
  columns: StudyColumns,
  beyond?: readonly Beyond[],
) {
  const fit = models.fits.at(-1)!;
  const fitted = models.y.map((v, i) => v - fit.residuals[i]!);
  return {
    ...caseLists(fit, models),
    tests: { breusch_pagan_koenker: breuschPagan(fit), reset: resetResults(reset(fit, fitted)) },
    shapiro_wilk: fit.perfect ? { W: null, p: null, reason: "perfect-fit" } : normality(fit.residuals),
    ...serial(ladder, models, sample, columns, beyond),
  };
}

function caseLists(fit: Fit, models: LadderModels) {
  if (fit.n > MOST_LISTED) {
    const left = { available: false as const, reason: "too-many-cases-to-list", most: MOST_LISTED };
    return { influence: left, added_variables: left, residual_smooth: left, outcome_smooths: left };
  }
  const c = caseStatistics(fit, models.y);
  return {
    influence: {
      fitted: Array.from(c.fitted),
      residual: Array.from(c.residual),
      standardized: c.standardized,
      studentized: c.studentized,
      deleted_studentized: c.deletedStudentized,
      leverage: Array.from(c.leverage),
      cooks_d: c.cooksD,
      dffits: c.dffits,
      dfbetas: Object.fromEntries(c.dfbetas.map(({ name, values }) => [name, values])),
      full_leverage: c.fullLeverage,
    },
    added_variables: Object.fromEntries(addedVariables(fit).map((a) => [a.column, { x: Array.from(a.x), y: Array.from(a.y) }])),
    residual_smooth: Array.from(lowess(c.fitted, c.residual)),
    outcome_smooths: Object.fromEntries(
      [...models.variables].flatMap(([name, x]) =>
        name === models.spec.outcome || "codes" in x ? [] : [[name, Array.from(lowess(x, models.y))]],
      ),
    ),
  };
}

function resetResults(test: Reset | NoTest) {
  return "reason" in test ? test : { F: test.F, df1: test.df[0], df2: test.df[1], p: test.p };
}

function permutationResults(test: DurbinWatson | NoTest) {
  if ("reason" in test) return { p: null, reason: test.reason };
  if (test.p === null) return { p: null, reason: "last-step-only-in-large-samples" };
  return { p: test.p, permutations: test.permutations, seed: test.seed };
}

/** The shuffles a ladder's Durbin–Watson tests take: in large samples the last step alone has some. Null: the order means nothing. */
function shufflesOf(ladder: Ladder, models: LadderModels, sample: AnalysisSample, columns: StudyColumns) {
  const stated = sampleOrder(ladder, columns, sample.rowsUsed);
  if ("reason" in stated) return stated;
  const many = models.y.length > MOST_LISTED;
  return {
    order: stated.order,
    permutations: many ? PERMUTATIONS_OF_MANY : PERMUTATIONS,
    fits: many ? models.fits.slice(-1) : models.fits,
  };
}

/** How many shuffles there are to deal out for a ladder; 0 for none. */
export function ladderShuffles(ladder: Ladder, columns: StudyColumns): number {
  const found = ladderSample(ladder, columns);
  const shuffles = shufflesOf(ladder, modelsOn(ladder, found), found.sample, columns);
  return "reason" in shuffles ? 0 : shuffles.permutations;
}

/** Some of them, counted. */
export function shuffledRange(ladder: Ladder, columns: StudyColumns, range: { first: number; count: number }): Beyond[] {
  const found = ladderSample(ladder, columns);
  const shuffles = shufflesOf(ladder, modelsOn(ladder, found), found.sample, columns);
  return "reason" in shuffles ? [] : shuffledBeyond(shuffles.fits, shuffles.order, ladder.seed, range);
}

function serial(
  ladder: Ladder,
  models: LadderModels,
  sample: AnalysisSample,
  columns: StudyColumns,
  beyond: readonly Beyond[] | undefined,
) {
  const shuffles = shufflesOf(ladder, models, sample, columns);
  if ("reason" in shuffles) {
    return { durbin_watson: null, durbin_watson_permutation: { available: false as const, reason: shuffles.reason } };
  }
  const { order, permutations, fits } = shuffles;
  const { seed } = ladder;
  const without = models.fits.slice(0, models.fits.length - fits.length);
  const tests = [...durbinWatson(without, order, { seed, permutations: 0 }), ...durbinWatson(fits, order, { seed, permutations }, beyond)];
  return {
    durbin_watson: Object.fromEntries(tests.map((t, k) => [String(k + 1), "d" in t ? t.d : null])),
    durbin_watson_permutation: Object.fromEntries(tests.map((t, k) => [String(k + 1), permutationResults(t)])),
  };
}
