import { z } from "zod";
import { ObjectId } from "./names";

/** What holds for all hypotheses of a study; there is one. */
export const Theory = z.strictObject({
  id: ObjectId,
  alpha: z.number().min(0.0001).max(0.2).default(0.05),
  /** Holm's correction over those that are in the family. */
  holm: z.boolean().default(false),
  /** |β| below which nothing would matter; 0: nothing is said. */
  delta: z.number().min(0).max(1).default(0),
});
export type Theory = z.infer<typeof Theory>;

/** Its id. */
export const THEORY = "theory";
export const theoryOf = (theories: readonly Theory[]): Theory => theories[0] ?? Theory.parse({ id: THEORY });
