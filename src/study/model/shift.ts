import { z } from "zod";
import { ColumnParts } from "./column-parts";
import { ObjectId } from "./names";

/** Why a coefficient changes from one step to the next. */
export const Shift = z.strictObject({
  id: ObjectId,
  ladder: ObjectId,
  /** The later of the two, from 2; null: the last. */
  step: z.int().min(2).nullable().default(null),
  /** Whose coefficient. */
  column: ColumnParts,
});
export type Shift = z.infer<typeof Shift>;
