import { mean } from "../../describe/mean";
import { standardDeviation } from "../../describe/standard-deviation";
import type { ComponentColumn } from "../../regression/design-matrix";
import { type LadderFit, type LadderModels, ladderTables } from "../../regression/ladder";
import { averagesByLevel, placesOf } from "./averages";
import type { Figure, HeldAt } from "./figure";

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
      return prediction(models, figure.step, figure.variable, figure.level);
    case "contrast":
      return (
        prediction(models, figure.step, figure.variable, figure.level) - prediction(models, figure.step, figure.variable, figure.minus)
      );
  }
}

function slope(models: LadderModels, step: number, column: string, held: readonly HeldAt[]): number {
  const { design, fits } = models;
  const { columns, slopes } = fits[step]!;
  const sum = columns.reduce((total, name, i) => {
    const { components } = design.columns.find((c) => c.name === name)!;
    const times = components.filter((c) => c.name === column).length;
    if (times === 0) return total;
    const others = [...components];
    others.splice(
      others.findIndex((c) => c.name === column),
      1,
    );
    return total + slopes[i]! * others.reduce((product, c) => product * valueOf(models, c, held), times);
  }, 0);
  return sum / (design.codings.find((c) => c.variable === column)?.dividedBy ?? 1);
}

function prediction(models: LadderModels, step: number, variable: string, level: string): number {
  const { design, fits } = models;
  const { columns, slopes, intercept } = fits[step]!;
  const held = placesOf(design, variable, level);
  return columns.reduce((sum, name, i) => {
    const { components } = design.columns.find((c) => c.name === name)!;
    return sum + slopes[i]! * components.reduce((product, c) => product * valueOf(models, c, held), 1);
  }, intercept);
}

/** Where a component stands, in the units it entered in. */
function valueOf({ design, variables }: LadderModels, component: ComponentColumn, held: readonly HeldAt[]): number {
  const at = held.find((h) => h.component === component.name);
  const coding = component.level === null ? design.codings.find((c) => c.variable === component.variable) : undefined;
  const entered = (raw: number) => (coding ? (raw - coding.subtracted) / coding.dividedBy : raw);
  if (at?.unit === "raw") return entered(at.value);
  if (component.level !== null) return averagesByLevel(design, component);
  const raw = variables.get(component.variable) as Float64Array;
  return entered(mean(raw) + (at ? at.value * standardDeviation(raw) : 0));
}
