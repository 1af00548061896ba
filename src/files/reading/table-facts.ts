/** What was met while a table was read, to be told before anything is kept. */
export interface TableFacts {
  /** Columns, from 0, in which some cells are dates or percentages by their format. */
  dates: Set<number>;
  percents: Set<number>;
  /** Cells with a formula and no value: the file was saved without being calculated. */
  formulasWithoutValue: number;
  /** Rows without anything in them, left out. */
  emptyRows: number;
  /** Rows of totals at the end, left out. */
  totals: number[];
}

export function noFacts(): TableFacts {
  return { dates: new Set(), percents: new Set(), formulasWithoutValue: 0, emptyRows: 0, totals: [] };
}
