import { z } from "zod";
import { REPLICATES } from "./ladder";
import { ObjectId, VariableName } from "./names";

/** A step of a ladder fitted in every group of a variable, and how the groups differ. */
export const Groups = z
  .strictObject({
    id: ObjectId,
    ladder: ObjectId,
    /** From 1; null: the last. */
    step: z.int().min(1).nullable().default(null),
    variable: VariableName,
    /** Levels that are no group here. */
    leftOut: z.array(z.string()).default([]),
    /** Levels that count as one group. */
    together: z.array(z.array(z.string()).min(2)).default([]),
    /** What coefficients are told in: outcome units, SDs of all respondents, or SDs of each group. */
    metric: z.enum(["raw", "all", "own"]).default("all"),
    /** So many shuffles of the labels; null: none. */
    shuffles: z.int().min(REPLICATES.least).max(REPLICATES.most).nullable().default(null),
  })
  .refine(({ leftOut, together }) => {
    const named = [...leftOut, ...together.flat()];
    return new Set(named).size === named.length;
  }, "A level is named twice.");
export type Groups = z.infer<typeof Groups>;
