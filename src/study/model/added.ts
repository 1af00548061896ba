import { z } from "zod";
import { ColumnParts } from "./column-parts";
import { ObjectId } from "./names";

/** What each term of a step adds to the others, as pictures of all respondents. */
export const Added = z.strictObject({
  id: ObjectId,
  ladder: ObjectId,
  /** From 1; null: the last. */
  step: z.int().min(1).nullable().default(null),
  /** Two rivals side by side; empty: every column. */
  columns: z.array(ColumnParts).max(2).default([]),
  /** Both sides freed of all others; or the column itself against what it and the residuals make up, to see a bend. */
  as: z.enum(["added", "component"]).default("added"),
});
export type Added = z.infer<typeof Added>;
