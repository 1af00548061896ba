import { z } from "zod";
import { ColumnParts } from "./column-parts";
import { ObjectId } from "./names";

/** The number that tests a hypothesis. */
export const RestsOn = z.discriminatedUnion("on", [
  /** A coefficient of a step: of a predictor, a level or a product. */
  z.strictObject({ on: z.literal("coefficient"), column: ColumnParts, metric: z.enum(["beta", "b"]).default("beta") }),
  /** What the step adds: ΔR². */
  z.strictObject({ on: z.literal("change") }),
  /** Nothing yet: a path through something else, or what no ladder has. */
  z.strictObject({ on: z.literal("open") }),
]);
export type RestsOn = z.infer<typeof RestsOn>;

/** A directed statement tied to the number that tests it. */
export const Hypothesis = z.strictObject({
  id: ObjectId,
  /** True: a part of the one before it, H2a. */
  part: z.boolean().default(false),
  /** In one's own words; "" for the sentence that its settings make. */
  text: z.string().trim().max(500).default(""),
  ladder: ObjectId.nullable().default(null),
  /** From 1; null: the last. */
  step: z.int().min(1).nullable().default(null),
  rests: RestsOn.default({ on: "open" }),
  direction: z.enum(["+", "-", "none"]).default("none"),
  claim: z.enum(["effect", "beyond", "equivalence"]).default("effect"),
  /** Smallest effect that matters, in the estimate's unit; null: that of the study. */
  delta: z.number().min(0).max(1e9).nullable().default(null),
  /** Among those whose p are corrected together. */
  family: z.boolean().default(true),
  /** True when it stood as it stands before its result was first looked at. */
  before: z.boolean().default(false),
});
export type Hypothesis = z.infer<typeof Hypothesis>;

/** H1, H2, H2a …, by place. */
export function codesOf(hypotheses: readonly Pick<Hypothesis, "part">[]): string[] {
  let [whole, parts] = [0, 0];
  return hypotheses.map(({ part }) => {
    if (part && whole > 0) return `H${whole}${String.fromCharCode(97 + (parts++ % 26))}`;
    parts = 0;
    return `H${++whole}`;
  });
}
