import { z } from "zod";
import { ObjectId } from "./names";
import { Seed } from "./ladder";

/** How many respondents a hypothesis needs: what is assumed before they are asked. Null: as the data have it, or what is usual. */
export const Power = z.strictObject({
  id: ObjectId,
  hypothesis: ObjectId,
  /** Respondents; null: those of the sample. */
  n: z.int().min(5).max(10_000_000).nullable().default(null),
  /** Power that is wanted. */
  power: z.number().min(0.5).max(0.999).default(0.8),
  /** R² of the model with what is tested. */
  R2: z.number().min(0).max(0.99).nullable().default(null),
  /** β of a coefficient, or ΔR² of a step; null: the smallest effect that matters. */
  effect: z.number().min(0).max(5).nullable().default(null),
  /** Correlation of every two predictors, where there are no data. */
  r: z.number().min(0).max(0.95).default(0.3),
  /** Reliabilities of the two that a product multiplies; null: α of their scales. */
  reliability: z
    .tuple([z.number().min(0.01).max(1), z.number().min(0.01).max(1)])
    .nullable()
    .default(null),
  /** So many samples are drawn; null: none. */
  samples: z.int().min(100).max(20_000).nullable().default(null),
  /** Skewness of the residuals of these. */
  skew: z.union([z.literal(0), z.literal(1), z.literal(2)]).default(0),
  /** Share of the answers to each variable that are missing in these. */
  missing: z.number().min(0).max(0.5).default(0),
  seed: Seed.default(1),
});
export type Power = z.infer<typeof Power>;
