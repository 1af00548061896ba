import { z } from "zod";
import { ObjectId, Title, VariableName } from "./names";

/** So many variables a look holds. */
export const MOST_LOOKED_AT = 60;
/** So many scatters it keeps. */
export const MOST_SCATTERS = 4;

/** Where the lines of a scatter are parted into panels: a category's levels, or ranges of a number. */
export const Panelling = z.strictObject({
  variable: VariableName,
  /** Inner edges of a number's ranges, ascending; null: thirds. */
  edges: z
    .array(z.number())
    .min(1)
    .max(5)
    .refine((all) => all.every((edge, i) => i === 0 || edge > all[i - 1]!), "Edges stand in ascending order.")
    .nullable()
    .default(null),
});
export type Panelling = z.infer<typeof Panelling>;

/** Two numbers of a look as a scatter. */
export const Scatter = z.strictObject({
  id: ObjectId,
  x: VariableName,
  y: VariableName,
  /** Lines of their own for the levels of a category. */
  by: VariableName.nullable().default(null),
  panels: z.array(Panelling).max(2).default([]),
});
export type Scatter = z.infer<typeof Scatter>;

/** What stands above the diagonal. */
export const AboveDiagonal = z.discriminatedUnion("by", [
  z.strictObject({ by: z.literal("nothing") }),
  /** The same in one level of the category that the look is told by. */
  z.strictObject({ by: z.literal("level"), level: z.string() }),
  z.strictObject({ by: z.literal("partial") }),
]);
export type AboveDiagonal = z.infer<typeof AboveDiagonal>;

/** Variables and scales looked at before any model. */
export const Look = z.strictObject({
  id: ObjectId,
  name: Title,
  variables: z
    .array(VariableName)
    .max(MOST_LOOKED_AT)
    .refine((all) => new Set(all).size === all.length, "A variable is named twice."),
  /** Id of a filter; null: everybody. */
  respondents: ObjectId.nullable().default(null),
  /** Told for each level of a category as well. */
  by: VariableName.nullable().default(null),
  /** Each pair over the respondents that both have, or all over those who have all. */
  cases: z.enum(["pairwise", "complete"]).default("pairwise"),
  correlation: z.enum(["pearson", "spearman"]).default("pearson"),
  /** Held constant in partial correlations. */
  controls: z.array(VariableName).max(12).default([]),
  /** How a test is told. */
  told: z.enum(["stars", "exact", "interval"]).default("stars"),
  diagonal: z.enum(["alpha", "omega", "nothing"]).default("alpha"),
  /** Whose correlations stand below the diagonal: a level; null: everybody's. */
  below: z.string().nullable().default(null),
  above: AboveDiagonal.default({ by: "nothing" }),
  scatters: z.array(Scatter).max(MOST_SCATTERS).default([]),
});
export type Look = z.infer<typeof Look>;

/** What the numbers of a look depend on: not how they are told. */
export const LookSpec = Look.pick({
  variables: true,
  respondents: true,
  by: true,
  cases: true,
  correlation: true,
  controls: true,
  diagonal: true,
});
export type LookSpec = z.infer<typeof LookSpec>;

/** Two numbers as a scatter, among some respondents. */
export const PairSpec = Scatter.omit({ id: true }).extend({ respondents: ObjectId.nullable() });
export type PairSpec = z.infer<typeof PairSpec>;

/** Some numbers of every respondent. */
export const PointsSpec = z.strictObject({ names: z.array(VariableName), respondents: ObjectId.nullable() });
export type PointsSpec = z.infer<typeof PointsSpec>;
