import { z } from "zod";
import { ScoredFactor } from "./factoring";
import { ObjectId, Title, VariableName } from "./names";

/** One item of a scale: a variable, or another scale whose score counts as an item. A reverse-keyed one counts as lowest + highest possible answer − answer. */
export const ScaleItem = z.strictObject({
  variable: VariableName,
  reversed: z.boolean().default(false),
  /** What the item counts in a weighted score; other rules leave it alone. */
  weight: z.number().default(1),
});
export type ScaleItem = z.infer<typeof ScaleItem>;

/**
 * How items become a score: their mean or sum; Σ weight × item; or the score of a factor, by regression or in Bartlett's way. The last three
 * need every item answered.
 */
export const ScaleRule = z.enum(["mean", "sum", "weighted", "regression", "bartlett"]);
export type ScaleRule = z.infer<typeof ScaleRule>;

/** A scale: items gathered into one score. Its id is the name its score goes by in ladders and results. */
export const Scale = z
  .strictObject({
    id: ObjectId,
    name: Title,
    rule: ScaleRule.default("mean"),
    /** A respondent is scored when at least this share of the items is answered. */
    answeredShare: z.number().gt(0).max(1).default(0.8),
    items: z.array(ScaleItem).min(1, "A scale has at least one item."),
    /** Weights count answers as they are, or z-scores over the respondents in the study who answered every item. */
    weigh: z.enum(["answers", "z"]).default("answers"),
    /** Where the weights came from, in words; "" while they are the researcher's own. */
    weightsFrom: z.string().max(600).default(""),
    /** Which factor a factor score is of. */
    factor: ScoredFactor.default({ extraction: "maximum-likelihood", rotation: "none", factors: 1, factor: 1 }),
    /** A named filter: reliability and distribution are those of its respondents. Scores are worked out for all. */
    respondents: ObjectId.nullable().default(null),
    /** A category: reliability is told for each of its levels as well. */
    byGroup: VariableName.nullable().default(null),
  })
  .refine((s) => new Set(s.items.map((i) => i.variable)).size === s.items.length, {
    path: ["items"],
    error: "An item stands in this scale twice.",
  });
export type Scale = z.infer<typeof Scale>;

/** True when scores depend on who else is in the study: z-scores and factors do. */
export function scoredOverSample(scale: Pick<Scale, "rule" | "weigh">): boolean {
  return scale.rule === "regression" || scale.rule === "bartlett" || (scale.rule === "weighted" && scale.weigh === "z");
}
