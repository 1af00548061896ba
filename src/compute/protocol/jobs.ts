import { z } from "zod";
import { Comparison } from "@/study/model/comparison";
import { Correction } from "@/study/model/correction";
import { DerivedVariable } from "@/study/model/derived";
import { ExtractionMethod, FactorCount, RotationMethod } from "@/study/model/factoring";
import { ObjectId, VariableName } from "@/study/model/names";
import { RespondentFilter } from "@/study/model/respondent-filter";
import type { ResponseColumn } from "@/study/model/response-column";
import { Ladder, Seed } from "@/study/model/ladder";
import { Scale } from "@/study/model/scale";
import { Variable } from "@/study/model/variable";
import type { ComparisonResult } from "@/study/analyse/analyse-comparison";
import type { Beyond } from "@/core/diagnostics/residual-tests";
import type { Replicates } from "@/core/resampling/resampler";
import type { Jackknife, Limits } from "@/study/analyse/resampled";
import type { LadderDepth } from "@/study/analyse/ladder-depth";
import type { LadderResult } from "@/study/analyse/analyse-ladder";
import type { ScaleResult } from "@/study/analyse/analyse-scale";
import type { StructureResult } from "@/study/analyse/analyse-structure";
import type { AnswerStrip } from "@/study/analyse/answer-strip";
import type { Finding } from "@/study/analyse/responses/findings";
import type { FilterResult } from "@/study/analyse/responses/filter-result";
import type { MissingPattern } from "@/study/analyse/responses/missing-pattern";
import type { LookResult } from "@/study/analyse/responses/variable-look";

/** The parts of a study a computation depends on. */
const Context = z.strictObject({
  codebook: z.array(Variable),
  scales: z.array(Scale),
  corrections: z.array(Correction).default([]),
  derived: z.array(DerivedVariable).default([]),
  filters: z.array(RespondentFilter).default([]),
});

const Rows = z.int().min(0);
const ShownRows = z.discriminatedUnion("kind", [
  z.strictObject({ kind: z.literal("all") }),
  z.strictObject({ kind: z.literal("in-study") }),
  z.strictObject({ kind: z.literal("kept"), filter: ObjectId }),
  z.strictObject({ kind: z.literal("left-out"), filter: ObjectId }),
  z.strictObject({ kind: z.literal("rows"), rows: z.array(z.int().min(1)) }),
]);

/** A structure without its names, its items already keyed. */
const StructureSpec = z.strictObject({
  parts: z.array(z.strictObject({ name: VariableName, reversed: z.boolean() })),
  respondents: ObjectId.nullable(),
  extraction: ExtractionMethod,
  rotation: RotationMethod,
  factors: FactorCount.nullable(),
  sets: z.int().min(1),
  seed: Seed,
});

const Doubles = z.custom<Float64Array>((v) => Object.prototype.toString.call(v) === "[object Float64Array]");

/** What is resampled. */
const Resampled = z.discriminatedUnion("what", [
  z.strictObject({ what: z.literal("ladder"), ladder: Ladder, extent: z.enum(["tables", "everything"]) }),
  z.strictObject({ what: z.literal("scale"), scale: Scale, seed: Seed }),
]);

/** What a worker can be asked to do. */
export const Job = z.discriminatedUnion("kind", [
  z.strictObject({ kind: z.literal("ladder"), context: Context, ladder: Ladder }),
  z.strictObject({ kind: z.literal("ladder-depth"), context: Context, ladder: Ladder, step: z.int().min(0) }),
  /** Some of all replicates: the ranges of one thing can be dealt out. @see src/compute/bootstrap.ts for the three together */
  z.strictObject({ kind: z.literal("replicates"), context: Context, of: Resampled, first: Rows, count: z.int().min(1) }),
  /** What limits need besides replicates; of the differences between the β of a step as well. */
  z.strictObject({ kind: z.literal("jackknife"), context: Context, of: Resampled, step: Rows.nullable(), accelerated: z.boolean() }),
  /** How many shuffles a ladder's Durbin–Watson tests take, and some of them, counted. */
  z.strictObject({ kind: z.literal("shuffles"), context: Context, ladder: Ladder }),
  z.strictObject({ kind: z.literal("shuffled"), context: Context, ladder: Ladder, first: Rows, count: z.int().min(1) }),
  /** The limits that replicates give. */
  z.strictObject({
    kind: z.literal("limits"),
    values: Doubles,
    figures: z.int().min(1),
    expected: z.array(z.strictObject({ estimate: z.number(), acceleration: z.number() })),
    pairs: z.array(z.strictObject({ first: Rows, second: Rows })).nullable(),
    by: z.enum(["bca", "percentile"]),
    confidence: z.number(),
  }),
  z.strictObject({ kind: z.literal("comparison"), context: Context, comparison: Comparison, ladders: z.array(Ladder) }),
  z.strictObject({ kind: z.literal("scale"), context: Context, scale: Scale }),
  z.strictObject({ kind: z.literal("structure"), context: Context, structure: StructureSpec }),
  z.strictObject({ kind: z.literal("strips"), context: Context, variables: z.array(VariableName) }),
  /** A column as it counts: corrected or derived. */
  z.strictObject({ kind: z.literal("column"), context: Context, name: VariableName }),
  z.strictObject({ kind: z.literal("look"), context: Context, name: VariableName }),
  z.strictObject({ kind: z.literal("checks"), context: Context, rows: Rows }),
  z.strictObject({ kind: z.literal("missing"), context: Context, names: z.array(VariableName), rows: Rows }),
  z.strictObject({
    kind: z.literal("row-list"),
    context: Context,
    rows: Rows,
    shown: ShownRows,
    order: z.strictObject({ by: VariableName, descending: z.boolean() }).nullable(),
  }),
  z.strictObject({ kind: z.literal("filter"), context: Context, rows: Rows, filter: RespondentFilter }),
]);
export type Job = z.infer<typeof Job>;

/** What it answers, by kind of job. */
export interface JobResults {
  ladder: LadderResult;
  "ladder-depth": LadderDepth | null;
  replicates: Replicates;
  jackknife: Jackknife;
  limits: Limits[];
  shuffles: number;
  shuffled: Beyond[];
  comparison: ComparisonResult;
  scale: ScaleResult;
  structure: StructureResult;
  strips: AnswerStrip[];
  column: ResponseColumn;
  look: LookResult;
  checks: Finding[];
  missing: MissingPattern;
  "row-list": Uint32Array;
  filter: FilterResult;
}
