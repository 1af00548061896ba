import type { CaseFilter } from "../model/ladder";
import { cellText, type ResponseColumn } from "../model/response-column";

/** Who is in, and how many were lost on the way (contract section 1). */
export interface AnalysisSample {
  rows: number;
  keptByFilter: number;
  complete: number;
  used: number;
  /** Missing values per variable among the rows kept by the filter. */
  missingByVariable: Record<string, number>;
  /** Data rows used, counted from 1. */
  rowsUsed: number[];
}

/**
 * The cases kept by the filter and complete on every column.
 * @param columns the outcome, every variable of every step and the cluster variable, by name, all of length `rows`
 */
export function analysisSample(
  rows: number,
  columns: ReadonlyMap<string, { readonly missing: Uint8Array }>,
  filter: { readonly rule: CaseFilter; readonly column: ResponseColumn } | null,
): AnalysisSample {
  const wanted = new Set(filter?.rule.equals);
  const lost = new Map([...columns.keys()].map((name) => [name, 0]));
  const rowsUsed: number[] = [];
  let keptByFilter = 0;
  for (let row = 0; row < rows; row++) {
    if (filter) {
      const cell = cellText(filter.column, row);
      if (cell === null || !wanted.has(cell)) continue;
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
  const missingByVariable = Object.fromEntries(lost);
  return { rows, keptByFilter, complete: rowsUsed.length, used: rowsUsed.length, missingByVariable, rowsUsed };
}
