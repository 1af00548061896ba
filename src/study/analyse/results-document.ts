import type { Coefficient, Estimate } from "@/core/regression/coefficients";
import type { StepFit } from "@/core/regression/ladder";
import { termName } from "@/core/regression/terms";
import type { ResponseSource } from "../model/response-column";
import type { Study } from "../model/study";
import { StudyColumns } from "../prepare/study-columns";
import { analyseLadder, type LadderResult } from "./analyse-ladder";
import { analyseScale, type ScaleResult } from "./analyse-scale";

/** Version of the names below: it goes up when one changes its meaning. They are documented in docs/results.md. */
export const RESULTS_VERSION = 1;

/**
 * Every scale and ladder of a study at full precision, under stable names. Null: not available; the reason stands
 * in `notes` or `refusal`.
 */
export function resultsDocument(study: Study, responses: ResponseSource) {
  const columns = new StudyColumns(study, responses);
  const scales = study.scales.map((scale) => {
    const result = analyseScale(study, scale, responses, columns);
    return [scale.id, scaleResults(result, result.status === "scored" ? columns.scale(scale).scores : null)] as const;
  });
  const ladders = study.ladders.map((ladder) => {
    const settings = {
      outcome: ladder.outcome,
      filter: ladder.filter,
      centring: ladder.centring,
      confidence: ladder.confidence,
      steps: ladder.steps.map((step) => step.terms.map(termName)),
      method: "least squares, classical standard errors",
    };
    return [ladder.id, { name: ladder.name, settings, ...ladderResults(analyseLadder(study, ladder, responses, columns)) }] as const;
  });
  return {
    format: "beta-step-results" as const,
    version: RESULTS_VERSION,
    study: study.name,
    scales: Object.fromEntries(scales),
    ladders: Object.fromEntries(ladders),
  };
}

function scaleResults(result: ScaleResult, scores: { values: Float64Array; missing: Uint8Array } | null) {
  if (result.status === "refused" || !scores) {
    return { status: "refused" as const, refusal: result.status === "refused" ? result.refusal : null };
  }
  const { analysis } = result;
  const r = analysis.reliability;
  return {
    status: "scored" as const,
    counts: { rows: analysis.rows, complete: analysis.complete, prorated: analysis.prorated, unscored: analysis.unscored },
    description: analysis.description,
    reliability: r && {
      n: r.n,
      k: r.items,
      alpha: r.alpha,
      alpha_lower: r.lower,
      alpha_upper: r.upper,
      alpha_standardized: r.standardizedAlpha,
      mean_inter_item_r: r.meanInterItemR,
      items: Object.fromEntries(
        r.perItem.map((item, i) => [
          analysis.strips[i]!.variable,
          {
            mean: item.mean,
            sd: item.sd,
            item_total_r: item.withTheRest,
            alpha_if_dropped: item.alphaWithout,
          },
        ]),
      ),
    },
    scores: Array.from(scores.values, (value, row) => (scores.missing[row] ? null : value)),
  };
}

function ladderResults(result: LadderResult) {
  const sample = result.sample && {
    rows: result.sample.rows,
    kept_by_filter: result.sample.keptByFilter,
    complete: result.sample.complete,
    used: result.sample.used,
    missing_by_variable_among_kept: result.sample.missingByVariable,
    rows_used: result.sample.rowsUsed,
  };
  if (result.status === "refused") return { status: "refused" as const, refusal: result.refusal, sample };
  const { fit } = result;
  const byStep = <T>(make: (step: StepFit) => T) => Object.fromEntries(fit.steps.map((step, k) => [String(k + 1), make(step)]));
  return {
    status: "fitted" as const,
    sample,
    steps: byStep(stepResults),
    standardized: byStep((step) => byColumn(step, (c) => estimateAs("beta", c.beta))),
    codings: fit.codings,
    marginality: fit.marginality.map((m) => ({ step: m.step, product: m.product, missing: termName(m.missing) })),
  };
}

function byColumn<T>(step: StepFit, make: (coefficient: Coefficient) => T) {
  return Object.fromEntries(step.coefficients.map((c) => [c.column, make(c)]));
}

function estimateAs(name: "b" | "beta", e: Estimate) {
  return { [name]: e.estimate, se: e.se, t: e.t, p: e.p, lower: e.lower, upper: e.upper };
}

function stepResults(step: StepFit) {
  const { model: m, change } = step;
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
    collinearity: { columns: byColumn(step, (c) => ({ tolerance: c.tolerance, vif: c.vif })) },
    change: { dR2: change.change, F: change.F, df1: change.df[0], df2: change.df[1], p: change.p, f2: change.f2 },
    dropped: step.notes.flatMap((note) =>
      note.code === "dropped"
        ? [{ column: note.column.column, reason: note.column.reason, combination_of: note.column.combinationOf }]
        : [],
    ),
    notes: step.notes.map((note) => note.code),
  };
}
