import { standardDeviation } from "../describe/standard-deviation";
import { TooFewCasesError, UnknownVariableError } from "../errors";
import type { CodingTable } from "./categories";
import { changeInterval, type LargeSampleInterval } from "./change-interval";
import { type Coefficient, type Estimate, estimate, type Inference, partialCorrelation, rescaled } from "./coefficients";
import { coefficientErrors, type Covariance, covariance, type ErrorChoice, inference, type NoCovariance } from "./covariance";
import { type Coding, type DesignChoices, type DesignColumn, type DesignMatrix, designMatrix, type Predictor } from "./design-matrix";
import { type DroppedColumn, type Fit, leastSquares, outcomeCorrelations } from "./least-squares";
import { type MarginalityFault, marginalityFaults } from "./marginality";
import { type ModelSummary, modelSummary } from "./model-summary";
import { prepareDesign } from "./prepared-design";
import { type RSquaredChange, rSquaredChange } from "./r-squared-change";
import { type SuppressionFlag, suppressionFlags } from "./suppression";
import { type TermTest, termTests } from "./term-tests";
import { type Part, type Term, termName, partsByKey } from "./terms";
import { waldTest } from "./wald-test";

/** What to fit: every step on the same complete cases. */
export interface LadderSpec extends DesignChoices {
  readonly outcome: string;
  /** Terms each step adds. A step may be empty. */
  readonly steps: readonly (readonly Term[])[];
  /** Share of the interval, as .95. */
  readonly confidence: number;
  /** Standard errors; classical when left out. */
  readonly errors?: ErrorChoice;
  /** True: the columns of categories are z-scored for β, before products are formed from them. */
  readonly standardizeIndicators?: boolean;
}

/** Something a reader of a step must know, as data; worded in src/study/report. */
export type StepNote =
  { code: "perfect-fit" } | { code: "dropped"; column: DroppedColumn } | { code: "robust-errors-unavailable"; why: NoCovariance };

export interface StepFit {
  model: ModelSummary;
  /** With robust errors F and p are Wald's; ΔR² and f² stay. */
  change: RSquaredChange;
  /** Large-sample interval of ΔR²; null where there is none. */
  changeInterval: LargeSampleInterval | null;
  intercept: Estimate;
  coefficients: Coefficient[];
  /** Every term in the model at this step; always by the drop in SSE, whatever the errors. */
  terms: TermTest[];
  suppression: SuppressionFlag[];
  notes: StepNote[];
  /** Number of clusters the errors allow for; null without. */
  clusters: number | null;
}

export interface LadderFit {
  n: number;
  outcome: string;
  errors: ErrorChoice["kind"];
  steps: StepFit[];
  codings: readonly Coding[];
  /** How each category became columns, with empty levels and the cases per level. */
  tables: readonly CodingTable[];
  marginality: MarginalityFault[];
  /** What every column and every term is made of, by its key. */
  parts: ReadonlyMap<string, readonly Part[]>;
}

/** All steps fitted; what every table, test and picture of a ladder is worked out from. Stays where it was made: it is large. */
export interface LadderModels {
  readonly spec: LadderSpec;
  readonly variables: ReadonlyMap<string, Predictor>;
  readonly y: Float64Array;
  readonly design: DesignMatrix;
  readonly fits: readonly Fit[];
}

/**
 * Fits all steps of a hierarchical regression on one sample and one factorization (docs/methods.md, “Least squares”).
 * @param variables complete columns of the analysis sample, outcome included, by name; all of length n
 * @throws CoreError: too few cases, constant outcome, a value that is not finite, a duplicate or unknown term
 */
export function ladderModels(spec: LadderSpec, variables: ReadonlyMap<string, Predictor>): LadderModels {
  const y = variables.get(spec.outcome);
  if (!y || "codes" in y) throw new UnknownVariableError({ variable: spec.outcome });
  if (y.length < 2) {
    // how many columns its categories would have cannot be told from nobody: each term has one at least
    const terms = spec.steps.flat().length;
    throw new TooFewCasesError({ cases: y.length, needed: terms + 2, purpose: `A model of ${terms} terms` });
  }
  const design = designMatrix(spec.steps, variables, spec);
  return { spec, variables, y, design, fits: fitSteps(design, spec.outcome, y) };
}

/** A ladder's tables: ladderModels and ladderTables in one go. */
export function fitLadder(spec: LadderSpec, variables: ReadonlyMap<string, Predictor>): LadderFit {
  return ladderTables(ladderModels(spec, variables));
}

/** The terms in the model at step `k` (from 0): all that were added up to there. */
export function termsUpTo(models: LadderModels, k: number): Term[] {
  return models.spec.steps.slice(0, k + 1).flat();
}

/**
 * Coefficients, changes and term tests of every step.
 * @param errors the ladder's own choice when left out
 */
export function ladderTables(models: LadderModels, errors: ErrorChoice = models.spec.errors ?? { kind: "classical" }): LadderFit {
  const { spec, design, fits, y } = models;
  // a column's r with the outcome is the same in every step
  const zeroOrder = outcomeCorrelations(fits.at(-1)!);
  const terms = new Map(design.columns.map((c) => [c.name, termName(c.term)]));
  const covariances = fits.map((fit) => covariance(fit, errors));
  const tested = fits.map((fit, k) => testedCoefficients(fit, covariances[k]!, spec.confidence));
  const betas = standardized(models, errors, spec.standardizeIndicators ?? false, tested);
  const steps = fits.map((fit, k): StepFit => {
    const model = modelSummary(fit);
    const found = covariances[k]!;
    const { intercept, slopes } = tested[k]!;
    const unexplained = fit.ssResidual / fit.ssTotal;
    const coefficients = fit.columns.map((column, i): Coefficient => {
      const part = fit.part[i]!;
      const tolerance = fit.tolerance[i]!;
      return {
        column,
        term: terms.get(column)!,
        b: slopes[i]!,
        beta: betas[k]![i] ?? null,
        zeroOrder: zeroOrder[i]!,
        part,
        partial: partialCorrelation(part, unexplained),
        tolerance,
        vif: 1 / tolerance,
      };
    });
    const notes: StepNote[] = fit.dropped.map((column) => ({ code: "dropped", column }));
    if (fit.perfect) notes.push({ code: "perfect-fit" });
    if ("reason" in found) notes.push({ code: "robust-errors-unavailable", why: found });
    const present = termsUpTo(models, k);
    return {
      model,
      change: stepChange(k === 0 ? null : fits[k - 1]!, fit, found),
      changeInterval:
        "reason" in found
          ? null
          : changeInterval(k === 0 ? null : fits[k - 1]!, fit, y, found, spec.confidence, errors.kind === "cluster" ? errors.codes : null),
      intercept,
      coefficients,
      terms: termTests(design.columns, present, fit),
      suppression: suppressionFlags(coefficients, model, present),
      notes,
      clusters: "reason" in found ? null : found.clusters,
    };
  });
  return {
    n: y.length,
    outcome: spec.outcome,
    errors: errors.kind,
    steps,
    codings: design.codings,
    tables: design.tables,
    marginality: marginalityFaults(spec.steps),
    parts: partsByKey(spec.steps.flat(), design.columns),
  };
}

/** ΔR² with its F test; with robust errors F is Wald's that the added columns' coefficients are all 0. */
function stepChange(before: Fit | null, fit: Fit, found: Covariance | NoCovariance): RSquaredChange {
  const change = rSquaredChange(before, fit);
  if (change.df[0] === 0) return change;
  if ("reason" in found) return { ...change, F: null, p: null };
  if (found.kind === "classical") return change;
  const from = before?.basis.kept.length ?? 1;
  const added = fit.basis.kept.slice(from).map((_, i) => from + i);
  const { F, df, p } = waldTest(fit, added, found);
  return { ...change, F, df, p };
}

/** The coefficients of one fit, in the units they were fitted in. */
interface TestedCoefficients {
  intercept: Estimate;
  slopes: Estimate[];
}

/** Every coefficient with its test, by a covariance; without one only the values. */
export function testedCoefficients(fit: Fit, found: Covariance | NoCovariance, confidence: number): TestedCoefficients {
  const all = (by: Inference, error: (position: number) => number | null): TestedCoefficients => ({
    intercept: estimate(fit.intercept, error(0), by),
    slopes: fit.columns.map((_, i) => estimate(fit.slopes[i]!, error(i + 1), by)),
  });
  if ("reason" in found) return all({ df: 1, critical: 0, exact: false }, () => null);
  const by = inference(fit, found, confidence);
  if (found.kind === "classical") return all(by, (at) => (at === 0 ? fit.interceptError : fit.slopeErrors[at - 1]!));
  const errors = coefficientErrors(fit, found);
  return all(by, (at) => errors[at]!);
}

/**
 * β of every column of every step (docs/methods.md, “β”): outcome and numeric variables as z-scores, products formed from these
 * and left as they are. Where the columns of that metric are multiples of the fitted ones, apart from a constant, β is b in
 * another unit; otherwise the z metric is fitted.
 * @param indicators true: the columns of categories are z-scored too, before products are formed from them
 * @param tested the coefficients of every step with these errors, if they are known already
 * @returns per step and column; null for a column that is independent as fitted but not in the z metric (the square of a
 * two-valued variable without the variable itself)
 */
export function standardized(
  models: LadderModels,
  errors: ErrorChoice,
  indicators: boolean,
  tested?: readonly TestedCoefficients[],
): (Estimate | null)[][] {
  const { spec, design, fits, y, variables } = models;
  const test = (fit: Fit) => testedCoefficients(fit, covariance(fit, errors), spec.confidence);
  const outcomeSd = standardDeviation(y);
  if (multiplesOfZ(design, spec, indicators)) {
    const factors = new Map(design.columns.map((c) => [c.name, unitOf(c, indicators) / outcomeSd]));
    return fits.map((fit, k) => {
      const { slopes } = tested?.[k] ?? test(fit);
      return fit.columns.map((column, i) => rescaled(slopes[i]!, factors.get(column)!));
    });
  }
  const z = designMatrix(spec.steps, variables, spec, indicators ? "z-indicators" : "z");
  const zFits = fitSteps(
    z,
    spec.outcome,
    y.map((v) => v / outcomeSd), // the outcome's mean only moves the intercept
  );
  return fits.map((fit, k) => {
    const { slopes } = test(zFits[k]!);
    return fit.columns.map((column) => slopes[zFits[k]!.columns.indexOf(column)] ?? null);
  });
}

/** True when every column of the z metric is a multiple of the fitted column plus a constant. */
function multiplesOfZ(design: DesignMatrix, spec: LadderSpec, indicators: boolean): boolean {
  return design.columns.every(
    ({ components }) => components.length === 1 || (spec.centring !== "raw" && (!indicators || components.every((c) => c.level === null))),
  );
}

/** How many units of the fitted column one unit of the z metric's column is. */
function unitOf({ components }: DesignColumn, indicators: boolean): number {
  return components.reduce((product, c) => (c.level === null || indicators ? product * c.sd : product), 1);
}

function fitSteps(design: DesignMatrix, outcome: string, y: Float64Array): Fit[] {
  const prepared = prepareDesign(design.columns, { name: outcome, values: y });
  return design.widths.map((width) => leastSquares(prepared, width));
}
