import Papa from "papaparse";
import type { ShiftResult } from "@/study/analyse/analyse-shift";
import { guarded } from "./spreadsheet-guard";

/** What each newcomer takes from the coefficient, a row a newcomer, at full precision; what is not available is empty. */
export function shiftCsv({ newcomers, before, after }: Extract<ShiftResult, { status: "told" }>): string {
  const fields = ["newcomer", "taken_b", "taken_beta", "share", "b_without", "b_before", "b_after"];
  const data = newcomers.map((one) => [guarded(one.key), one.taken, one.takenBeta ?? "", one.share ?? "", one.without, before.b.estimate, after.b.estimate]); // prettier-ignore
  return `\uFEFF${Papa.unparse({ fields, data }, { newline: "\r\n" })}\r\n`;
}
