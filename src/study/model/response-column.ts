import type { DecimalMark } from "./cell-number";

/** What a cell holds. */
export const CellState = { number: 0, empty: 1, text: 2 } as const;

/**
 * One column of responses exactly as imported, never changed afterwards. Row i holds values[i] where states[i] is
 * `number`, nothing where it is `empty`, and texts[values[i]] where it is `text`.
 */
export interface ResponseColumn {
  readonly name: string;
  readonly values: Float64Array;
  readonly states: Uint8Array;
  /** The distinct texts of the column, in order of first appearance. */
  readonly texts: readonly string[];
  /** How the file writes fractions, and so the values that a study names; a point where it is not said. */
  readonly decimal?: DecimalMark;
}

/** Reads columns by name; an unknown name gives undefined. */
export type ResponseSource = (name: string) => ResponseColumn | undefined;

/** A column without an answer. */
export function emptyColumn(name: string, rows: number): ResponseColumn {
  return { name, values: new Float64Array(rows), states: new Uint8Array(rows).fill(CellState.empty), texts: [] };
}

/** The mark in which values for a column are written. */
export function markOf(column: ResponseColumn): DecimalMark {
  return column.decimal ?? ".";
}

/** The cell as text, as the file had it but for the way numbers are written; null when empty. */
export function cellText(column: ResponseColumn, row: number): string | null {
  const state = column.states[row]!;
  if (state === CellState.empty) return null;
  return state === CellState.text ? column.texts[column.values[row]!]! : String(column.values[row]!);
}
