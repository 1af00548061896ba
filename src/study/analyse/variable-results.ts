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
