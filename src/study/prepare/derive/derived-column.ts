import { type DecimalMark, writtenNumber } from "../../model/cell-number";
import { CellState, type ResponseColumn } from "../../model/response-column";

/** What there is to tell of a derived variable besides its values. */
export interface DerivedFacts {
  rows: number;
  /** Respondents with a value. */
  valid: number;
  /** Respondents without one because an input is missing. */
  missingInputs: number;
  /** Respondents whose inputs are there but give no value: a logarithm of zero, a division by zero, a date that cannot be read. */
  undefined: number;
  /** Values that a lookup does not mention, most frequent first; the first fifty. */
  unmatched: { value: string; count: number }[];
  /** Respondents with such a value. */
  unmatchedRows: number;
  /** Values that the recipe names and no respondent has. */
  unmet: string[];
}

/** A derived variable as a column that reads like an imported one, and what there is to tell of it. */
export interface Derivation {
  column: ResponseColumn;
  facts: DerivedFacts;
}

/**
 * A column of numbers. NaN stands for "none" while it is worked out and never leaves: it becomes an empty cell, and is counted.
 * @param missing rows where an input is missing
 */
export function numberDerivation(name: string, numbers: Float64Array, missing: Uint8Array): Derivation {
  const states = new Uint8Array(numbers.length);
  let [missingInputs, undefinedRows] = [0, 0];
  for (let row = 0; row < numbers.length; row++) {
    if (!missing[row] && Number.isFinite(numbers[row]!)) continue;
    numbers[row] = 0;
    states[row] = CellState.empty;
    if (missing[row]) missingInputs++;
    else undefinedRows++;
  }
  const rows = numbers.length;
  return {
    column: { name, values: numbers, states, texts: [] },
    facts: {
      rows,
      valid: rows - missingInputs - undefinedRows,
      missingInputs,
      undefined: undefinedRows,
      unmatched: [],
      unmatchedRows: 0,
      unmet: [],
    },
  };
}

/**
 * A column in which row i reads cells[of[i]]: as a number where that is one as a file would have it, else as words. −1: no value.
 * @param decimal how the recipe writes fractions
 * @param missingInputs rows of `of` that are −1 because the input is missing
 */
export function cellDerivation(
  name: string,
  cells: readonly (string | null)[],
  of: Int32Array,
  decimal: DecimalMark,
  facts: Pick<DerivedFacts, "missingInputs" | "unmatched" | "unmatchedRows" | "unmet">,
): Derivation {
  const rows = of.length;
  const texts: string[] = [];
  const placed = cells.map((cell) => {
    if (cell === null) return null;
    const number = writtenNumber(cell, decimal);
    if (number !== null) return { state: CellState.number, value: number };
    if (!texts.includes(cell)) texts.push(cell);
    return { state: CellState.text, value: texts.indexOf(cell) };
  });
  const valueOf = Float64Array.from(placed, (cell) => cell?.value ?? 0);
  const stateOf = Uint8Array.from(placed, (cell) => cell?.state ?? CellState.empty);
  const values = new Float64Array(rows);
  const states = new Uint8Array(rows).fill(CellState.empty);
  let valid = 0;
  for (let row = 0; row < rows; row++) {
    const at = of[row]!;
    if (at < 0 || stateOf[at] === CellState.empty) continue;
    values[row] = valueOf[at]!;
    states[row] = stateOf[at]!;
    valid++;
  }
  return { column: { name, values, states, texts }, facts: { rows, valid, undefined: 0, ...facts } };
}
