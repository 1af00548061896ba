import { holm } from "../distributions/holm";
import { mean } from "../describe/mean";
import { standardDeviation } from "../describe/standard-deviation";
import type { Estimate } from "./coefficients";
import { combination, type Covariance } from "./covariance";
import type { LadderModels } from "./ladder";
import type { Fit } from "./least-squares";

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
 * Predicted outcomes over the levels of one variable of a step (contract section 8), numeric covariates at their means, other
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
  const average = averages(models);
  const rows = settings(models, variable).map(({ level, at, values }) => {
    const point = new Map([...average, ...values]);
    const row = columns.map(({ components }) => components.reduce((product, c) => product * point.get(c.name)!, 1));
    return { level, at, row };
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

/** Every component column at its average: numeric variables at their means, categories with equal weights. */
function averages({ design, variables }: LadderModels): Map<string, number> {
  const average = new Map<string, number>();
  for (const { components } of design.columns) {
    for (const { name, variable, level } of components) {
      if (average.has(name)) continue;
      const table = design.tables.find((t) => t.variable === variable);
      if (level === null || !table) {
        const raw = variables.get(variable) as Float64Array;
        average.set(name, entered(design.codings, variable, mean(raw)));
      } else {
        const at = table.columns.indexOf(level);
        average.set(name, table.levels.reduce((sum, l) => sum + l.values[at]!, 0) / table.levels.length);
      }
    }
  }
  return average;
}

/** A value of a numeric variable as it enters the columns. */
function entered(codings: LadderModels["design"]["codings"], variable: string, value: number): number {
  const coding = codings.find((c) => c.variable === variable);
  return coding ? (value - coding.subtracted) / coding.dividedBy : value;
}

/** The places a variable is set to, with the values of its component columns there. */
function settings(
  { design, variables }: LadderModels,
  variable: string,
): { level: string; at: number | null; values: [string, number][] }[] {
  const table = design.tables.find((t) => t.variable === variable);
  if (table) {
    return table.levels.map(({ level, values }) => ({
      level,
      at: null,
      values: table.columns.map((column, i): [string, number] => [`${variable}[${column}]`, values[i]!]),
    }));
  }
  const raw = variables.get(variable) as Float64Array;
  const [centre, sd] = [mean(raw), standardDeviation(raw)];
  const places: [string, number][] = [
    ["low", centre - sd],
    ["mean", centre],
    ["high", centre + sd],
  ];
  return places.map(([level, at]) => ({ level, at, values: [[variable, entered(design.codings, variable, at)]] }));
}

/** True when the row says of a dropped column what the kept ones say of it: otherwise its share is not known. */
function isEstimable(fit: Fit, intercept: number, row: readonly number[]): boolean {
  const { design, kept, dependent } = fit.basis;
  const scaled = (column: number) => {
    const { centre, scale } = design.columns[column - 1]!;
    return (row[column - 1]! - intercept * centre) * scale;
  };
  return dependent.every(({ column, weights }) => {
    const own = scaled(column);
    let implied = weights[0]! * intercept;
    let size = Math.abs(own);
    for (let i = 1; i < weights.length; i++) {
      const part = weights[i]! * scaled(kept[i]!);
      implied += part;
      size = Math.max(size, Math.abs(part));
    }
    return Math.abs(own - implied) <= 1e-8 * Math.max(size, 1 / Math.sqrt(fit.n));
  });
}
