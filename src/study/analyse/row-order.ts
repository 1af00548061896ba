import type { Ladder } from "../model/ladder";
import type { StudyColumns } from "../prepare/study-columns";

/** The cases of a sample (from 0) in the order the ladder states, or why that order cannot be had. */
export type SampleOrder = { order: Int32Array } | { reason: "no-order-stated" | "order-has-gaps" | "order-has-ties" };

/** @param rowsUsed data rows of the sample, from 1, ascending */
export function sampleOrder(ladder: Ladder, columns: StudyColumns, rowsUsed: readonly number[]): SampleOrder {
  if (ladder.order === null) return { reason: "no-order-stated" };
  const order = Int32Array.from(rowsUsed, (_, i) => i);
  if (ladder.order.by === "rows") return { order };
  const { values, missing } = columns.variable(ladder.order.variable);
  if (rowsUsed.some((row) => missing[row - 1])) return { reason: "order-has-gaps" };
  const place = (i: number) => values[rowsUsed[i]! - 1]!;
  order.sort((a, b) => place(a) - place(b));
  for (let i = 1; i < order.length; i++) if (place(order[i]!) === place(order[i - 1]!)) return { reason: "order-has-ties" };
  return { order };
}
