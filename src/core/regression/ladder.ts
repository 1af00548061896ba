import { correlation } from "../describe/correlation";
import { tCritical } from "../distributions/t-distribution";
import { standardDeviation } from "../describe/standard-deviation";
import { UnknownVariableError } from "../errors";
import { type Coefficient, type Estimate, estimate, partialCorrelation, rescaled } from "./coefficients";
import { type Centring, type Coding, type DesignColumn, designMatrix } from "./design-matrix";
import { type DroppedColumn, type Fit, leastSquares } from "./least-squares";
import { type MarginalityFault, marginalityFaults } from "./marginality";
import { type ModelSummary, modelSummary } from "./model-summary";
import { prepareDesign } from "./prepared-design";
import { type RSquaredChange, rSquaredChange } from "./r-squared-change";
import type { Term } from "./terms";

/** What to fit: every step on the same complete cases. */
export interface LadderSpec {
  readonly outcome: string;
  /** Terms each step adds. A step may be empty. */
  readonly steps: readonly (readonly Term[])[];
  readonly centring: Centring;
  /** Share of the interval, as .95. */
  readonly confidence: number;
}

/** Something a reader of a step must know, as data; worded in src/study/report. */
export type StepNote = { code: "perfect-fit" } | { code: "dropped"; column: DroppedColumn };

export interface StepFit {
  model: ModelSummary;
  change: RSquaredChange;
  intercept: Estimate;
  coefficients: Coefficient[];
  notes: StepNote[];
}

export interface LadderFit {
  n: number;
  outcome: string;
  steps: StepFit[];
  codings: readonly Coding[];
  marginality: MarginalityFault[];
}

/**
 * Fits all steps of a hierarchical regression from one factorization (contract sections 2 to 4).
 * @param variables complete columns of the analysis sample, outcome included, by name; all of length n
 * @throws CoreError: too few cases, constant outcome, a value that is not finite, a duplicate or unknown term
 */
export function fitLadder(spec: LadderSpec, variables: ReadonlyMap<string, Float64Array>): LadderFit {
  const y = variables.get(spec.outcome);
  if (!y) throw new UnknownVariableError({ variable: spec.outcome });
  const raw = designMatrix(spec.steps, variables, spec.centring);
  const fits = fitSteps(raw.columns, raw.widths, spec.outcome, y);
  const hasProducts = raw.columns.some((c) => c.term.components.length > 1);
  const zFits = hasProducts ? standardizedFits(spec, variables, y) : null;
  const outcomeSd = standardDeviation(y);
  // a column's r and SD are the same in every step
  const facts = new Map(raw.columns.map((c) => [c.name, { r: correlation(c.values, y), sd: standardDeviation(c.values) }]));

  const steps = fits.map((fit, k): StepFit => {
    const model = modelSummary(fit);
    const critical = tCritical(spec.confidence, fit.dfResidual);
    const unexplained = fit.ssResidual / fit.ssTotal;
    const zFit = zFits?.[k];
    const coefficients = fit.columns.map((column, i): Coefficient => {
      const part = fit.part[i]!;
      const fact = facts.get(column)!;
      const zAt = zFit ? zFit.columns.indexOf(column) : -1;
      const b = estimate(fit, fit.slopes[i]!, fit.slopeErrors[i]!, critical);
      const beta =
        zFit && zAt >= 0 ? estimate(zFit, zFit.slopes[zAt]!, zFit.slopeErrors[zAt]!, critical) : rescaled(b, fact.sd / outcomeSd);
      const tolerance = fit.tolerance[i]!;
      return {
        column,
        b,
        beta,
        zeroOrder: fact.r,
        part,
        partial: partialCorrelation(part, unexplained),
        tolerance,
        vif: 1 / tolerance,
      };
    });
    const notes: StepNote[] = fit.dropped.map((column) => ({ code: "dropped", column }));
    if (fit.perfect) notes.push({ code: "perfect-fit" });
    return {
      model,
      change: rSquaredChange(k === 0 ? null : fits[k - 1]!, fit),
      intercept: estimate(fit, fit.intercept, fit.interceptError, critical),
      coefficients,
      notes,
    };
  });
  return { n: y.length, outcome: spec.outcome, steps, codings: raw.codings, marginality: marginalityFaults(spec.steps) };
}

function fitSteps(columns: readonly DesignColumn[], widths: readonly number[], outcome: string, y: Float64Array): Fit[] {
  const design = prepareDesign(columns, { name: outcome, values: y });
  return widths.map((width) => leastSquares(design, width));
}

/** The z metric with products: outcome and numeric components as z-scores, products formed from these and left as they are. */
function standardizedFits(spec: LadderSpec, variables: ReadonlyMap<string, Float64Array>, y: Float64Array): Fit[] {
  const z = designMatrix(spec.steps, variables, "z", true);
  const sd = standardDeviation(y);
  return fitSteps(
    z.columns,
    z.widths,
    spec.outcome,
    y.map((v) => v / sd),
  ); // the outcome's mean only moves the intercept
}
