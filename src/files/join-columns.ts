import type { ResponseColumn } from "@/study/model/response-column";
import type { ColumnChunk } from "./column-builder";
import type { TableData } from "./reading/read-table";

/** Whole columns from the chunks of a file that was read, by name; in memory that threads share. */
export function joinColumns(data: TableData, chunks: readonly ColumnChunk[]): Map<string, ResponseColumn> {
  const columns = data.columns.map(({ name, texts }) => ({
    name,
    texts,
    decimal: data.options.decimal,
    values: new Float64Array(new SharedArrayBuffer(data.rows * 8)),
    states: new Uint8Array(new SharedArrayBuffer(data.rows)),
  }));
  for (const { position, first, values, states } of chunks) {
    columns[position]!.values.set(values, first);
    columns[position]!.states.set(states, first);
  }
  return new Map(columns.map((column) => [column.name, column]));
}
