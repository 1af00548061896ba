import { z } from "zod";
import { ObjectId, VariableName } from "./names";

/** Where a number is looked at: mean ± SD, the 16th, 50th and 84th percentile, or values of one's own. */
export const ProbeValues = z.discriminatedUnion("by", [
  z.strictObject({ by: z.literal("sd") }),
  z.strictObject({ by: z.literal("percentiles") }),
  z.strictObject({
    by: z.literal("own"),
    values: z
      .array(z.number())
      .min(1)
      .max(7)
      .refine((all) => new Set(all).size === all.length, "A value is named twice."),
  }),
]);
export type ProbeValues = z.infer<typeof ProbeValues>;

/** What the relation may depend on; of a category every level is looked at. */
export const ProbedModerator = z.strictObject({ variable: VariableName, values: ProbeValues.default({ by: "sd" }) });
export type ProbedModerator = z.infer<typeof ProbedModerator>;

/** How a predictor of a step goes with the outcome as others change: simple slopes, where they hold, what is predicted. */
export const Probe = z.strictObject({
  id: ObjectId,
  ladder: ObjectId,
  /** From 1; null: the last. */
  step: z.int().min(1).nullable().default(null),
  focal: VariableName,
  /** Of a square, the predictor itself. */
  moderators: z
    .array(ProbedModerator)
    .min(1)
    .max(3)
    .refine((all) => new Set(all.map((m) => m.variable)).size === all.length, "A moderator is named twice."),
  /** What slopes are told in: outcome units per unit, or SDs per SD. Moves no test. */
  metric: z.enum(["raw", "z"]).default("raw"),
});
export type Probe = z.infer<typeof Probe>;
