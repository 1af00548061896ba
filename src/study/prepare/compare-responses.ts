import { CellState, cellText, type ResponseColumn } from "../model/response-column";
import type { ResponseDifferences } from "./staged-responses";

/** Responses as a set of columns of one length. */
export interface Responses {
  rows: number;
  names: readonly string[];
  column: (name: string) => ResponseColumn;
}

const MOST_LISTED = 50;
const MOST_CELLS = 500;

/** Respondents cannot be matched by a variable in which two have the same value, or one has none. */
export class KeyNotUniqueError extends Error {
  readonly code = "key-not-unique";
  constructor(readonly details: { key: string; which: "before" | "after"; row: number }) {
    super(`"${details.key}" does not tell the respondents apart.`);
  }
}

/** For each row of the new file the row of the old one that is the same respondent, from 0; −1: none. @throws KeyNotUniqueError */
export function matchRows(before: Responses, after: Responses, key: string | null): Int32Array {
  if (key === null) return Int32Array.from({ length: after.rows }, (_, row) => (row < before.rows ? row : -1));
  const places = (of: Responses, which: "before" | "after") => {
    const column = of.column(key);
    const found = new Map<string, number>();
    for (let row = 0; row < of.rows; row++) {
      const value = cellText(column, row);
      if (value === null || found.has(value)) throw new KeyNotUniqueError({ key, which, row: row + 1 });
      found.set(value, row);
    }
    return found;
  };
  const old = places(before, "before");
  const matched = new Int32Array(after.rows);
  for (const [value, row] of places(after, "after")) matched[row] = old.get(value) ?? -1;
  return matched;
}

/**
 * Every cell that differs between two states of the responses.
 * @param matched from matchRows
 */
export function compareResponses(before: Responses, after: Responses, matched: Int32Array, key: string | null): ResponseDifferences {
  const there = new Uint8Array(before.rows);
  const added: number[] = [];
  matched.forEach((old, row) => (old < 0 ? added.push(row + 1) : (there[old] = 1)));
  const removed: number[] = [];
  there.forEach((is, row) => is || removed.push(row + 1));
  const cells: ResponseDifferences["cells"] = [];
  const changedByVariable: ResponseDifferences["changedByVariable"] = [];
  for (const name of before.names.filter((n) => after.names.includes(n))) {
    const [old, now] = [before.column(name), after.column(name)];
    let count = 0;
    for (let row = 0; row < matched.length; row++) {
      const from = matched[row]!;
      if (from < 0 || sameCell(old, from, now, row)) continue;
      count++;
      if (cells.length < MOST_CELLS) cells.push({ variable: name, row: row + 1, from: cellText(old, from), to: cellText(now, row) });
    }
    if (count > 0) changedByVariable.push({ variable: name, count });
  }
  changedByVariable.sort((a, b) => b.count - a.count);
  return {
    matchedBy: key,
    rowsBefore: before.rows,
    rowsAfter: after.rows,
    added: { count: added.length, rows: added.slice(0, MOST_LISTED) },
    removed: { count: removed.length, rows: removed.slice(0, MOST_LISTED) },
    columnsAdded: after.names.filter((n) => !before.names.includes(n)),
    columnsMissing: before.names.filter((n) => !after.names.includes(n)),
    changedByVariable,
    changedCells: changedByVariable.reduce((sum, { count }) => sum + count, 0),
    cells,
  };
}

function sameCell(a: ResponseColumn, i: number, b: ResponseColumn, j: number): boolean {
  if (a.states[i] !== b.states[j]) return false;
  if (a.states[i] === CellState.empty) return true;
  return a.states[i] === CellState.number ? a.values[i] === b.values[j] : a.texts[a.values[i]!] === b.texts[b.values[j]!];
}

/** One column under another: the rows of `after` follow those of `before`; a column that one of them lacks is empty there. */
export function appendColumn(
  name: string,
  before: ResponseColumn | null,
  rowsBefore: number,
  after: ResponseColumn | null,
  rowsAfter: number,
): ResponseColumn {
  const values = new Float64Array(rowsBefore + rowsAfter);
  const states = new Uint8Array(rowsBefore + rowsAfter).fill(CellState.empty);
  const texts = [...(before?.texts ?? [])];
  if (before) {
    values.set(before.values);
    states.set(before.states);
  }
  if (after) {
    const places = new Map(texts.map((text, at) => [text, at]));
    const moved = after.texts.map((text) => {
      if (!places.has(text)) places.set(text, texts.push(text) - 1);
      return places.get(text)!;
    });
    after.values.forEach((value, row) => (values[rowsBefore + row] = after.states[row] === CellState.text ? moved[value]! : value));
    states.set(after.states, rowsBefore);
  }
  const decimal = (before ?? after)?.decimal;
  return { name, values, states, texts, ...(decimal && { decimal }) };
}
