/** The checks of responses: what each looks for stands in the words of src/study/report/check-words.ts. */
export type CheckKind =
  | "missing-like"
  | "outside-range"
  | "words-in-numbers"
  | "same-code"
  | "same-answers"
  | "straight-line"
  | "nothing-answered"
  | "no-variation"
  | "undeclared-levels"
  | "unused-levels"
  | "small-levels"
  | "unreadable-dates"
  | "unmet-codes"
  | "idle-corrections";

/** A value with how often it stands. */
export interface ValueCount {
  value: string;
  count: number;
}

/** One thing a check has found. */
export interface Finding {
  check: CheckKind;
  /** The variable it is about; null when it is about whole respondents. */
  variable: string | null;
  /** The values concerned, most frequent first; the first twenty. */
  values: ValueCount[];
  /** Respondents concerned: rows from 1, ascending. Of a variable without variation none, though all are concerned. */
  rows: number[];
  /** How many cells or respondents that is. */
  count: number;
  /** Groups of respondents that look like one, each ascending. Empty where there are no groups. */
  groups: number[][];
}

const MOST_VALUES = 20;

/** A finding from the rows it concerns. */
export function finding(
  check: CheckKind,
  variable: string | null,
  rows: number[],
  values: ReadonlyMap<string, number> = new Map(),
): Finding {
  return {
    check,
    variable,
    values: [...values]
      .map(([value, count]) => ({ value, count }))
      .sort((a, b) => b.count - a.count)
      .slice(0, MOST_VALUES),
    rows,
    count: rows.length,
    groups: [],
  };
}
