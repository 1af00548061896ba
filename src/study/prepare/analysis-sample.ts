/** A rule that keeps some respondents, and whom it keeps. */
export interface SampleRule {
  /** Id of a filter of the study; null for the choice made in the ladder's sentence. */
  filter: string | null;
  name: string;
  reason: string;
  /** 1 where a respondent passes. */
  passes: Uint8Array;
}

/** How many a rule left out of those whom the rules before it had kept. */
export interface LeftOut {
  filter: string | null;
  name: string;
  reason: string;
  count: number;
}

/** Who is in, and how many were lost on the way (contract section 1). */
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
  const lost = new Map([...columns.keys()].map((name) => [name, 0]));
  const out = rules.map(() => 0);
  const rowsUsed: number[] = [];
  let keptByFilter = 0;
  for (let row = 0; row < rows; row++) {
    const stopped = rules.findIndex((rule) => rule.passes[row] === 0);
    if (stopped >= 0) {
      out[stopped]!++;
      continue;
    }
    keptByFilter++;
    let complete = true;
    for (const [name, column] of columns) {
      if (!column.missing[row]) continue;
      lost.set(name, lost.get(name)! + 1);
      complete = false;
    }
    if (complete) rowsUsed.push(row + 1);
  }
  const leftOut = rules.map(({ filter, name, reason }, i) => ({ filter, name, reason, count: out[i]! }));
  const missingByVariable = Object.fromEntries(lost);
  return { rows, leftOut, keptByFilter, complete: rowsUsed.length, used: rowsUsed.length, missingByVariable, rowsUsed };
}
