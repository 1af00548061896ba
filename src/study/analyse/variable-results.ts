import type { Analysis } from "../kinds/kind";
import type { Variable } from "../model/variable";
import { describe } from "@/core/describe/description";
import { shapiroWilk } from "@/core/describe/shapiro-wilk";
import { presentValues, type ReadVariable } from "../prepare/numeric-column";

/** One numeric variable as it is answered, all rows of the data. */
export function variableResults(variable: ReadVariable) {
  const values = presentValues(variable);
  const { n, ...rest } = describe(values);
  return {
    n,
    missing: variable.missing.reduce((sum, gone) => sum + gone, 0),
    words_in_numbers: variable.wordsInNumbers,
    ...rest,
    shapiro_wilk: normality(values),
  };
}

/** Shapiro–Wilk of a list of numbers, or why there is none. */
export function normality(values: Float64Array) {
  if (values.length < 3 || values.length > 5_000) return { W: null, p: null, reason: "made-for-3-to-5000-cases" };
  return shapiroWilk(values) ?? { W: null, p: null, reason: "all-alike" };
}

/** Numbers alone have a part of the results document: derived ones, and columns the data have. */
export const analysis: Analysis<Variable, { name: string }, ReturnType<typeof variableResults>> = {
  section: "variables",
  run: ({ name }, { columns }) => variableResults(columns.variable(name)),
  results({ name, kind }, { study, responses, columns }) {
    const there = study.derived?.some((d) => d.name === name) || responses(name) !== undefined;
    return (kind === "number" || kind === "item") && there ? variableResults(columns.variable(name)) : undefined;
  },
};
