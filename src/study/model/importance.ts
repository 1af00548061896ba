import { z } from "zod";
import { ObjectId } from "./names";

/** How much each term of a step explains, averaged over all orders in which they could have entered. */
export const Importance = z.strictObject({
  id: ObjectId,
  ladder: ObjectId,
  /** From 1; null: the last. */
  step: z.int().min(1).nullable().default(null),
  /** So many of the first steps are controls: in before all others, and apart. */
  controls: z.int().min(0).default(0),
  /** What enters as one: a term, or a whole step where there are many. */
  together: z.enum(["terms", "steps"]).default("terms"),
  /** Intervals from so many resamples; null: not asked for. */
  resamples: z.int().min(100).max(20_000).nullable().default(null),
  /** Of the orders that are drawn where there are too many. */
  seed: z.int().min(0).max(4_294_967_295).default(1),
});
export type Importance = z.infer<typeof Importance>;
