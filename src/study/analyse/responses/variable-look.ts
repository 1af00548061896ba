import { type Description, describe } from "@/core/describe/description";
import { gridBins, type Histogram } from "@/core/describe/histogram";
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
  /** Of a derived variable: how it came out. */
  facts: DerivedFacts | null;
}

export type LookResult = { status: "seen"; look: VariableLook } | { status: "refused"; refusal: Refusal };

const MOST_VALUES = 60;
const BINS = 40;

/** Whole numbers fall on whole numbers; others on a grid finer than any bin. */
function gridOf(numbers: Float64Array): number {
  if (numbers.every(Number.isInteger)) return 1;
  const spread = numbers.reduce((a, b) => Math.max(a, b), -Infinity) - numbers.reduce((a, b) => Math.min(a, b), Infinity);
  return spread > 0 ? spread / 400 : 1;
}

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
    return {
      status: "seen",
      look: {
        rows: codes.length,
        missing: missing.reduce((n, m) => n + m, 0),
        values: values.slice(0, MOST_VALUES),
        distinct: all.filter((v) => v.count > 0).length,
        description: numbers.length === 0 ? null : describe(numbers),
        histogram: numbers.length === 0 ? null : gridBins(numbers, gridOf(numbers), BINS),
        facts,
      },
    };
  } catch (error) {
    return { status: "refused", refusal: refusalOf(error) };
  }
}
