import { cellsMeant } from "../model/cell-number";
import { CellState, markOf, type ResponseColumn } from "../model/response-column";
import type { Variable } from "../model/variable";

/** A column of numbers with its gaps: values[i] counts only where missing[i] is 0. */
export interface NumericColumn {
  readonly values: Float64Array;
  readonly missing: Uint8Array;
}

/** A variable read as numbers, and what could not be read so. */
export interface ReadVariable extends NumericColumn {
  /** Cells that hold words where a number is wanted and that are not a declared missing code; counted as missing. */
  readonly wordsInNumbers: number;
}

/** Reads a column as numbers: empty cells, declared missing codes and words are missing. */
export function readNumbers(column: ResponseColumn, variable: Pick<Variable, "missing">): ReadVariable {
  const n = column.values.length;
  const codes = new Set(variable.missing.flatMap((code) => cellsMeant(code, markOf(column))));
  const missing = new Uint8Array(n);
  const values = new Float64Array(n);
  let wordsInNumbers = 0;
  for (let i = 0; i < n; i++) {
    const state = column.states[i]!;
    const value = column.values[i]!;
    if (state === CellState.number && !codes.has(value)) {
      values[i] = value;
      continue;
    }
    missing[i] = 1;
    if (state === CellState.text && !codes.has(column.texts[value]!)) wordsInNumbers++;
  }
  return { values, missing, wordsInNumbers };
}

/** Only the values that are there. */
export function presentValues(column: NumericColumn): Float64Array {
  return column.values.filter((_, i) => column.missing[i] === 0);
}
