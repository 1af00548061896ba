import type { PrintTable } from "@/study/report/print-table";
import { plain, type Words } from "@/study/report/words";
import { csvOf } from "./csv-cells";

/** What stands over each column; "" for nothing. */
export const overOf = ({ over, head }: PrintTable): Words[] =>
  over ? over.flatMap(({ words, columns }) => Array.from({ length: columns }, () => words)) : head.map(() => "");

/** The cells of a table as they are printed, row by row: its head, and before the rows of a section its heading. */
export function printedRows(table: PrintTable): string[][] {
  const { head, sections } = table;
  const headed = sections.flatMap(({ heading, rows }) => [...(plain(heading) === "" ? [] : [[plain(heading)]]), ...rows.map((row) => row.map(plain))]); // prettier-ignore
  return [...(table.over ? [overOf(table).map(plain)] : []), head.map(plain), ...headed];
}

/** A table as it is printed, as CSV. */
export const printTableCsv = (table: PrintTable): string => csvOf(printedRows(table));
