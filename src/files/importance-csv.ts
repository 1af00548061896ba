import Papa from "papaparse";
import type { ImportanceResult } from "@/study/analyse/analyse-importance";
import { guarded } from "./spreadsheet-guard";

/** Shares of R² at full precision, a row a term; what is not available is empty. */
export function importanceCsv(told: Extract<ImportanceResult, { status: "told" }>): string {
  const data = told.terms.map((term) => [
    guarded(term.key),
    term.share,
    term.ofSum ?? "",
    term.zeroOrder ?? "",
    term.part ?? "",
    term.beta ?? "",
  ]);
  const fields = ["term", "share", "share_of_sum", "zero_order", "part", "beta"];
  return `\uFEFF${Papa.unparse({ fields, data }, { newline: "\r\n" })}\r\n`;
}
