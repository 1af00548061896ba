import type { ShiftResult } from "@/study/analyse/analyse-shift";
import { csvOf } from "./csv-cells";

/** What each newcomer takes from the coefficient, a row a newcomer, at full precision; what is not available is empty. */
export function shiftCsv({ newcomers, before, after }: Extract<ShiftResult, { status: "told" }>): string {
  const [was, is] = [before.b.estimate, after.b.estimate];
  const head = ["newcomer", "taken_b", "taken_beta", "share", "b_without", "b_before", "b_after"];
  return csvOf([head, ...newcomers.map((one) => [one.key, one.taken, one.takenBeta, one.share, one.without, was, is])]);
}
