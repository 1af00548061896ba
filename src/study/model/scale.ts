import { z } from "zod";
import { ObjectId, Title, VariableName } from "./names";

/** One item of a scale. A reverse-keyed item counts as lowest + highest possible answer − answer. */
export const ScaleItem = z.strictObject({ variable: VariableName, reversed: z.boolean().default(false) });
export type ScaleItem = z.infer<typeof ScaleItem>;

/** A scale: items gathered into one score. Its id is the name its score goes by in ladders and results. */
export const Scale = z
  .strictObject({
    id: ObjectId,
    name: Title,
    rule: z.enum(["mean", "sum"]).default("mean"),
    /** A respondent is scored when at least this share of the items is answered. */
    answeredShare: z.number().gt(0).max(1).default(0.8),
    items: z.array(ScaleItem).min(1, "A scale has at least one item."),
    /** A named filter: reliability and distribution are those of its respondents. Scores are worked out for all. */
    respondents: ObjectId.nullable().default(null),
  })
  .refine((s) => new Set(s.items.map((i) => i.variable)).size === s.items.length, {
    path: ["items"],
    error: "An item stands in this scale twice.",
  });
export type Scale = z.infer<typeof Scale>;
