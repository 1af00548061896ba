import type { NumericColumn } from "../prepare/numeric-column";
import { commonOrder, dayNumber, readDay } from "../prepare/derive/dates";
import type { CategoryColumn } from "../prepare/category-column";
import { type Refusal, unlessRefused } from "./refusal";
import type { Ladder } from "../model/ladder";
import type { StudyColumns } from "../prepare/study-columns";

/** The cases of a sample (from 0) in the order the ladder states, or why that order cannot be had. */
export type SampleOrder =
  | { order: Int32Array }
  | { reason: "no-order-stated" | "order-has-gaps" | "order-has-ties" | "order-is-no-number" }
  | { reason: "order-refused"; refusal: Refusal };

/** @param rowsUsed data rows of the sample, from 1, ascending */
export function sampleOrder(ladder: Ladder, columns: StudyColumns, rowsUsed: readonly number[]): SampleOrder {
  if (ladder.order === null) return { reason: "no-order-stated" };
  const order = Int32Array.from(rowsUsed, (_, i) => i);
  if (ladder.order.by === "rows") return { order };
  const { variable } = ladder.order;
  const read = unlessRefused(() =>
    columns.codebookRow(variable).kind === "date" ? days(columns.categories(variable)) : columns.variable(variable),
  );
  if ("refusal" in read) return { reason: "order-refused", refusal: read.refusal };
  const { values, missing } = read;
  if (missing.every((gone) => gone === 1)) return { reason: "order-is-no-number" };
  if (rowsUsed.some((row) => missing[row - 1])) return { reason: "order-has-gaps" };
  const place = (i: number) => values[rowsUsed[i]! - 1]!;
  order.sort((a, b) => place(a) - place(b));
  for (let i = 1; i < order.length; i++) if (place(order[i]!) === place(order[i - 1]!)) return { reason: "order-has-ties" };
  return { order };
}

/** Dates by their day, in the order that most of them are written in; what is no date so written is missing. */
function days({ levels, codes, missing }: CategoryColumn): NumericColumn {
  const written = commonOrder(levels);
  const of = levels.map((text) => (written === null ? null : readDay(text, written)));
  const values = Float64Array.from(codes, (code, row) => (missing[row] || !of[code] ? 0 : dayNumber(of[code])));
  return { values, missing: missing.map((gone, row) => (gone || !of[codes[row]!] ? 1 : 0)) };
}
