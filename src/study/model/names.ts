import { z } from "zod";

/** The name of a variable as the data file's header has it, or the id of a scale. Variables and scales share one set of names. */
export const VariableName = z.string().trim().min(1, "A name is missing.").max(200, "A name is longer than 200 characters.");
export type VariableName = z.infer<typeof VariableName>;

/** A short id of a scale, ladder or step: letters, digits, hyphens and underscores. Never shown, never changed. */
export const ObjectId = z.string().regex(/^[A-Za-z0-9_-]{1,64}$/, "An id holds letters, digits, hyphens and underscores only.");
export type ObjectId = z.infer<typeof ObjectId>;

/** A name made by a person. */
export const Title = z.string().trim().min(1, "A name is missing.").max(200, "A name is longer than 200 characters.");
