import { cellsMeant } from "../../model/cell-number";
import { CellState, markOf, type ResponseColumn } from "../../model/response-column";
import type { Variable } from "../../model/variable";

/** What stands in a column of the file, counted: what it may be is told from this. */
export interface ColumnAnswers {
  name: string;
  label: string;
  /** What it shares with others of one question; null: nothing. */
  family: string | null;
  /** Texts that are no declared missing code, most frequent first. */
  texts: { written: string; count: number }[];
  /** Different numbers, ascending; null: more than sixty. */
  numbers: { value: number; count: number }[] | null;
  /** Cells that hold a number. */
  numeric: number;
  /** Cells with words, declared codes left out. */
  words: number;
  empty: number;
  rows: number;
}

const MOST_NUMBERS = 60;

/** Counts a column, its declared missing codes left out. */
export function columnAnswers(column: ResponseColumn, variable: Pick<Variable, "name" | "label" | "question" | "missing">): ColumnAnswers {
  const gone = new Set(variable.missing.flatMap((code) => cellsMeant(code, markOf(column))));
  const texts = new Float64Array(column.texts.length);
  const numbers = new Map<number, number>();
  let [numeric, words, empty] = [0, 0, 0];
  for (let row = 0; row < column.values.length; row++) {
    const state = column.states[row];
    const value = column.values[row]!;
    if (state === CellState.empty) empty++;
    else if (state === CellState.text) texts[value]!++;
    else if (!gone.has(value)) {
      numeric++;
      if (numbers.size <= MOST_NUMBERS) numbers.set(value, (numbers.get(value) ?? 0) + 1);
    }
  }
  const written = column.texts
    .map((text, i) => ({ written: text, count: texts[i]! }))
    .filter((one) => one.count > 0 && !gone.has(one.written))
    .sort((a, b) => b.count - a.count);
  for (const one of written) words += one.count;
  return {
    name: variable.name,
    label: variable.label,
    family: familyOf(variable),
    texts: written,
    numbers:
      numbers.size > MOST_NUMBERS ? null : [...numbers].map(([value, count]) => ({ value, count })).sort((a, b) => a.value - b.value),
    numeric,
    words,
    empty,
    rows: column.values.length,
  };
}

/** What a question's items share: the question's own wording, or the letters before their numbers. */
export function familyOf({ name, question }: Pick<Variable, "name" | "question">): string | null {
  if (question !== "") return `question ${question}`;
  const stem = nameStem(name);
  return stem === null ? null : `name ${stem}`;
}

/** `SC` of SC1, SC_2, SC 03, SC4r, `q3` of q3_1 and q3[SQ001]; null where a name holds no number at its end. */
export function nameStem(name: string): string | null {
  const stem = /^(.*?\D)\[?(?:SQ)?\d{1,3}\]?(?:_?r)?$/i.exec(name)?.[1]?.replace(/[ _.[-]+$/, "");
  return stem === undefined || stem === "" ? null : stem;
}
