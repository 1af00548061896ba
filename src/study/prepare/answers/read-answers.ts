import { CellState, type ResponseColumn } from "../../model/response-column";
import { answerKey, type ReadingRule } from "../../model/reading";
import { inUnit, readAmount } from "./read-amount";

/** What a rule makes of one answer; null: it stays what it is. */
export function answerReader(rule: ReadingRule): (written: string) => number | null {
  if (rule.kind === "words") {
    const values = new Map(rule.values.map(({ written, value }) => [answerKey(written), value]));
    return (written) => values.get(answerKey(written)) ?? null;
  }
  return (written) => {
    const amount = readAmount(written, rule.decimal);
    return amount === null || (amount.span && rule.spans === "none") ? null : inUnit(amount, rule.unit);
  };
}

/** The column with its answers read: each different text once, then a row a step. Numbers in it, and what is not read, stay. */
export function readColumn(column: ResponseColumn, rule: ReadingRule): ResponseColumn {
  const read = answerReader(rule);
  const numbers = column.texts.map((text) => read(text) ?? NaN);
  if (numbers.every(Number.isNaN)) return column;
  const values = column.values.slice();
  const states = column.states.slice();
  for (let row = 0; row < values.length; row++) {
    if (states[row] !== CellState.text) continue;
    const number = numbers[values[row]!]!;
    if (Number.isNaN(number)) continue;
    values[row] = number;
    states[row] = CellState.number;
  }
  return { ...column, values, states };
}
