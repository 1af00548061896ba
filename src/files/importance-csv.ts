import type { ImportanceResult } from "@/study/analyse/analyse-importance";
import type { ImportanceIntervals } from "@/study/analyse/joined-importance";
import { csvOf } from "./csv-cells";

const HEAD = ["term", "share", "share_of_sum", "zero_order", "part", "beta", "share_lower", "share_upper"];

/** Shares of R² at full precision, a row a term or step; what is not available is empty. */
export function importanceCsv(told: Extract<ImportanceResult, { status: "told" }>, intervals: ImportanceIntervals | null = null): string {
  const limit = (of: "lower" | "upper", key: string) => intervals?.[of][intervals.terms.indexOf(key)] ?? null;
  const rows = told.terms.map((one) => [one.key, one.share, one.ofSum, one.zeroOrder, one.part, one.beta, limit("lower", one.key), limit("upper", one.key)]); // prettier-ignore
  return csvOf([HEAD, ...rows]);
}
