import { mean } from "../describe/mean";
import { standardDeviation } from "../describe/standard-deviation";
import type { ComponentColumn, DesignMatrix, Predictor } from "./design-matrix";
import { partKey } from "./terms";

/** What a formula is carried out with: numbers, or values written on a tape. */
export interface Arithmetic<V> {
  constant(value: number): V;
  add(a: V, b: V): V;
  multiply(a: V, b: V): V;
  /** sum + a·b. */
  accumulate(sum: V, a: V, b: V): V;
}

/** Plain numbers. */
export const NUMBERS: Arithmetic<number> = {
  constant: (value) => value,
  add: (a, b) => a + b,
  multiply: (a, b) => a * b,
  accumulate: (sum, a, b) => sum + a * b,
};

/** Where a component is held: so many SDs from its mean, formed anew in each resample, or at a value that stays. */
export interface HeldAt {
  /** Key of a component: a numeric variable, or `ticket[day]` for the column of a category. */
  component: string;
  unit: "sd" | "raw";
  value: number;
}

/** What a place needs to know of a component and of a column, without their values. */
export type PlacedComponent = Pick<ComponentColumn, "name" | "variable" | "level">;
export interface PlacedColumn {
  readonly components: readonly PlacedComponent[];
}
export type PlacedDesign = Pick<DesignMatrix, "codings" | "tables">;

/** Mean + so many SDs of a numeric component, in the units it entered in. */
export type SpreadOf<V> = (component: PlacedComponent, sds: number) => V;

/** Where every component column stands, in the units it entered in. */
export type Place<V> = (component: PlacedComponent) => V;

/**
 * A place among the predictors: what is held where it is held, numeric variables else at their means, categories at equal weights of
 * their levels. Averages are put into the variables; products are formed from them (docs/methods.md, “Marginal means”).
 * @param held by component; a component that is not named stands at its average
 */
export function placeAt<V>(of: Arithmetic<V>, design: PlacedDesign, held: readonly HeldAt[], spread: SpreadOf<V>): Place<V> {
  return (component) => {
    const at = held.find((h) => h.component === component.name);
    if (at?.unit === "raw") return of.constant(component.level === null ? entered(design, component.variable, at.value) : at.value);
    if (component.level !== null) return of.constant(averageOfLevels(design, component));
    return spread(component, at?.value ?? 0);
  };
}

/** Means and SDs of the sample itself, each worked out once. */
export function sampleSpread(design: DesignMatrix, variables: ReadonlyMap<string, Predictor>): SpreadOf<number> {
  const known = new Map<string, { centre: number; sd: number }>();
  return ({ variable }, sds) => {
    const raw = variables.get(variable) as Float64Array;
    const own = known.get(variable) ?? { centre: mean(raw), sd: standardDeviation(raw) };
    known.set(variable, own);
    return entered(design, variable, own.centre + sds * own.sd);
  };
}

/** A value of a numeric variable as it enters the columns. */
export function entered({ codings }: Pick<DesignMatrix, "codings">, variable: string, value: number): number {
  const coding = codings.find((c) => c.variable === variable);
  return coding ? (value - coding.subtracted) / coding.dividedBy : value;
}

/** The value of a category's column with its levels at equal weights. */
function averageOfLevels({ tables }: PlacedDesign, { variable, level }: PlacedComponent): number {
  const table = tables.find((t) => t.variable === variable)!;
  const at = table.columns.indexOf(level!);
  return table.levels.reduce((sum, l) => sum + l.values[at]!, 0) / table.levels.length;
}

/** The places a variable is looked at: a category's levels with cases, or low, mean and high of a number (mean ± SD). */
export const NUMERIC_PLACES = { low: -1, mean: 0, high: 1 } as const;

/** Where a variable's components stand at one of its levels, or at mean − SD, mean or mean + SD. */
export function heldAtLevel({ tables }: PlacedDesign, variable: string, level: string): HeldAt[] {
  const table = tables.find((t) => t.variable === variable);
  if (!table) {
    const value = NUMERIC_PLACES[level as keyof typeof NUMERIC_PLACES];
    return [{ component: partKey({ variable, level: null }), unit: "sd", value }];
  }
  const { values } = table.levels.find((l) => l.level === level)!;
  return table.columns.map((column, i): HeldAt => ({ component: partKey({ variable, level: column }), unit: "raw", value: values[i]! }));
}

/** What each column counts in the outcome predicted at a place; the intercept counts 1. */
export function predictionWeights<V>(of: Arithmetic<V>, columns: readonly PlacedColumn[], place: Place<V>): V[] {
  return columns.map(({ components }) => components.reduce((product, c) => of.multiply(product, place(c)), of.constant(1)));
}

/**
 * What each column counts in the slope of a variable at a place, per unit it entered in: the derivative of the prediction. The intercept
 * counts 0; a square counts twice. Per raw unit it is divided by what the variable was divided by.
 * @param component key of the variable's component
 */
export function slopeWeights<V>(of: Arithmetic<V>, columns: readonly PlacedColumn[], component: string, place: Place<V>): V[] {
  return columns.map(({ components }) => {
    const times = components.filter((c) => c.name === component).length;
    if (times === 0) return of.constant(0);
    const own = components.findIndex((c) => c.name === component);
    return components.reduce((product, c, i) => (i === own ? product : of.multiply(product, place(c))), of.constant(times));
  });
}

/** What the variable of a component was divided by before it entered: 1 where it was not. */
export function dividedBy(
  { columns, codings }: Pick<DesignMatrix, "codings"> & { readonly columns: readonly PlacedColumn[] },
  component: string,
): number {
  const own = columns.flatMap((c) => c.components).find((c) => c.name === component);
  return (own?.level === null && codings.find((c) => c.variable === own.variable)?.dividedBy) || 1;
}
