import { z } from "zod";
import { Ladder } from "./ladder";
import { VariableName } from "./names";

/** What becomes of a value that a lookup does not mention. There is no silent way out: one of the three is said. */
const Otherwise = z.discriminatedUnion("kind", [
  z.strictObject({ kind: z.literal("keep") }),
  z.strictObject({ kind: z.literal("missing") }),
  z.strictObject({ kind: z.literal("value"), value: z.string().trim().min(1).max(1000) }),
]);

/** How dates are written, where the file does not say it: 2024-03-01, 1.3.2024 or 3/1/2024. */
export const DateOrder = z.enum(["year-month-day", "day-month-year", "month-day-year"]);
export type DateOrder = z.infer<typeof DateOrder>;

/** The end of a span of years: a day that is the same for all (ISO), or a variable of dates. */
const SpanEnd = z.discriminatedUnion("kind", [
  z.strictObject({ kind: z.literal("day"), day: z.iso.date("Give the day as year-month-day.") }),
  z.strictObject({ kind: z.literal("variable"), variable: VariableName }),
]);

const strictlyAscending = (edges: readonly number[]) => edges.every((edge, i) => i === 0 || edge > edges[i - 1]!);

/** What a model tells of each respondent (docs/methods.md, “Who makes the result”). */
export const CaseStatistic = z.enum(["predicted", "residual", "standardized", "studentized", "deleted", "leverage", "cooks-d", "dffits"]);
export type CaseStatistic = z.infer<typeof CaseStatistic>;

/** How a derived variable is worked out from others. Inputs are variables or scales, by the names terms use. */
export const Recipe = z.discriminatedUnion("kind", [
  /** Value by value; combining the levels of a category is this with `keep`. */
  z.strictObject({
    kind: z.literal("lookup"),
    from: VariableName,
    /** Values as the codebook has them; `to: null` makes them missing. */
    table: z.array(z.strictObject({ values: z.array(z.string().min(1)).min(1), to: z.string().trim().min(1).max(1000).nullable() })).min(1),
    otherwise: Otherwise,
  }),
  z
    .strictObject({
      kind: z.literal("ranges"),
      from: VariableName,
      /** Ascending. A value on an edge belongs to the range above it. */
      edges: z.array(z.number()).min(1).max(50).refine(strictlyAscending, "Each edge must lie above the one before."),
      /** One more than edges, lowest range first. */
      labels: z.array(z.string().trim().min(1, "A range has no name.").max(1000)),
    })
    .refine((r) => r.labels.length === r.edges.length + 1, {
      path: ["labels"],
      error: "There is one name too few or too many for the ranges.",
    })
    .refine((r) => new Set(r.labels).size === r.labels.length, { path: ["labels"], error: "Two ranges have the same name." }),
  /** (x − mean) / SD, over the respondents who are in the study and have an answer. */
  z.strictObject({ kind: z.literal("z"), from: VariableName }),
  /** x − mean, over the same respondents. */
  z.strictObject({ kind: z.literal("centre"), from: VariableName }),
  z.strictObject({ kind: z.literal("transform"), from: VariableName, by: z.enum(["ln", "log10", "root", "square"]) }),
  z.strictObject({ kind: z.literal("formula"), formula: z.string().trim().min(1, "The formula is empty.").max(4000) }),
  /** Σ weight · x; a respondent with a gap in any of them has none. */
  z.strictObject({
    kind: z.literal("weighted"),
    parts: z
      .array(z.strictObject({ variable: VariableName, weight: z.number() }))
      .min(1)
      .refine((all) => new Set(all.map((p) => p.variable)).size === all.length, "A variable stands in the sum twice."),
  }),
  /** 1 where the answer is one of these, else 0. */
  z.strictObject({ kind: z.literal("indicator"), from: VariableName, equals: z.array(z.string().min(1)).min(1) }),
  /** Calendar year of a date, or years from it to another day: completed ones, or with decimals. */
  z
    .strictObject({
      kind: z.literal("years"),
      from: VariableName,
      order: DateOrder,
      count: z.enum(["calendar", "completed", "exact"]),
      to: SpanEnd.nullable().default(null),
    })
    .refine((r) => (r.count === "calendar") === (r.to === null), { path: ["to"], error: "Say until which day the years are counted." }),
  /** 1 where a cell with several answers ("bus; tram") holds this one, 0 where it holds others; an empty cell says nothing. */
  z.strictObject({
    kind: z.literal("choice"),
    from: VariableName,
    answer: z.string().trim().min(1).max(1000),
    separator: z.enum([";", ",", "|", "/", "\n"]),
  }),
  /** Of a question with a column an answer: 1 where this one is filled, 0 where only others of the block are, none where the block is empty. */
  z
    .strictObject({ kind: z.literal("ticked"), from: VariableName, block: z.array(VariableName).min(2).max(200) })
    .refine((r) => r.block.includes(r.from), { path: ["block"], error: "The column is not one of its block." }),
  /** Minutes from one moment to another, with decimals. */
  z.strictObject({ kind: z.literal("minutes"), from: VariableName, to: VariableName, order: DateOrder }),
  /** A value per respondent of a ladder's sample. The ladder is kept as it stood: a later change to it, or its end, moves nothing here. */
  z
    .strictObject({ kind: z.literal("case"), statistic: CaseStatistic, ladder: Ladder, step: z.int().min(1) })
    .refine((r) => r.step <= r.ladder.steps.length, { path: ["step"], error: "The ladder has no such step." }),
]);
export type Recipe = z.infer<typeof Recipe>;
/** A recipe that a person writes; values of a model are saved where the model is, and what the file suggests is taken up where it is suggested. */
export type WrittenRecipe = Exclude<Recipe, { kind: "case" | "choice" | "ticked" | "minutes" }>;

/** A variable that is worked out from others. It has a row in the codebook under the same name. */
export const DerivedVariable = z.strictObject({ name: VariableName, recipe: Recipe });
export type DerivedVariable = z.infer<typeof DerivedVariable>;
