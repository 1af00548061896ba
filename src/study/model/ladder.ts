import { z } from "zod";
import { ObjectId, Title, VariableName } from "./names";

/** A term: one variable or scale, or the product of several. */
export const LadderTerm = z.strictObject({
  components: z.array(VariableName).min(1).max(4),
  /** True: stays on the page and takes no part, so that one sees what changes without it. */
  off: z.boolean().default(false),
});
export type LadderTerm = z.infer<typeof LadderTerm>;

export const LadderStep = z.strictObject({
  id: ObjectId,
  name: z.string().trim().max(200).default(""),
  terms: z.array(LadderTerm).default([]),
  /** True: none of its terms takes part. */
  off: z.boolean().default(false),
});
export type LadderStep = z.infer<typeof LadderStep>;

/** Keeps the respondents whose answer is one of `equals`, as written in the file. */
export const CaseFilter = z.strictObject({ variable: VariableName, equals: z.array(z.string()).min(1) });
export type CaseFilter = z.infer<typeof CaseFilter>;

/** How a categorical predictor becomes columns; one that is not listed has indicators against its first level with cases. */
export const CategoryCoding = z.strictObject({
  variable: VariableName,
  /** 0/1 against the reference level, or deviations from the unweighted mean of the levels (the reference has −1 everywhere). */
  coding: z.enum(["indicator", "deviation"]).default("indicator"),
  /** A value as written in the file. Null, or a level that nobody in the sample has: the first that somebody has. */
  reference: z.string().min(1).nullable().default(null),
});
export type CategoryCoding = z.infer<typeof CategoryCoding>;

/** The order in which the answers were given, as far as it means something: by the rows of the file, or by a variable. */
export const RowOrder = z.discriminatedUnion("by", [
  z.strictObject({ by: z.literal("rows") }),
  z.strictObject({ by: z.literal("variable"), variable: VariableName }),
]);
export type RowOrder = z.infer<typeof RowOrder>;

/** So many replicates a ladder may ask for. */
export const REPLICATES = { least: 1000, most: 100_000 } as const;

/** Where intervals come from: normal theory, or replicates of the ladder on resampled cases (whole clusters, where there are any). */
export const LadderIntervals = z.discriminatedUnion("by", [
  z.strictObject({ by: z.literal("normal") }),
  z.strictObject({ by: z.enum(["bca", "percentile"]), replicates: z.int().min(REPLICATES.least).max(REPLICATES.most).default(5000) }),
]);
export type LadderIntervals = z.infer<typeof LadderIntervals>;

/** Only its lowest 32 bits would count, so no more are taken. */
export const Seed = z.int().min(0).max(0xffffffff);

/** A hierarchical regression. All steps are fitted on the same respondents. */
export const Ladder = z.strictObject({
  id: ObjectId,
  name: Title,
  /** Null until chosen. */
  outcome: VariableName.nullable().default(null),
  filter: CaseFilter.nullable().default(null),
  /** A named filter of the study, by its id; those that hold everywhere hold besides. */
  respondents: ObjectId.nullable().default(null),
  /** What coefficients are told in: β of z-scores, or b in raw units. Moves no number. */
  metric: z.enum(["z", "raw"]).default("z"),
  /** How a variable that is part of a product enters. */
  centring: z.enum(["mean", "z", "raw"]).default("mean"),
  /** Share of the intervals. */
  confidence: z.number().min(0.5).max(0.999).default(0.95),
  /** Of this ladder only: another begins with normal theory. */
  intervals: LadderIntervals.default({ by: "normal" }),
  /** Standard errors: equal variances assumed, or HC3. A cluster variable makes them cluster-robust instead. */
  errors: z.enum(["classical", "hc3"]).default("classical"),
  /** Respondents with the same value belong together: class, school, team. */
  cluster: VariableName.nullable().default(null),
  categories: z
    .array(CategoryCoding)
    .refine((all) => new Set(all.map((c) => c.variable)).size === all.length, "The coding of a category is said twice.")
    .default([]),
  /** True: the columns of categories are z-scored for β as well, before products are formed from them. */
  standardizeIndicators: z.boolean().default(false),
  /** Further variables that a respondent of the sample must have answered, so that ladders can share a sample. */
  alsoComplete: z.array(VariableName).default([]),
  /** Null: the order means nothing, and there is no Durbin–Watson d. */
  order: RowOrder.nullable().default(null),
  /** A variable that says in which fold a respondent is held out of cross-validation. Null: ten folds drawn with the seed. */
  folds: VariableName.nullable().default(null),
  seed: Seed.default(1),
  /** Where its terms were looked for; "" for a ladder that was written. It goes with every copy, and nobody can take it off. */
  exploratory: z.string().max(400).default(""),
  /** Rows of the respondents that were searched, as exploratory.ts writes them. */
  searchedOn: z.base64().max(4_000_000).default(""),
  steps: z.array(LadderStep).min(1),
});
export type Ladder = z.infer<typeof Ladder>;

/** Every name of the codebook that a ladder uses besides its terms: these are variables, never scales. */
export function ladderSettingsVariables(ladder: Ladder): { role: string; name: VariableName }[] {
  return [
    ...(ladder.filter ? [{ role: "filter", name: ladder.filter.variable }] : []),
    ...(ladder.cluster === null ? [] : [{ role: "cluster", name: ladder.cluster }]),
    ...(ladder.order?.by === "variable" ? [{ role: "order", name: ladder.order.variable }] : []),
    ...(ladder.folds === null ? [] : [{ role: "folds", name: ladder.folds }]),
    ...ladder.categories.map((c) => ({ role: "categories", name: c.variable })),
  ];
}

/** The terms a step takes part with. */
export function activeTerms(step: LadderStep): LadderTerm[] {
  return step.off ? [] : step.terms.filter((term) => !term.off);
}

/** Everything a ladder names: its outcome, its predictors, and the settings that name a variable. */
export function ladderNames(ladder: Ladder): VariableName[] {
  const names = [...ladderPredictors(ladder), ...(ladder.outcome === null ? [] : [ladder.outcome]), ...ladder.alsoComplete];
  return [...new Set([...names, ...ladderSettingsVariables(ladder).map((v) => v.name)])];
}

/**
 * Every variable or scale the ladder names in its steps, once, in order of appearance. Those of terms that are switched off
 * are among them: they still decide who is in, so that switching changes the model alone and not the respondents.
 */
export function ladderPredictors(ladder: Pick<Ladder, "steps">): VariableName[] {
  return [...new Set(ladder.steps.flatMap((step) => step.terms.flatMap((term) => term.components)))];
}
