import { cellsMeant } from "../model/cell-number";
import { CellState, cellText, markOf, type ResponseColumn } from "../model/response-column";
import type { Variable } from "../model/variable";

/** More than this many different answers are no category; the rest is left to the codebook. */
const MOST_LEVELS = 200;

/** The different answers of a column as levels: numbers ascending, then words in order of first appearance; missing codes left out. */
export function categoryLevels(column: ResponseColumn, missing: readonly string[]): Variable["levels"] {
  const gone = new Set(missing.flatMap((code) => cellsMeant(code, markOf(column))));
  const [numbers, words] = [new Set<number>(), new Set<string>()];
  for (let row = 0; row < column.values.length && numbers.size + words.size < MOST_LEVELS; row++) {
    const cell = cellText(column, row);
    if (cell === null || gone.has(cell)) continue;
    if (column.states[row] === CellState.text) words.add(cell);
    else if (!gone.has(column.values[row]!)) numbers.add(column.values[row]!);
  }
  const ascending = [...numbers].sort((a, b) => a - b).map(String);
  return [...ascending, ...words].map((value) => ({ value, label: "" }));
}
