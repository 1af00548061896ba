import { z } from "zod";
import { ObjectId, VariableName } from "./names";

/** Whether the residuals of a step can be trusted: what they are seen against. */
export const Residuals = z.strictObject({
  id: ObjectId,
  ladder: ObjectId,
  /** From 1; null: the last. */
  step: z.int().min(1).nullable().default(null),
  /** A number the residuals are seen along; null: the predicted outcome. */
  along: VariableName.nullable().default(null),
  /** Of the envelope. */
  seed: z.int().min(0).max(4_294_967_295).default(1),
});
export type Residuals = z.infer<typeof Residuals>;
