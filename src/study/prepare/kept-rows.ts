import type { Condition, RespondentFilter } from "../model/respondent-filter";
import { type CategoryColumn, levelMeant } from "./category-column";
import { formulaValues, type FormulaInputs } from "./derive/formula-values";
import type { NumericColumn } from "./numeric-column";

/** What a filter can ask for. */
export interface FilterInputs extends FormulaInputs {
  numbersOf(name: string): NumericColumn;
  answered(name: string): { readonly missing: Uint8Array };
  /** Words and numbers alike as the file has them, missing codes included: a filter may ask for them. */
  written(name: string): CategoryColumn;
}

/** 1 where a respondent fulfils every condition of a filter. @throws what its inputs throw; FormulaFaultError */
export function keptRows(filter: Pick<RespondentFilter, "conditions">, inputs: FilterInputs): Uint8Array {
  const kept = new Uint8Array(inputs.rows).fill(1);
  for (const condition of filter.conditions) {
    const fulfilled = fulfils(condition, inputs);
    for (let row = 0; row < kept.length; row++) if (!fulfilled(row)) kept[row] = 0;
  }
  return kept;
}

/** Values that a filter names and no cell has: it is as if they did not stand there. */
export function unmetValues(conditions: readonly Condition[], written: (name: string) => CategoryColumn): string[] {
  return conditions.flatMap((condition) =>
    condition.kind === "values" ? condition.equals.filter((value) => levelMeant(written(condition.variable), value) < 0) : [],
  );
}

function fulfils(condition: Condition, inputs: FilterInputs): (row: number) => boolean {
  switch (condition.kind) {
    case "values": {
      const column = inputs.written(condition.variable);
      const { codes, missing } = column;
      const meant = new Set(condition.equals.map((value) => levelMeant(column, value)));
      return (row) => (missing[row] ? condition.not : meant.has(codes[row]!) !== condition.not);
    }
    case "between": {
      const { values, missing } = inputs.numbersOf(condition.variable);
      const low = condition.low ?? -Infinity;
      const high = condition.high ?? Infinity;
      return (row) => !missing[row] && values[row]! >= low && values[row]! <= high;
    }
    case "answered": {
      const columns = condition.variables.map((name) => inputs.answered(name).missing);
      const needed = Math.ceil(condition.share * columns.length - 1e-9);
      return (row) => columns.reduce((count, missing) => count + (missing[row] ? 0 : 1), 0) >= needed;
    }
    case "formula": {
      const { values } = formulaValues(condition.formula, inputs);
      return (row) => !Number.isNaN(values[row]!) && values[row] !== 0;
    }
    case "not-rows": {
      const out = new Set(condition.rows);
      return (row) => !out.has(row + 1);
    }
  }
}
