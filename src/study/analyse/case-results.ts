import { lowess } from "@/core/describe/lowess";
import { addedVariables, caseStatistics } from "@/core/diagnostics/case-statistics";
import type { LadderModels } from "@/core/regression/ladder";
import type { Fit } from "@/core/regression/least-squares";
import { breuschPagan, type DurbinWatson, durbinWatson, type NoTest, type Reset, reset } from "@/core/diagnostics/residual-tests";
import type { Ladder } from "../model/ladder";
import type { AnalysisSample } from "../prepare/analysis-sample";
import type { StudyColumns } from "../prepare/study-columns";
import { sampleOrder } from "./row-order";
import { normality } from "./variable-results";

/** Lists with a value per case are written for samples up to this size; the tests are made for any. */
const MOST_LISTED = 20_000;
/** Shuffles behind the p of Durbin and Watson's d. For larger samples fewer, and for the last step only: nobody waits for minutes. */
const PERMUTATIONS = 1_999;
const PERMUTATIONS_OF_MANY = 199;

/** Case statistics, residual tests and their pictures' data: of the last step, but for Durbin–Watson, which has every step. */
export function caseResults(ladder: Ladder, models: LadderModels, sample: AnalysisSample, columns: StudyColumns) {
  const fit = models.fits.at(-1)!;
  const fitted = models.y.map((v, i) => v - fit.residuals[i]!);
  return {
    ...caseLists(fit, models),
    tests: { breusch_pagan_koenker: breuschPagan(fit), reset: resetResults(reset(fit, fitted)) },
    shapiro_wilk: fit.perfect ? { W: null, p: null, reason: "perfect-fit" } : normality(fit.residuals),
    ...serial(ladder, models, sample, columns),
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

function serial(ladder: Ladder, models: LadderModels, sample: AnalysisSample, columns: StudyColumns) {
  const stated = sampleOrder(ladder, columns, sample.rowsUsed);
  if ("reason" in stated) return { durbin_watson: null, durbin_watson_permutation: { available: false as const, reason: stated.reason } };
  const { seed } = ladder;
  const many = models.y.length > MOST_LISTED;
  const test = (fits: readonly Fit[], permutations: number) => durbinWatson(fits, stated.order, { seed, permutations });
  const tests = many
    ? [...test(models.fits.slice(0, -1), 0), ...test(models.fits.slice(-1), PERMUTATIONS_OF_MANY)]
    : test(models.fits, PERMUTATIONS);
  return {
    durbin_watson: Object.fromEntries(tests.map((t, k) => [String(k + 1), "d" in t ? t.d : null])),
    durbin_watson_permutation: Object.fromEntries(tests.map((t, k) => [String(k + 1), permutationResults(t)])),
  };
}
