import type { Analysis } from "../../kinds/kind";
import { type Description, describe } from "@/core/describe/description";
import { binsOf, gridOf, type Histogram } from "@/core/describe/histogram";
import type { StudyColumns } from "../../prepare/study-columns";
import type { DerivedFacts } from "../../prepare/derive/derived-column";
import { presentValues } from "../../prepare/numeric-column";
import { type Refusal, refusalOf } from "../refusal";

/** What one variable holds, whatever its kind. */
export interface VariableLook {
  rows: number;
  missing: number;
  /** Distinct values with counts: a category's levels in their order, else most frequent first; the first sixty. */
  values: { value: string; count: number }[];
  distinct: number;
  /** Of numbers: null when there are none. */
  description: Description | null;
  histogram: Histogram | null;
  /** Distance between neighbouring possible values, as far as the values show it; null: they lie anywhere. */
  grid: number | null;
  /** Of a derived variable: how it came out. */
  facts: DerivedFacts | null;
}

export type LookResult = { status: "seen"; look: VariableLook } | { status: "refused"; refusal: Refusal };

const MOST_VALUES = 60;
const BINS = 40;

/** Looks at a variable or scale. */
export function variableLook(name: string, derived: boolean, columns: StudyColumns): LookResult {
  try {
    const facts = derived ? columns.facts(name) : null;
    const kind = columns.codebookRow(name).kind;
    const { levels, codes, missing } = columns.categories(name);
    const counts = new Int32Array(levels.length);
    codes.forEach((code, row) => missing[row] || counts[code]!++);
    const all = levels.map((value, i) => ({ value, count: counts[i]! }));
    const values = kind === "category" ? all : all.filter((v) => v.count > 0).sort((a, b) => b.count - a.count);
    const numbers = presentValues(columns.variable(name));
    const grid = gridOf(numbers);
    return {
      status: "seen",
      look: {
        rows: codes.length,
        missing: missing.reduce((n, m) => n + m, 0),
        values: values.slice(0, MOST_VALUES),
        distinct: all.filter((v) => v.count > 0).length,
        description: numbers.length === 0 ? null : describe(numbers),
        histogram: numbers.length === 0 ? null : binsOf(numbers, BINS),
        grid,
        facts,
      },
    };
  } catch (error) {
    return { status: "refused", refusal: refusalOf(error) };
  }
}

export const analysis: Analysis<{ name: string }, { name: string }, LookResult> = {
  run: ({ name }, { study, columns }) => variableLook(name, study.derived?.some((d) => d.name === name) ?? false, columns),
};
