import { writtenNumber } from "../model/cell-number";
import type { Correction } from "../model/correction";
import { CellState, cellText, markOf, type ResponseColumn } from "../model/response-column";

/** True when a correction still holds: its row is there and the cell reads what it was written against. */
export function correctionHolds(column: ResponseColumn, { row, from }: Correction): boolean {
  if (row > column.values.length) return false;
  if (column.states[row - 1] !== CellState.number) return cellText(column, row - 1) === from;
  return from !== null && writtenNumber(from, markOf(column)) === column.values[row - 1];
}

/** The column with its corrections on top; the imported one is left as it is. */
export function correctedColumn(column: ResponseColumn, corrections: readonly Correction[]): ResponseColumn {
  const own = corrections.filter((c) => c.variable === column.name && correctionHolds(column, c));
  if (own.length === 0) return column;
  const values = column.values.slice();
  const states = column.states.slice();
  const texts = [...column.texts];
  for (const { row, to } of own) {
    const number = to === null ? null : writtenNumber(to, markOf(column));
    states[row - 1] = to === null ? CellState.empty : number === null ? CellState.text : CellState.number;
    if (to !== null && number === null && !texts.includes(to)) texts.push(to);
    values[row - 1] = number ?? (to === null ? 0 : texts.indexOf(to));
  }
  return { ...column, values, states, texts };
}
