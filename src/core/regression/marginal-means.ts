import { holm } from "../distributions/holm";
import { mean } from "../describe/mean";
import { standardDeviation } from "../describe/standard-deviation";
import { heldAtLevel, NUMBERS, NUMERIC_PLACES, placeAt, predictionWeights, sampleSpread } from "./design-point";
import type { Estimate } from "./coefficients";
import { combination, type Covariance, isEstimable } from "./covariance";
import type { LadderModels } from "./ladder";

/** A predicted outcome. Null: the sample does not hold what it would be predicted from. */
export interface MarginalMean {
  /** A level of a category; "low", "mean" or "high" of a numeric variable. */
  level: string;
  /** The value of a numeric variable; null for a level. */
  at: number | null;
  prediction: Estimate | null;
}

/** One predicted outcome minus another. */
export interface MeanContrast {
  level: string;
  minus: string;
  difference: Estimate | null;
  /** Adjusted for all contrasts of the variable. */
  pHolm: number | null;
}

export interface MarginalMeans {
  variable: string;
  means: MarginalMean[];
  contrasts: MeanContrast[];
}

/**
 * Predicted outcomes over the levels of one variable of a step (docs/methods.md, “Marginal means”), numeric covariates at their means, other
 * categories averaged with equal weights over the levels that have cases. Averages are put into the variables; products are
 * formed from them.
 * @param k step, from 0
 * @param of covariance of that step's coefficients
 * @returns null when the step has no term with the variable
 * Source: Searle, Speed & Milliken (1980), The American Statistician 34, 216–221.
 */
export function marginalMeans(models: LadderModels, k: number, variable: string, of: Covariance): MarginalMeans | null {
  const fit = models.fits[k]!;
  const columns = models.design.columns.slice(0, fit.basis.width);
  if (!columns.some(({ term }) => term.components.includes(variable))) return null;
  const spread = sampleSpread(models.design, models.variables);
  const rows = placesOf(models, variable).map(({ level, at }) => {
    const place = placeAt(NUMBERS, models.design, heldAtLevel(models.design, variable, level), spread);
    return { level, at, row: predictionWeights(NUMBERS, columns, place) };
  });
  const predict = (intercept: number, row: readonly number[]): Estimate | null => {
    if (!isEstimable(fit, intercept, row)) return null;
    const weights = fit.basis.kept.map((column) => (column === 0 ? intercept : row[column - 1]!));
    return combination(fit, of, weights, models.spec.confidence);
  };
  const means = rows.map(({ level, at, row }) => ({ level, at, prediction: predict(1, row) }));
  const pairs = rows.flatMap((a, i) => rows.slice(i + 1).map((b) => ({ level: b, minus: a })));
  const differences = pairs.map(({ level, minus }) =>
    predict(
      0,
      level.row.map((v, i) => v - minus.row[i]!),
    ),
  );
  const known = differences.flatMap((d) => (d === null || d.p === null ? [] : [d.p]));
  const adjusted = holm(known);
  let next = 0;
  const contrasts = pairs.map(({ level, minus }, i): MeanContrast => {
    const difference = differences[i]!;
    const pHolm = difference === null || difference.p === null ? null : adjusted[next++]!;
    return { level: level.level, minus: minus.level, difference, pHolm };
  });
  return { variable, means, contrasts };
}

/** The places a variable is set to: a category's levels, or mean − SD, mean and mean + SD. */
function placesOf({ design, variables }: LadderModels, variable: string): { level: string; at: number | null }[] {
  const table = design.tables.find((t) => t.variable === variable);
  if (table) return table.levels.map(({ level }) => ({ level, at: null }));
  const raw = variables.get(variable) as Float64Array;
  const [centre, sd] = [mean(raw), standardDeviation(raw)];
  return Object.entries(NUMERIC_PLACES).map(([level, sds]) => ({ level, at: centre + sds * sd }));
}
