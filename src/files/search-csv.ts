import type { SearchResult } from "@/study/analyse/analyse-search";
import { csvOf } from "./csv-cells";

const HEAD = ["method", "columns", "R2", "adjusted_R2", "refit_R2", "refit_adjusted_R2", "held_out_R2", "which"];

/** Every method at every size at full precision; what is not available is empty. */
export function searchCsv(told: Extract<SearchResult, { status: "told" }>): string {
  const rows = Object.entries(told.searched.bySize).flatMap(([method, points]) =>
    points.map((one) => [method, one.size, one.R2, one.adjR2, one.refitR2, one.refitAdjR2, one.heldOutR2, one.columns.join("; ")]),
  );
  return csvOf([HEAD, ...rows]);
}
