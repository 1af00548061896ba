import type { ResponseColumn } from "@/study/model/response-column";
import { CHUNK_ROWS, type ColumnChunk } from "./column-builder";
import type { DelimitedData } from "./read-delimited";

/** Whole columns from the chunks of a file that was read, by name. */
export function joinColumns(data: DelimitedData, chunks: readonly ColumnChunk[]): Map<string, ResponseColumn> {
  const columns = data.columns.map(({ name, texts }) => ({
    name,
    texts,
    values: new Float64Array(data.rows),
    states: new Uint8Array(data.rows),
  }));
  for (const { position, chunk, values, states } of chunks) {
    columns[position]!.values.set(values, chunk * CHUNK_ROWS);
    columns[position]!.states.set(states, chunk * CHUNK_ROWS);
  }
  return new Map(columns.map((column) => [column.name, column]));
}
