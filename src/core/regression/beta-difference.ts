import { standardDeviation } from "../describe/standard-deviation";
import type { Estimate } from "./coefficients";
import { combination, covariance, type ErrorChoice } from "./covariance";
import { designMatrix } from "./design-matrix";
import type { LadderModels } from "./ladder";
import { leastSquares } from "./least-squares";
import { prepareDesign } from "./prepared-design";

/**
 * One β of a step minus another, with its test: both from the same fit in the metric of z-scores, so that their covariance counts.
 * @param step from 0 @param first, second names of columns
 * @returns null where one of them is not in the fit, or its errors are not available
 */
export function betaDifference(models: LadderModels, step: number, first: string, second: string, errors: ErrorChoice): Estimate | null {
  const { spec, variables, y } = models;
  const design = designMatrix(spec.steps, variables, spec, spec.standardizeIndicators ? "z-indicators" : "z");
  const sd = standardDeviation(y);
  const prepared = prepareDesign(design.columns, { name: spec.outcome, values: y.map((v) => v / sd) });
  const fit = leastSquares(prepared, design.widths[step]!);
  const of = covariance(fit, errors);
  const [a, b] = [first, second].map((column) => fit.columns.indexOf(column));
  if ("reason" in of || a! < 0 || b! < 0) return null;
  // the intercept stands first among what was kept
  const weights = new Float64Array(fit.basis.kept.length);
  weights[a! + 1]! += 1;
  weights[b! + 1]! -= 1;
  return combination(fit, of, weights, spec.confidence);
}
