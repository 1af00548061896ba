import type { Analysis } from "../kinds/kind";
import type { Variable } from "../model/variable";
import { presentValues, type ReadVariable } from "../prepare/numeric-column";
import type { StudyColumns } from "../prepare/study-columns";

/** One answer and how often it was given; of scores, the ones from `value` up to `to`. */
export interface StripPiece {
  value: number;
  count: number;
  to?: number;
}

/** How the answers to one item are spread, for the strip beside it. */
export interface AnswerStrip {
  variable: string;
  /** Answers inside the declared range (or all, while none is declared), ascending; at most 12 distinct ones. */
  answers: StripPiece[];
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

/** The strip of an item, or of a scale that serves as one. */
export function partStrip(name: string, columns: StudyColumns): AnswerStrip {
  if (columns.isScale(name)) return scoreStrip(name, columns);
  return answerStrip(columns.variable(name), columns.codebookRow(name));
}

const PIECES = 7;

/** Scores lie anywhere: seven pieces of equal width over what is possible, or over what there is where that is not known. */
function scoreStrip(name: string, columns: StudyColumns): AnswerStrip {
  const scores = columns.numbers(name);
  const present = presentValues(scores);
  const range = columns.possible(name) ?? {
    low: present.reduce((a, b) => Math.min(a, b), Infinity),
    high: present.reduce((a, b) => Math.max(a, b), -Infinity),
  };
  const width = (range.high - range.low) / PIECES;
  const counts = new Array<number>(PIECES).fill(0);
  for (const score of present) counts[Math.max(0, Math.min(PIECES - 1, width > 0 ? Math.floor((score - range.low) / width) : 0))]!++;
  const answers =
    present.length === 0 ? [] : counts.map((count, i) => ({ value: range.low + i * width, to: range.low + (i + 1) * width, count }));
  return { variable: name, answers, missing: scores.values.length - present.length, outside: [], wordsInNumbers: 0 };
}

export const analysis: Analysis<{ names: string[] }, { names: string[] }, AnswerStrip[]> = {
  run: ({ names }, { columns }) => names.map((name) => partStrip(name, columns)),
};
