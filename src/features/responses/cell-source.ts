import { z } from "zod";

/** A stretch of the sheet: rows in the order shown, columns in codebook order. */
export const BLOCK_ROWS = 60;
export const BLOCK_COLUMNS = 20;

const Cells = z.array(z.array(z.string().nullable()));

/** Cells of some rows (from 0) of some columns of the responses as imported; a list of columns for each row. */
export async function fetchCells(dataset: string, names: readonly string[], rows: readonly number[], signal?: AbortSignal) {
  const response = await fetch(`/api/datasets/${dataset}/cells`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ names, rows }),
    signal: signal ?? null,
  });
  if (!response.ok) throw new Error("cells-unavailable");
  return Cells.parse(await response.json());
}

/** As many cells as can be asked for at once: more are asked for piece by piece. */
const MOST_ROWS = 500;
const MOST_NAMES = 200;

/** Cells of any number of rows and columns, for copying. */
export async function fetchAllCells(dataset: string, names: readonly string[], rows: readonly number[]): Promise<(string | null)[][]> {
  const cells: (string | null)[][] = rows.map(() => []);
  for (let column = 0; column < names.length; column += MOST_NAMES) {
    const part = names.slice(column, column + MOST_NAMES);
    for (let row = 0; row < rows.length; row += MOST_ROWS) {
      const block = await fetchCells(dataset, part, rows.slice(row, row + MOST_ROWS));
      block.forEach((line, i) => cells[row + i]!.push(...line));
    }
  }
  return cells;
}
