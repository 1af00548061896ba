import { z } from "zod";
import { VariableName } from "./names";

/** A column of a design, told by what it is made of: numbers, and levels of categories. */
export const ColumnParts = z
  .array(z.strictObject({ variable: VariableName, level: z.string().nullable().default(null) }))
  .min(1)
  .max(4);
export type ColumnParts = z.infer<typeof ColumnParts>;
