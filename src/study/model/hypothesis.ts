import { z } from "zod";
import { ColumnParts } from "./column-parts";
import { ObjectId, VariableName } from "./names";

/** A place of a moderator: where its number lies, a value of one's own, or a level. */
export const HeldPlace = z.union([
  z.strictObject({ place: z.enum(["low", "mean", "high"]) }),
  z.strictObject({ value: z.number() }),
  z.strictObject({ level: z.string() }),
]);
export type HeldPlace = z.infer<typeof HeldPlace>;

const Metric = z.enum(["beta", "b"]).default("beta");
const FocalPart = z.strictObject({ variable: VariableName, level: z.string().nullable().default(null) });

/** The number that tests a hypothesis. */
export const RestsOn = z.discriminatedUnion("on", [
  /** A coefficient of a step: of a predictor, a level or a product. */
  z.strictObject({ on: z.literal("coefficient"), column: ColumnParts, metric: Metric }),
  /** One β of a step minus another. */
  z.strictObject({ on: z.literal("difference"), first: ColumnParts, second: ColumnParts }),
  /** A simple slope: of a predictor, or of a level against the reference, where a moderator is held. */
  z.strictObject({ on: z.literal("slope"), focal: FocalPart, moderator: VariableName, at: HeldPlace, metric: Metric }),
  /** The same at every value of a number from one to another; null: to the end of what was observed. */
  z.strictObject({
    on: z.literal("region"),
    focal: FocalPart,
    moderator: VariableName,
    from: z.number().nullable().default(null),
    to: z.number().nullable().default(null),
    metric: Metric,
  }),
  /** A coefficient of the step in one group minus that in another; both null: whether it is alike in all groups. */
  z.strictObject({
    on: z.literal("groups"),
    variable: VariableName,
    column: ColumnParts,
    first: z.string().nullable().default(null),
    second: z.string().nullable().default(null),
    metric: Metric,
  }),
  /** What the step predicts at one level of a category minus at another. */
  z.strictObject({ on: z.literal("means"), variable: VariableName, first: z.string(), second: z.string() }),
  /** What the step adds: ΔR². */
  z.strictObject({ on: z.literal("change") }),
  /** A correlation, of no ladder. */
  z.strictObject({ on: z.literal("correlation"), x: VariableName, y: VariableName, respondents: ObjectId.nullable().default(null) }),
  /** A path through something else: said, and tested by nothing here. */
  z.strictObject({ on: z.literal("indirect"), from: VariableName, through: VariableName }),
  /** Nothing yet. */
  z.strictObject({ on: z.literal("open") }),
]);
export type RestsOn = z.infer<typeof RestsOn>;

const Tested = z.strictObject({
  ladder: ObjectId.nullable().default(null),
  /** From 1; null: the last. */
  step: z.int().min(1).nullable().default(null),
  rests: RestsOn.default({ on: "open" }),
  direction: z.enum(["+", "-", "none"]).default("none"),
  claim: z.enum(["effect", "beyond", "equivalence"]).default("effect"),
  /** Smallest effect that matters, in the estimate's unit; null: that of the study. */
  delta: z.number().min(0).max(1e9).nullable().default(null),
});
/** The settings that decide what is tested. */
export type Tested = z.infer<typeof Tested>;
export const TESTED = Object.keys(Tested.shape) as (keyof Tested)[];

/** So many changes are kept; of more the first and the newest. */
export const MOST_CHANGES = 50;

/** A directed statement tied to the number that tests it. */
export const Hypothesis = z.strictObject({
  id: ObjectId,
  /** True: a part of the one before it, H2a. */
  part: z.boolean().default(false),
  /** In one's own words; "" for the sentence that its settings make. */
  text: z.string().trim().max(500).default(""),
  ...Tested.shape,
  /** Among those whose p are corrected together. */
  family: z.boolean().default(true),
  /** True when it stood as it stands before its result was first looked at. */
  before: z.boolean().default(false),
  /** When it took on what it says now; null: not known. */
  since: z.iso.datetime().nullable().default(null),
  /** What it said before each change that was made after its result had been seen. */
  changes: z
    .array(z.strictObject({ at: z.iso.datetime(), was: Tested }))
    .max(MOST_CHANGES)
    .default([]),
});
export type Hypothesis = z.infer<typeof Hypothesis>;

/** True when what it rests on can lie on one side: a share of variance and a difference of many groups cannot. */
export const hasDirection = (rests: RestsOn) => rests.on !== "change" && !(rests.on === "groups" && rests.first === null);

/** The number that it rests on, whatever it is told in; null: none yet. @param steps of its ladder */
export function numberKey({ ladder, step, rests }: Pick<Hypothesis, "ladder" | "step" | "rests">, steps: number): string | null {
  if (rests.on === "open" || rests.on === "indirect") return null;
  const number = { ...rests, metric: null };
  return JSON.stringify(rests.on === "correlation" ? number : [ladder, Math.min(step ?? steps, steps), number]);
}

/** Variables and scales that it names itself, besides its ladder. */
export function hypothesisNames({ rests }: Pick<Hypothesis, "rests">): string[] {
  if (rests.on === "correlation") return [rests.x, rests.y];
  return rests.on === "groups" ? [rests.variable] : [];
}

/** H1, H2, H2a …, by place. */
export function codesOf(hypotheses: readonly Pick<Hypothesis, "part">[]): string[] {
  let [whole, parts] = [0, 0];
  return hypotheses.map(({ part }) => {
    if (part && whole > 0) return `H${whole}${String.fromCharCode(97 + (parts++ % 26))}`;
    parts = 0;
    return `H${++whole}`;
  });
}
