import type { PrintTable } from "@/study/report/print-table";
import { plain } from "@/study/report/words";
import { csvOf } from "./csv-cells";

/** The cells of a table as they are printed, row by row: its head, and before the rows of a section its heading. */
export function printedRows({ head, sections }: PrintTable): string[][] {
  const headed = sections.flatMap(({ heading, rows }) => [...(plain(heading) === "" ? [] : [[plain(heading)]]), ...rows.map((row) => row.map(plain))]); // prettier-ignore
  return [head.map(plain), ...headed];
}

/** A table as it is printed, as CSV. */
export const printTableCsv = (table: PrintTable): string => csvOf(printedRows(table));
