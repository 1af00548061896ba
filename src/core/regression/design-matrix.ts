import { isConstant } from "../describe/constant";
import { exactMean } from "../describe/mean";
import { standardDeviation } from "../describe/standard-deviation";
import { DuplicateTermError, UnknownVariableError } from "../errors";
import { type DoubleDouble, multiply } from "../linear-algebra/double-double";
import { type Category, categoryColumn, type CategoryChoice, codingTable, type CodingTable } from "./categories";
import { columnKey, type Part, partKey, type Term, termIdentity, termName } from "./terms";

/** How a numeric variable that is part of a product enters, in its own column as well as in the product. */
export type Centring = "mean" | "z" | "raw";

/** A predictor of the analysis sample: numbers, or a category. All of one length. */
export type Predictor = Float64Array | Category;

/** What a product is formed from: a numeric variable as it enters, or one column of a category. */
export interface ComponentColumn extends Part {
  /** Its key: `hours`, or `ticket[day]` for the level of a category. */
  readonly name: string;
  readonly values: Float64Array;
  /** SD of the values as they enter: 1 once they are z-scores. */
  readonly sd: number;
  /** Largest |value|, and how far a value may be off from centring. */
  readonly largest: number;
  readonly noise: number;
}

/** One column of the design, without the intercept. */
export interface DesignColumn {
  /** Its key. */
  readonly name: string;
  readonly term: Term;
  readonly components: readonly ComponentColumn[];
  readonly values: Float64Array;
  /** What the rounding of a product took from each value, where that matters. */
  readonly low: Float64Array | null;
  readonly noise: number;
}

/** What was taken from a numeric variable, and what it was then divided by, before it entered. */
export interface Coding {
  readonly variable: string;
  readonly subtracted: number;
  readonly dividedBy: number;
}

export interface DesignMatrix {
  /** All columns, step after step. */
  readonly columns: readonly DesignColumn[];
  /** Number of columns after each step. */
  readonly widths: readonly number[];
  /** Numeric variables that do not enter as they are. */
  readonly codings: readonly Coding[];
  /** Every category of the ladder, in order of appearance. */
  readonly tables: readonly CodingTable[];
}

export interface DesignChoices {
  readonly centring: Centring;
  /** By variable; one that is not mentioned has indicator columns against its first level. */
  readonly categories?: ReadonlyMap<string, CategoryChoice>;
}

/**
 * "model": the columns as they are fitted. The standardized metric of docs/methods.md, “β” z-scores every numeric variable,
 * product component or not; "z" leaves the columns of categories as they are, "z-indicators" z-scores these too.
 */
export type Metric = "model" | "z" | "z-indicators";

/**
 * The columns of a whole ladder from its terms (docs/methods.md, “Centring and products”): products of the components' columns, every pair when a
 * component is a category; numeric components of any product centred in their own column too, in every step; others raw.
 * @param steps the terms each step adds
 * @param variables the analysis sample, length n ≥ 2
 * @throws UnknownVariableError, DuplicateTermError, TooFewCasesError
 */
export function designMatrix(
  steps: readonly (readonly Term[])[],
  variables: ReadonlyMap<string, Predictor>,
  choices: DesignChoices,
  metric: Metric = "model",
): DesignMatrix {
  const inProducts = new Set(steps.flat().flatMap((t) => (t.components.length > 1 ? t.components : [])));
  const codings: Coding[] = [];
  const tables: CodingTable[] = [];
  const known = new Map<string, readonly ComponentColumn[]>();

  const numeric = (variable: string, raw: Float64Array): ComponentColumn[] => {
    const sd = standardDeviation(raw);
    const centred = metric !== "model" || (inProducts.has(variable) && choices.centring !== "raw");
    const own = { name: partKey({ variable, level: null }), variable, level: null };
    if (!centred) return [{ ...own, values: raw, sd, ...sizes(raw, false) }];
    const subtracted = exactMean(raw);
    const dividedBy = (metric !== "model" || choices.centring === "z") && !isConstant(raw) ? sd : 1;
    codings.push({ variable, subtracted: subtracted[0], dividedBy });
    const values = shifted(raw, subtracted, dividedBy);
    return [{ ...own, values, sd: sd / dividedBy, ...sizes(values, true) }];
  };
  const categorical = (variable: string, category: Category): ComponentColumn[] => {
    const table = codingTable(variable, category, choices.categories?.get(variable) ?? null);
    tables.push(table);
    return table.columns.map((level, at) => {
      const values = categoryColumn(category, table, at);
      const sd = standardDeviation(values);
      const column = { name: partKey({ variable, level }), variable, level };
      if (metric !== "z-indicators" || isConstant(values)) return { ...column, values, sd, ...sizes(values, false) };
      const z = shifted(values, exactMean(values), sd);
      return { ...column, values: z, sd: 1, ...sizes(z, true) };
    });
  };
  const componentColumns = (variable: string): readonly ComponentColumn[] => {
    const found = known.get(variable);
    if (found) return found;
    const raw = variables.get(variable);
    if (!raw) throw new UnknownVariableError({ variable });
    const made = "codes" in raw ? categorical(variable, raw) : numeric(variable, raw);
    known.set(variable, made);
    return made;
  };

  const seen = new Set<string>();
  const columns: DesignColumn[] = [];
  const widths = steps.map((terms) => {
    for (const term of terms) {
      const identity = termIdentity(term);
      if (seen.has(identity)) throw new DuplicateTermError({ term: termName(term), components: [...term.components] });
      seen.add(identity);
      for (const components of everyChoice(term.components.map(componentColumns))) {
        columns.push({ name: columnKey(components), term, components, ...productOf(components), noise: noiseOf(components) });
      }
    }
    return columns.length;
  });
  return { columns, widths, codings, tables };
}

/** One component column from each list, in every combination; the first list varies slowest. */
function everyChoice(lists: readonly (readonly ComponentColumn[])[]): ComponentColumn[][] {
  return lists.reduce<ComponentColumn[][]>((chosen, list) => chosen.flatMap((head) => list.map((next) => [...head, next])), [[]]);
}

/** Far from 0 by so many SDs, a variable's products are rounded by more than their variation can bear. */
const FAR = 1e3;

function productOf(components: readonly ComponentColumn[]): Pick<DesignColumn, "values" | "low"> {
  const first = components[0]!.values;
  if (components.length === 1) return { values: first, low: null };
  if (components.some(({ largest, sd }) => largest > FAR * sd)) return exactProduct(components);
  const values = first.slice();
  for (const { values: factor } of components.slice(1)) for (let i = 0; i < values.length; i++) values[i] = values[i]! * factor[i]!;
  return { values, low: null };
}

function exactProduct(components: readonly ComponentColumn[]): { values: Float64Array; low: Float64Array } {
  const n = components[0]!.values.length;
  const [values, low] = [new Float64Array(n), new Float64Array(n)];
  for (let i = 0; i < n; i++) {
    const product = components.reduce<DoubleDouble>((sofar, { values: factor }) => multiply(sofar, [factor[i]!, 0]), [1, 0]);
    [values[i], low[i]] = product;
  }
  return { values, low };
}

/** Rounding errors of the components, each times the largest values of the others. */
function noiseOf(components: readonly ComponentColumn[]): number {
  return components.reduce((sum, own) => sum + components.reduce((product, c) => product * (c === own ? c.noise : c.largest), 1), 0);
}

/** @param centred whether the values were rounded when something was taken from them */
function sizes(values: Float64Array, centred: boolean): Pick<ComponentColumn, "largest" | "noise"> {
  let largest = 0;
  for (const value of values) largest = Math.max(largest, Math.abs(value));
  return { largest, noise: centred ? Number.EPSILON * largest : 0 };
}

/** Both parts of what is subtracted count: of numbers 10¹² SDs from 0, the mean's rounding is a large part of a deviation. */
function shifted(raw: Float64Array, [high, low]: DoubleDouble, dividedBy: number): Float64Array {
  const values = new Float64Array(raw.length);
  for (let i = 0; i < raw.length; i++) values[i] = (raw[i]! - high - low) / dividedBy;
  return values;
}
