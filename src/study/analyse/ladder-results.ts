import type { CodingTable } from "@/core/regression/categories";
import type { Coefficient, Estimate } from "@/core/regression/coefficients";
import { exploratoryMark } from "../model/exploratory";
import { conditionIndices, termInflations } from "@/core/diagnostics/collinearity";
import { covariance, type ErrorChoice, type NoCovariance } from "@/core/regression/covariance";
import { type LadderFit, type LadderModels, ladderTables, standardized, type StepFit, termsUpTo } from "@/core/regression/ladder";
import { type MarginalMeans, marginalMeans } from "@/core/regression/marginal-means";
import { termName } from "@/core/regression/terms";
import { activeTerms, type Ladder, ladderPredictors } from "../model/ladder";
import type { StudyColumns } from "../prepare/study-columns";
import type { FittedLadder } from "./analyse-ladder";
import { caseResults } from "./case-results";
import { changeResults } from "./change-results";
import { stepComparison } from "./comparison-results";
import type { Beyond } from "@/core/diagnostics/residual-tests";
import { ladderFigures, type ReplicateIntervals } from "../model/replicate-intervals";
import { ladderMoments } from "./ladder-moments";
import { sampleResults } from "./sample-results";

const METHODS = {
  classical: "least squares, classical standard errors",
  hc3: "least squares, HC3 standard errors",
  cluster: "least squares, cluster-robust standard errors (CR1)",
};

/** What was worked out beforehand, on as many threads as there are. */
export interface WorkedOut {
  readonly intervals?: ReplicateIntervals | null | undefined;
  readonly beyond?: readonly Beyond[] | undefined;
}

/** Everything about one ladder under the names of docs/results.md. */
export function ladderResults(ladder: Ladder, fitted: FittedLadder, columns: StudyColumns, worked: WorkedOut = {}) {
  const settings = {
    outcome: ladder.outcome,
    filter: ladder.filter,
    respondents: ladder.respondents,
    centring: ladder.centring,
    confidence: ladder.confidence,
    intervals: ladder.intervals,
    errors: ladder.cluster === null ? ladder.errors : ("cluster" as const),
    cluster: ladder.cluster,
    categories: ladder.categories,
    standardizeIndicators: ladder.standardizeIndicators,
    alsoComplete: ladder.alsoComplete,
    order: ladder.order,
    folds: ladder.folds,
    seed: ladder.seed,
    exploratory: ladder.exploratory,
    steps: ladder.steps.map((step) => activeTerms(step).map(termName)),
    method: METHODS[ladder.cluster === null ? ladder.errors : "cluster"],
  };
  const sample = fitted.sample && sampleResults(fitted.sample);
  if (fitted.status === "refused") return { name: ladder.name, settings, status: "refused" as const, refusal: fitted.refusal, sample };
  const { models } = fitted;
  const chosen = models.spec.errors ?? { kind: "classical" };
  const tables = ladderTables(models, { kind: "classical" });
  const own = chosen.kind === "classical" ? tables : ladderTables(models, chosen);
  return {
    name: ladder.name,
    settings,
    status: "fitted" as const,
    sample,
    exploratory: exploratoryMark(ladder, fitted.sample.rowsUsed),
    steps: byStep(tables, (step, k) => stepResults(step, k, models, own.steps[k]!)),
    standardized: betas(models, { kind: "classical" }, false),
    standardized_indicators_too: betas(models, { kind: "classical" }, true),
    robust_hc3: byStep(chosen.kind === "hc3" ? own : ladderTables(models, { kind: "hc3" }), robustResults),
    cluster_robust: chosen.kind === "cluster" ? byStep(own, robustResults) : null,
    codings: tables.codings,
    coding_table: Object.fromEntries(
      tables.tables.map((t) => [t.variable, Object.fromEntries(t.levels.map((level) => [level.level, [...level.values]]))]),
    ),
    categories: Object.fromEntries(tables.tables.map((t) => [t.variable, categoryResults(t)])),
    marginality: tables.marginality.map((m) => ({ step: m.step, product: m.product, missing: termName(m.missing) })),
    suppression: pairOf(tables.steps.at(-1)!),
    suppression_signs: byStep(tables, (step) =>
      step.suppression.flatMap((flag) => (flag.scope === "predictor" ? [{ predictor: flag.predictor, signs: flag.signs }] : [])),
    ),
    marginal_means: byStep(tables, (_, k) => meansOfStep(models, k, chosen, ladder)),
    comparison: stepComparison(ladder, models, fitted.sample, columns),
    moments: ladderMoments(models),
    bootstrap: bootstrapResults(ladder, worked.intervals),
    ...caseResults(ladder, models, fitted.sample, columns, worked.beyond),
  };
}

/** Intervals from replicates, where the ladder asks for them: of every figure, and of the differences between the β of its last step. */
function bootstrapResults({ intervals, seed }: Ladder, found: ReplicateIntervals | null | undefined) {
  if (intervals.by === "normal") return null;
  if (!found) return { available: false as const, reason: "not-drawn" };
  return {
    by: intervals.by,
    replicates: found.replicates,
    seed,
    units: found.units,
    redrawn: found.redrawn,
    intervals: Object.fromEntries(ladderFigures(found).map(({ figure, interval }) => [figureName(figure), interval] as const)),
    beta_differences: Object.fromEntries(
      found.differences.map(({ first, second, pHolm, ...d }) => [`${first} - ${second}`, { ...d, p_holm: pHolm }]),
    ),
  };
}

function figureName(figure: ReturnType<typeof ladderFigures>[number]["figure"]): string {
  const step = `step${figure.step + 1}.${figure.kind}`;
  switch (figure.kind) {
    case "marginalMean":
      return `${step}.${figure.variable}.${figure.level}`;
    case "contrast":
      return `${step}.${figure.variable}.${figure.level} - ${figure.minus}`;
    case "difference":
      return `${step}.${figure.first} - ${figure.second}`;
    default:
      return "column" in figure ? `${step}.${figure.column}` : step;
  }
}

function byStep<T>(fit: LadderFit, make: (step: StepFit, k: number) => T) {
  return Object.fromEntries(fit.steps.map((step, k) => [String(k + 1), make(step, k)]));
}

function byColumn<T>(step: StepFit, make: (coefficient: Coefficient) => T) {
  return Object.fromEntries(step.coefficients.map((c) => [c.column, make(c)]));
}

function estimateAs<Name extends string>(name: Name, e: Estimate) {
  return { [name]: e.estimate, se: e.se, t: e.t, p: e.p, lower: e.lower, upper: e.upper } as Record<
    Name | "se" | "t" | "p" | "lower" | "upper",
    number | null
  >;
}

/** @param own the step with the ladder's own errors, which the interval of its change follows */
function stepResults(step: StepFit, k: number, models: LadderModels, own: StepFit) {
  const { model: m } = step;
  const fit = models.fits[k]!;
  const condition = conditionIndices(fit);
  return {
    model: {
      n: m.n,
      p: m.p,
      df: m.dfResidual,
      R2: m.R2,
      adjR2: m.adjustedR2,
      R: m.R,
      F: m.F,
      df1: m.df[0],
      df2: m.df[1],
      pF: m.pF,
      s: m.residualSd,
      rmse: m.rmse,
      ss_regression: m.ssRegression,
      ss_residual: m.ssResidual,
      ss_total: m.ssTotal,
      ms_regression: m.msRegression,
      ms_residual: m.msResidual,
      logLik: m.logLikelihood,
      k: m.k,
      AIC: m.AIC,
      AICc: m.AICc,
      BIC: m.BIC,
    },
    coef: { "(Intercept)": estimateAs("b", step.intercept), ...byColumn(step, (c) => estimateAs("b", c.b)) },
    correlations: byColumn(step, (c) => ({ r: c.zeroOrder, part: c.part, sr2: c.part ** 2, partial: c.partial })),
    collinearity: {
      columns: byColumn(step, (c) => ({ tolerance: c.tolerance, vif: c.vif })),
      terms: Object.fromEntries(
        termInflations(models.design.columns, termsUpTo(models, k), fit).map((t) => [
          t.term,
          { columns: t.columns, gvif: t.gvif, gvif_root: t.root },
        ]),
      ),
      condition: { index: condition.index, proportions: Object.fromEntries(condition.proportions) },
    },
    terms: Object.fromEntries(
      step.terms.map((t) => [
        t.term,
        { ss: t.ss, df1: t.df[0], df2: t.df[1], F: t.F, p: t.p, conditional: t.conditional, reason: t.reason },
      ]),
    ),
    change: { ...changeResults(step.change), f2: step.change.f2, large_sample_interval: own.changeInterval },
    dropped: step.notes.flatMap((note) =>
      note.code === "dropped"
        ? [{ column: note.column.column, reason: note.column.reason, combination_of: note.column.combinationOf }]
        : [],
    ),
    notes: step.notes.map((note) => note.code),
  };
}

function betas(models: LadderModels, errors: ErrorChoice, indicators: boolean) {
  const steps = standardized(models, errors, indicators);
  return Object.fromEntries(
    steps.map((estimates, k) => {
      const columns = models.fits[k]!.columns;
      return [String(k + 1), Object.fromEntries(estimates.map((e, i) => [columns[i]!, e && estimateAs("beta", e)]))];
    }),
  );
}

function robustResults(step: StepFit) {
  for (const note of step.notes) {
    if (note.code === "robust-errors-unavailable") return { available: false as const, ...unavailable(note.why) };
  }
  return {
    available: true as const,
    coef: { "(Intercept)": estimateAs("b", step.intercept), ...byColumn(step, (c) => estimateAs("b", c.b)) },
    standardized: byColumn(step, (c) => c.beta && estimateAs("beta", c.beta)),
    change: { ...changeResults(step.change), f2: step.change.f2 },
    ...(step.clusters === null ? {} : { clusters: step.clusters }),
  };
}

/** Cases are counted within the sample. */
function unavailable(why: NoCovariance) {
  return why.reason === "full-leverage" ? { reason: why.reason, cases: why.cases } : { reason: why.reason };
}

function categoryResults(t: CodingTable) {
  const alone = t.levels.filter((level) => level.cases === 1).map((level) => level.level);
  return {
    coding: t.coding,
    reference: t.reference,
    cases: Object.fromEntries(t.levels.map((level) => [level.level, level.cases])),
    empty_levels: [...t.empty],
    single_case_levels: alone,
    notes: [...(t.levels.length < 2 ? ["one-level"] : []), ...(t.replacedReference === null ? [] : ["reference-without-cases"])],
  };
}

function pairOf(step: StepFit) {
  for (const flag of step.suppression) if (flag.scope === "pair") return { kind: flag.kind, suppressor: flag.suppressor };
  return null;
}

function meansOfStep(models: LadderModels, k: number, errors: ErrorChoice, ladder: Ladder) {
  const found = covariance(models.fits[k]!, errors);
  if ("reason" in found) return { available: false as const, ...unavailable(found) };
  const means = ladderPredictors(ladder).flatMap((variable): MarginalMeans[] => {
    const of = marginalMeans(models, k, variable, found);
    return of ? [of] : [];
  });
  return Object.fromEntries(means.map((of) => [of.variable, meansResults(of)]));
}

function meansResults(of: MarginalMeans) {
  return {
    means: Object.fromEntries(
      of.means.map(({ level, at, prediction: p }) => [
        level,
        p && { estimate: p.estimate, se: p.se, lower: p.lower, upper: p.upper, ...(at === null ? {} : { at }) },
      ]),
    ),
    contrasts: Object.fromEntries(
      of.contrasts.map(({ level, minus, difference, pHolm }) => [
        `${level} - ${minus}`,
        difference && { ...estimateAs("estimate", difference), p_holm: pHolm },
      ]),
    ),
  };
}
