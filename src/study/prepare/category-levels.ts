import { cellText, type ResponseColumn } from "../model/response-column";
import type { Variable } from "../model/variable";

/** More than this many different answers are no category; the rest is left to the codebook. */
const MOST_LEVELS = 200;

/** The different answers of a column as levels: numbers ascending, then words in order of first appearance; missing codes left out. */
export function categoryLevels(column: ResponseColumn, missing: readonly string[]): Variable["levels"] {
  const found = new Set<string>();
  for (let row = 0; row < column.values.length && found.size < MOST_LEVELS; row++) {
    const cell = cellText(column, row);
    if (cell !== null && !missing.includes(cell)) found.add(cell);
  }
  const numbers = [...found].filter((value) => !Number.isNaN(Number(value))).sort((a, b) => Number(a) - Number(b));
  const words = [...found].filter((value) => Number.isNaN(Number(value)));
  return [...numbers, ...words].map((value) => ({ value, label: "" }));
}
