import Papa from "papaparse";
import type { ImportanceResult } from "@/study/analyse/analyse-importance";
import type { ImportanceIntervals } from "@/study/analyse/joined-importance";
import { guarded } from "./spreadsheet-guard";

/** Shares of R² at full precision, a row a term; what is not available is empty. */
export function importanceCsv(told: Extract<ImportanceResult, { status: "told" }>, intervals: ImportanceIntervals | null = null): string {
  const limit = (of: "lower" | "upper", key: string) => intervals?.[of][intervals.terms.indexOf(key)] ?? "";
  const data = told.terms.map((term) => [
    guarded(term.key),
    term.share,
    term.ofSum ?? "",
    term.zeroOrder ?? "",
    term.part ?? "",
    term.beta ?? "",
    limit("lower", term.key),
    limit("upper", term.key),
  ]);
  const fields = ["term", "share", "share_of_sum", "zero_order", "part", "beta", "share_lower", "share_upper"];
  return `\uFEFF${Papa.unparse({ fields, data }, { newline: "\r\n" })}\r\n`;
}
