import { z } from "zod";
import { ColumnParts } from "./column-parts";
import { ObjectId, VariableName } from "./names";

/** Whether the residuals of a step can be trusted: what they are seen against. */
export const Residuals = z.strictObject({
  id: ObjectId,
  ladder: ObjectId,
  /** From 1; null: the last. */
  step: z.int().min(1).nullable().default(null),
  /** What the residuals are seen along: a number, or a category level by level; null: the predicted outcome. */
  along: VariableName.nullable().default(null),
  /** True: in the order of the rows instead. */
  rows: z.boolean().default(false),
  /** Whose leaving is asked about: those above Cook's mark, those who move a coefficient most, or what the step adds. */
  pulls: z
    .discriminatedUnion("by", [
      z.strictObject({ by: z.literal("fit") }),
      z.strictObject({ by: z.literal("coefficient"), column: ColumnParts }),
      z.strictObject({ by: z.literal("change") }),
    ])
    .default({ by: "fit" }),
  /** Of the envelope. */
  seed: z.int().min(0).max(4_294_967_295).default(1),
});
export type Residuals = z.infer<typeof Residuals>;
