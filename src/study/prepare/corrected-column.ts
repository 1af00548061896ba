import { cellNumber } from "../model/cell-number";
import type { Correction } from "../model/correction";
import { CellState, cellText, type ResponseColumn } from "../model/response-column";

/** True when a correction still holds: its row is there and the cell reads what it was written against. */
export function correctionHolds(column: ResponseColumn, { row, from }: Correction): boolean {
  return row <= column.values.length && cellText(column, row - 1) === from;
}

/** The column with its corrections on top; the imported one is left as it is. */
export function correctedColumn(column: ResponseColumn, corrections: readonly Correction[]): ResponseColumn {
  const own = corrections.filter((c) => c.variable === column.name && correctionHolds(column, c));
  if (own.length === 0) return column;
  const values = column.values.slice();
  const states = column.states.slice();
  const texts = [...column.texts];
  for (const { row, to } of own) {
    const number = to === null ? null : cellNumber(to, ".");
    states[row - 1] = to === null ? CellState.empty : number === null ? CellState.text : CellState.number;
    if (to !== null && number === null && !texts.includes(to)) texts.push(to);
    values[row - 1] = number ?? (to === null ? 0 : texts.indexOf(to));
  }
  return { name: column.name, values, states, texts };
}
