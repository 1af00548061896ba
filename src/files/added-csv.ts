import Papa from "papaparse";
import type { AddedResult } from "@/study/analyse/analyse-added";
import { guarded } from "./spreadsheet-guard";

/** The points of every cloud, in SDs, a row a respondent and column, at full precision. */
export function addedCsv({ columns }: Extract<AddedResult, { status: "told" }>): string {
  const data = columns.flatMap(({ column, points }) => points.map(({ row, x, y }) => [guarded(column), row, x, y]));
  return `\uFEFF${Papa.unparse({ fields: ["column", "row", "x_sd", "y_sd"], data }, { newline: "\r\n" })}\r\n`;
}
