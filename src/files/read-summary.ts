import { z } from "zod";

/** What was seen while a column was read; what its kind is guessed from. */
export const ReadSummary = z.strictObject({
  numbers: z.int(),
  empties: z.int(),
  words: z.int(),
  /** Lowest and highest number; null without numbers. */
  low: z.number().nullable(),
  high: z.number().nullable(),
  wholeNumbers: z.boolean(),
  /** Whole numbers of which none comes twice, close together: a running number. */
  running: z.boolean().default(false),
  /** Distinct numbers, ascending, with their counts; null once there are more than 50. */
  numberCounts: z.array(z.strictObject({ value: z.number(), count: z.int() })).nullable(),
});
export type ReadSummary = z.infer<typeof ReadSummary>;
