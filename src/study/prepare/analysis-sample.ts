/** A rule that keeps some respondents, and whom it keeps. */
export interface SampleRule {
  /** Id of a filter of the study; null for the choice made in the ladder's sentence. */
  filter: string | null;
  name: string;
  reason: string;
  /** Values that it names and no cell has. */
  unmet: string[];
  /** 1 where a respondent passes. */
  passes: Uint8Array;
}

/** How many a rule left out of those whom the rules before it had kept. */
export interface LeftOut {
  filter: string | null;
  name: string;
  reason: string;
  /** Values that the rule names and no cell has. */
  unmet: string[];
  count: number;
}

/** Who is in, and how many were lost on the way (docs/methods.md, “Who is in”). */
export interface AnalysisSample {
  rows: number;
  /** By rule, in order. */
  leftOut: LeftOut[];
  keptByFilter: number;
  complete: number;
  used: number;
  /** Missing values per variable among the rows kept by the filter. */
  missingByVariable: Record<string, number>;
  /** Data rows used, counted from 1. */
  rowsUsed: number[];
}

/**
 * The cases kept by every rule and complete on every column.
 * @param columns the outcome, every variable of every step and the cluster variable, by name, all of length `rows`
 */
export function analysisSample(
  rows: number,
  columns: ReadonlyMap<string, { readonly missing: Uint8Array }>,
  rules: readonly SampleRule[],
): AnalysisSample {
  // column after column: a hundred thousand rows take milliseconds
  const left = new Uint8Array(rows);
  let keptByFilter = rows;
  const leftOut = rules.map(({ filter, name, reason, unmet, passes }) => {
    let count = 0;
    for (let row = 0; row < rows; row++) {
      if (left[row] !== 0 || passes[row] !== 0) continue;
      left[row] = 1;
      count++;
    }
    keptByFilter -= count;
    return { filter, name, reason, unmet, count };
  });
  const gap = new Uint8Array(rows);
  const missingByVariable = Object.fromEntries(
    [...columns].map(([name, { missing }]) => {
      let count = 0;
      for (let row = 0; row < rows; row++) {
        if (left[row] !== 0 || missing[row] === 0) continue;
        gap[row] = 1;
        count++;
      }
      return [name, count];
    }),
  );
  const rowsUsed: number[] = [];
  for (let row = 0; row < rows; row++) if (left[row] === 0 && gap[row] === 0) rowsUsed.push(row + 1);
  return { rows, leftOut, keptByFilter, complete: rowsUsed.length, used: rowsUsed.length, missingByVariable, rowsUsed };
}
