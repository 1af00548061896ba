import { z } from "zod";
import { ObjectId, Title, VariableName } from "./names";

/** One thing a respondent must fulfil to be kept. */
export const Condition = z.discriminatedUnion("kind", [
  /** The answer is one of these, as written in the file; with `not`, it is none of them (no answer is none of them). */
  z.strictObject({
    kind: z.literal("values"),
    variable: VariableName,
    equals: z.array(z.string()).min(1),
    not: z.boolean().default(false),
  }),
  /** The number is not below `low` and not above `high`; without a number a respondent is not kept. */
  z
    .strictObject({ kind: z.literal("between"), variable: VariableName, low: z.number().nullable(), high: z.number().nullable() })
    .refine((c) => c.low !== null || c.high !== null, "Give a lowest or a highest value.")
    .refine((c) => c.low === null || c.high === null || c.low <= c.high, "The highest value lies below the lowest."),
  /** At least this share of the variables is answered. */
  z.strictObject({ kind: z.literal("answered"), variables: z.array(VariableName).min(1), share: z.number().gt(0).max(1) }),
  /** A formula that is true; where it has no value a respondent is not kept. */
  z.strictObject({ kind: z.literal("formula"), formula: z.string().trim().min(1, "The formula is empty.").max(4000) }),
  /** Not one of these respondents: rows of the responses, from 1. */
  z.strictObject({ kind: z.literal("not-rows"), rows: z.array(z.int().min(1)) }),
]);
export type Condition = z.infer<typeof Condition>;

/** Keeps the respondents who fulfil every condition. */
export const RespondentFilter = z.strictObject({
  id: ObjectId,
  name: Title,
  /** For the report's flow of respondents. */
  reason: z.string().trim().max(2000).default(""),
  /** True: holds for the whole study. False: only where it is chosen. */
  everywhere: z.boolean().default(false),
  conditions: z.array(Condition).min(1, "A filter has at least one condition."),
});
export type RespondentFilter = z.infer<typeof RespondentFilter>;
