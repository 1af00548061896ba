import { z } from "zod";
import { ObjectId, VariableName } from "./names";
import { ProbeValues } from "./probe";

/** What a step predicts at each level of a category, or at some values of a number; by another one, where it is told apart by that. */
export const Means = z
  .strictObject({
    id: ObjectId,
    ladder: ObjectId,
    /** From 1; null: the last. */
    step: z.int().min(1).nullable().default(null),
    variable: VariableName,
    /** Of a number. */
    values: ProbeValues.default({ by: "sd" }),
    by: VariableName.nullable().default(null),
    /** What each is held against: the mean of all that are shown, one of them, or every other. */
    compare: z.enum(["mean", "one", "pairs"]).default("mean"),
    /** The one; null: the first. */
    against: z.string().nullable().default(null),
  })
  .refine((m) => m.by !== m.variable, "A variable is not told apart by itself.");
export type Means = z.infer<typeof Means>;
