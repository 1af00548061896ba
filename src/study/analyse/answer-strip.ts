import type { Variable } from "../model/variable";
import type { ReadVariable } from "../prepare/numeric-column";

/** How the answers to one item are spread, for the strip beside it. */
export interface AnswerStrip {
  variable: string;
  /** Answers inside the declared range (or all, while none is declared), ascending; at most 12 distinct ones. */
  answers: { value: number; count: number }[];
  /** Respondents with no answer. */
  missing: number;
  /** Answers outside the declared range, with their counts: faults to look at. */
  outside: { value: number; count: number }[];
  /** Cells that hold words. */
  wordsInNumbers: number;
}

/** Counts the answers of one item. */
export function answerStrip(column: ReadVariable, variable: Variable): AnswerStrip {
  const counts = new Map<number, number>();
  let missing = 0;
  column.values.forEach((value, row) => {
    if (column.missing[row]) missing++;
    else counts.set(value, (counts.get(value) ?? 0) + 1);
  });
  const all = [...counts].map(([value, count]) => ({ value, count })).sort((a, b) => a.value - b.value);
  const { range } = variable;
  const inside = all.filter(({ value }) => !range || (value >= range.low && value <= range.high));
  return {
    variable: variable.name,
    answers: inside.length <= 12 ? inside : [],
    missing,
    outside: all.filter((a) => !inside.includes(a)),
    wordsInNumbers: column.wordsInNumbers,
  };
}
