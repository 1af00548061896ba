import { z } from "zod";
import { ObjectId, VariableName } from "./names";

/** What is asked where the file is looked through for what is still to be understood: its columns, and what is known of each. */
export const OpenPoints = z.strictObject({
  variables: z.array(
    z.strictObject({
      name: VariableName,
      /** What it shares with others of one question. */
      family: z.string().nullable(),
      /** The reading that reads its answers; null: none does. */
      read: ObjectId.nullable(),
      /** It says which answer is to be chosen. */
      check: z.boolean().optional(),
      /** Moments that a variable of minutes is made of already. */
      minutesOf: z.array(VariableName).optional(),
    }),
  ),
});
export type OpenPoints = z.infer<typeof OpenPoints>;
