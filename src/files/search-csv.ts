import Papa from "papaparse";
import type { SearchResult } from "@/study/analyse/analyse-search";
import { guarded } from "./spreadsheet-guard";

/** Every method at every size at full precision; what is not available is empty. */
export function searchCsv(told: Extract<SearchResult, { status: "told" }>): string {
  const fields = ["method", "columns", "R2", "adjusted_R2", "refit_R2", "refit_adjusted_R2", "held_out_R2", "which"];
  const data = Object.entries(told.searched.bySize).flatMap(([method, points]) =>
    points.map((one) => [
      method,
      one.size,
      one.R2,
      one.adjR2 ?? "",
      one.refitR2,
      one.refitAdjR2 ?? "",
      one.heldOutR2 ?? "",
      guarded(one.columns.join("; ")),
    ]),
  );
  return `\uFEFF${Papa.unparse({ fields, data }, { newline: "\r\n" })}\r\n`;
}
