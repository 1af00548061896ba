import { standardDeviation } from "../../describe/standard-deviation";
import {
  dividedBy,
  type HeldAt,
  heldAtLevel,
  NUMBERS,
  placeAt,
  predictionWeights,
  sampleSpread,
  slopeWeights,
} from "../../regression/design-point";
import { type LadderFit, type LadderModels, ladderTables } from "../../regression/ladder";
import type { Combined, Figure } from "./figure";

/**
 * The figures of a ladder from its own tables: for ladders whose resamples are fitted one by one, and for what the tape is held against.
 * @param out one number a figure; overwritten
 * @param columns the columns of each step as they must come out
 * @returns false when the ladder came out with other columns, or without a β
 */
export function fittedFigures(
  models: LadderModels,
  figures: readonly Figure[],
  columns: readonly (readonly string[])[],
  out: Float64Array,
): boolean {
  const fit = ladderTables(models, { kind: "classical" });
  for (const [k, { coefficients }] of fit.steps.entries()) {
    if (coefficients.length !== columns[k]!.length) return false;
    if (coefficients.some((c, i) => c.column !== columns[k]![i] || c.beta === null)) return false;
  }
  figures.forEach((figure, i) => (out[i] = fittedFigure(models, fit, figure)));
  return true;
}

function fittedFigure(models: LadderModels, fit: LadderFit, figure: Figure): number {
  const { model, change, coefficients } = fit.steps[figure.step]!;
  const of = (column: string) => coefficients.find((c) => c.column === column)!;
  switch (figure.kind) {
    case "R2":
    case "adjustedR2":
      return model[figure.kind];
    case "dR2":
      return change.change;
    case "b":
      return of(figure.column).b.estimate;
    case "beta":
      return of(figure.column).beta!.estimate;
    case "part":
      return of(figure.column).part;
    case "difference":
      return of(figure.first).beta!.estimate - of(figure.second).beta!.estimate;
    case "slope":
      return slope(models, figure.step, figure.column, figure.at);
    case "marginalMean":
      return prediction(models, figure.step, heldAtLevel(models.design, figure.variable, figure.level));
    case "contrast": {
      const at = (level: string) => prediction(models, figure.step, heldAtLevel(models.design, figure.variable, level));
      return at(figure.level) - at(figure.minus);
    }
    case "combined":
      return combined(models, figure);
  }
}

function combined(models: LadderModels, { step, parts, per }: Combined): number {
  const sum = parts.reduce(
    (total, { weight, slope: of, at }) => total + weight * (of === null ? prediction(models, step, at) : slope(models, step, of, at)),
    0,
  );
  if (per === null) return sum;
  const sd = (variable: string) => standardDeviation(models.variables.get(variable) as Float64Array);
  const own = models.design.columns.flatMap((c) => c.components).find((c) => c.name === per.column);
  return (sum * (own ? sd(own.variable) : 1)) / standardDeviation(models.y);
}

/** Per raw unit of the variable. */
function slope({ design, fits, variables }: LadderModels, step: number, column: string, held: readonly HeldAt[]): number {
  const { columns, slopes } = fits[step]!;
  const own = columns.map((name) => design.columns.find((c) => c.name === name)!);
  const place = placeAt(NUMBERS, design, held, sampleSpread(design, variables));
  const sum = slopeWeights(NUMBERS, own, column, place).reduce((total, weight, i) => total + slopes[i]! * weight, 0);
  return sum / dividedBy(design, column);
}

function prediction({ design, fits, variables }: LadderModels, step: number, held: readonly HeldAt[]): number {
  const { columns, slopes, intercept } = fits[step]!;
  const own = columns.map((name) => design.columns.find((c) => c.name === name)!);
  const place = placeAt(NUMBERS, design, held, sampleSpread(design, variables));
  return predictionWeights(NUMBERS, own, place).reduce((sum, weight, i) => sum + slopes[i]! * weight, intercept);
}
