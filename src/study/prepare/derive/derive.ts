import { CoreError } from "@/core/errors";
import { mean } from "@/core/describe/mean";
import { standardDeviation } from "@/core/describe/standard-deviation";
import type { Recipe } from "../../model/derived";
import type { LadderColumns } from "../ladder-models";
import { type NumericColumn } from "../numeric-column";
import { deriveByCase } from "./case-values";
import { choose, tick } from "./chosen";
import { completedYears, type Day, exactYears, readDay, readMoment } from "./dates";
import { type Derivation, numberDerivation } from "./derived-column";
import { deriveByFormula, type FormulaInputs } from "./formula-values";
import { indicate, lookUp } from "./lookup";
import { cutIntoRanges } from "./ranges";

/** What a recipe can ask for. */
export interface RecipeInputs extends FormulaInputs {
  /** @throws MissingColumnError, UndeclaredRangeError */
  numbersOf(name: string): NumericColumn;
  /** 1 where a respondent is in the study. */
  kept(): Uint8Array;
  /** What a ladder asks for. */
  readonly ladder: LadderColumns;
}

/** Mean or SD over nobody, or an SD of answers that are all the same. */
export class NothingToStandardizeError extends CoreError {
  readonly code = "nothing-to-standardize";
  constructor(readonly details: { variable: string; answers: number }) {
    super(`"${details.variable}" has ${details.answers} answers and no spread to divide by.`);
  }
}

/**
 * Carries out a recipe.
 * @throws FormulaFaultError, NothingToStandardizeError, and what the inputs throw
 */
export function derive(name: string, recipe: Recipe, inputs: RecipeInputs): Derivation {
  switch (recipe.kind) {
    case "lookup":
      return lookUp(name, recipe, inputs.categories(recipe.from));
    case "indicator":
      return indicate(name, recipe.equals, inputs.categories(recipe.from));
    case "ranges":
      return cutIntoRanges(name, recipe, inputs.numbersOf(recipe.from));
    case "formula":
      return deriveByFormula(name, recipe.formula, inputs);
    case "transform": {
      const of = TRANSFORMS[recipe.by];
      const { values, missing } = inputs.numbersOf(recipe.from);
      return numberDerivation(name, values.map(of), missing);
    }
    case "z":
    case "centre": {
      const from = inputs.numbersOf(recipe.from);
      const { centre, unit } = standard(recipe.from, from, inputs.kept());
      if (recipe.kind === "z" && unit === 0) throw new NothingToStandardizeError({ variable: recipe.from, answers: from.values.length });
      const by = recipe.kind === "z" ? unit : 1;
      return numberDerivation(
        name,
        from.values.map((x) => (x - centre) / by),
        from.missing,
      );
    }
    case "weighted":
      return weightedSum(
        name,
        recipe.parts.map(({ variable, weight }) => ({ weight, from: inputs.numbersOf(variable) })),
      );
    case "case":
      return deriveByCase(name, recipe, inputs.ladder);
    case "years":
      return years(name, recipe, inputs);
    case "choice":
      return choose(name, recipe, inputs.categories(recipe.from));
    case "ticked":
      return tick(
        name,
        recipe.block.map((column) => inputs.categories(column)),
        recipe.block.indexOf(recipe.from),
      );
    case "minutes":
      return minutes(name, recipe, inputs);
  }
}

const TRANSFORMS: Record<Extract<Recipe, { kind: "transform" }>["by"], (x: number) => number> = {
  ln: (x) => (x > 0 ? Math.log(x) : NaN),
  log10: (x) => (x > 0 ? Math.log10(x) : NaN),
  root: (x) => (x >= 0 ? Math.sqrt(x) : NaN),
  square: (x) => x * x,
};

/** Mean and SD (n − 1) of the answers of the respondents who are in the study. */
function standard(variable: string, { values, missing }: NumericColumn, kept: Uint8Array): { centre: number; unit: number } {
  const there = values.filter((_, row) => kept[row] === 1 && missing[row] === 0);
  if (there.length === 0) throw new NothingToStandardizeError({ variable, answers: 0 });
  return { centre: mean(there), unit: there.length < 2 ? 0 : standardDeviation(there) };
}

function weightedSum(name: string, parts: readonly { weight: number; from: NumericColumn }[]): Derivation {
  const rows = parts[0]!.from.values.length;
  const sums = new Float64Array(rows);
  const missing = new Uint8Array(rows);
  for (const { weight, from } of parts) {
    for (let row = 0; row < rows; row++) {
      sums[row]! += weight * from.values[row]!;
      if (from.missing[row]) missing[row] = 1;
    }
  }
  return numberDerivation(name, sums, missing);
}

function years(name: string, recipe: Extract<Recipe, { kind: "years" }>, inputs: RecipeInputs): Derivation {
  const { order, count, to } = recipe;
  const from = inputs.categories(recipe.from);
  const starts = from.levels.map((text) => readDay(text, order));
  const values = new Float64Array(from.codes.length);
  if (to?.kind === "variable") {
    const until = inputs.categories(to.variable);
    const ends = until.levels.map((text) => readDay(text, order));
    const missing = from.missing.map((m, row) => (m || until.missing[row] ? 1 : 0));
    for (let row = 0; row < values.length; row++)
      if (!missing[row]) values[row] = span(starts[from.codes[row]!]!, ends[until.codes[row]!]!, count);
    return numberDerivation(name, values, missing);
  }
  const end = to && readDay(to.day, "year-month-day");
  const each = starts.map((start) => (end ? span(start, end, count) : (start?.year ?? NaN)));
  for (let row = 0; row < values.length; row++) if (!from.missing[row]) values[row] = each[from.codes[row]!]!;
  return numberDerivation(name, values, from.missing);
}

function span(from: Day | null, to: Day | null, count: "calendar" | "completed" | "exact"): number {
  if (!from || !to) return NaN;
  return count === "exact" ? exactYears(from, to) : completedYears(from, to);
}

/** Minutes between two moments; none where either is no moment. */
function minutes(name: string, { from, to, order }: Extract<Recipe, { kind: "minutes" }>, inputs: RecipeInputs): Derivation {
  const [begun, ended] = [inputs.categories(from), inputs.categories(to)];
  const [starts, ends] = [begun, ended].map(({ levels }) => levels.map((text) => readMoment(text, order) ?? NaN)) as [number[], number[]];
  const missing = begun.missing.map((m, row) => (m || ended.missing[row] ? 1 : 0));
  const values = Float64Array.from(missing, (gone, row) => (gone ? 0 : ends[ended.codes[row]!]! - starts[begun.codes[row]!]!));
  return numberDerivation(name, values, missing);
}
