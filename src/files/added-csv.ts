import type { AddedResult } from "@/study/analyse/analyse-added";
import { csvOf } from "./csv-cells";

/** The points of every cloud, in SDs, a row a respondent and column, at full precision. */
export function addedCsv({ columns }: Extract<AddedResult, { status: "told" }>): string {
  return csvOf([
    ["column", "row", "x_sd", "y_sd"],
    ...columns.flatMap(({ column, points }) => points.map(({ row, x, y }) => [column, row, x, y])),
  ]);
}
