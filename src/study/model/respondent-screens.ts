import { z } from "zod";
import { VariableName } from "./names";

/** What is asked where respondents are looked at by how they went through the questions: which variable tells what. */
export const RespondentScreens = z.strictObject({
  roles: z.array(
    z.strictObject({
      is: z.enum(["progress", "finished", "duration", "consent", "preview", "attention"]),
      variable: VariableName,
      below: z.number().nullable().optional(),
      /** The answer that was to be chosen. */
      asked: z.string().optional(),
    }),
  ),
  /** Columns of the file. */
  file: z.array(VariableName),
  straight: z.int(),
});
export type RespondentScreens = z.infer<typeof RespondentScreens>;
