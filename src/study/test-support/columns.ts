import { cellNumber } from "../model/cell-number";
import { CellState, type ResponseColumn } from "../model/response-column";

/** A response column from cells as a file has them: numbers, words, "" for empty. */
export function columnOf(name: string, cells: readonly string[]): ResponseColumn {
  const texts: string[] = [];
  const values = new Float64Array(cells.length);
  const states = new Uint8Array(cells.length);
  cells.forEach((cell, i) => {
    const number = cellNumber(cell, "."); // as the reader does
    if (cell === "") states[i] = CellState.empty;
    else if (number !== null) values[i] = number;
    else {
      if (!texts.includes(cell)) texts.push(cell);
      states[i] = CellState.text;
      values[i] = texts.indexOf(cell);
    }
  });
  return { name, values, states, texts };
}

/** Columns of a little data set, by name. */
export function sourceOf(data: Record<string, readonly string[]>): (name: string) => ResponseColumn | undefined {
  const columns = new Map(Object.entries(data).map(([name, cells]) => [name, columnOf(name, cells)]));
  return (name) => columns.get(name);
}
