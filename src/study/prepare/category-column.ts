import { cellsMeant, type DecimalMark } from "../model/cell-number";
import { CellState, markOf, type ResponseColumn } from "../model/response-column";
import type { Variable } from "../model/variable";
import { categoryLevels } from "./category-levels";

const MISSING = -1;
const UNMET = -2;

/** A column read as categories: the level of row i is levels[codes[i]] where missing[i] is 0. */
export interface CategoryColumn {
  /** Declared levels in codebook order, then answers that are no declared level, in order of first appearance. */
  readonly levels: readonly string[];
  readonly codes: Int32Array;
  readonly missing: Uint8Array;
  /** Place of a level by what its cells may hold. */
  readonly places: ReadonlyMap<string | number, number>;
  readonly decimal: DecimalMark;
}

/** Place of the level that a value means, as it is written in a study; −1: none. */
export function levelMeant({ places, decimal }: Pick<CategoryColumn, "places" | "decimal">, written: string): number {
  return cellsMeant(written, decimal).reduce<number>((found, cell) => (found < 0 ? (places.get(cell) ?? -1) : found), -1);
}

/**
 * Reads a column as categories, by what the file says. Empty cells and declared missing codes are missing, never a level.
 * Without declared levels: numbers ascending, then words in order of first appearance.
 */
export function readCategories(column: ResponseColumn, variable: Pick<Variable, "missing" | "levels">): CategoryColumn {
  const n = column.values.length;
  const decimal = markOf(column);
  const codes = new Int32Array(n);
  const missing = new Uint8Array(n);
  const gone = new Set(variable.missing.flatMap((code) => cellsMeant(code, decimal)));
  const names: string[] = [];
  const known = new Map<string | number, number>();
  const declared = variable.levels.length > 0 ? variable.levels : categoryLevels(column, variable.missing);
  for (const { value } of declared) {
    const keys = cellsMeant(value, decimal).filter((key) => !known.has(key));
    if (keys.length === 0) continue;
    for (const key of keys) known.set(key, names.length);
    names.push(value);
  }
  /** The code of a cell not met before; −1: missing. */
  const codeOf = (cell: string | number): number => {
    if (gone.has(cell)) return MISSING;
    const at = known.get(cell);
    if (at !== undefined) return at;
    known.set(cell, names.length);
    return names.push(String(cell)) - 1;
  };
  // each distinct cell is looked up once: a hundred thousand answers are seven different ones
  const ofText = new Int32Array(column.texts.length).fill(UNMET);
  const ofNumber = new Map<number, number>();
  for (let i = 0; i < n; i++) {
    const value = column.values[i]!;
    const state = column.states[i]!;
    let code = state === CellState.empty ? MISSING : state === CellState.text ? ofText[value]! : (ofNumber.get(value) ?? UNMET);
    if (code === UNMET) {
      code = codeOf(state === CellState.text ? column.texts[value]! : value);
      if (state === CellState.text) ofText[value] = code;
      else ofNumber.set(value, code);
    }
    if (code === MISSING) missing[i] = 1;
    else codes[i] = code;
  }
  return { levels: names, codes, missing, places: known, decimal };
}
