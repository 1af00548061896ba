import { z } from "zod";
import type { Replicates } from "@/core/resampling/resampler";
import type { Jackknife, Limits } from "@/study/analyse/resampling";
import { ASKED, type AskedName, type ResultOf, type SpecOf } from "@/study/kinds/kinds";
import type { ResultsDocument } from "@/study/analyse/results-document";
import type { StudyResultsSpec } from "@/study/analyse/study-results-analysis";
import { StudyContext } from "@/study/model/context";
import { Seed } from "@/study/model/ladder";

const Count = z.int().min(0);
const doubles = z.custom<Float64Array>((v) => Object.prototype.toString.call(v) === "[object Float64Array]");

/** What every job stands on besides its spec. */
const Ground = { context: StudyContext, rows: Count };
interface Ground {
  context: Required<StudyContext>;
  rows: number;
}

/** What can be asked: one computation of one kind. */
type Asking = { [K in AskedName]: { kind: K; spec: SpecOf<K> } }[AskedName];

/** Something that can be dealt out: by kind and bare spec. */
const askings = ASKED.map(({ kind, spec }) => z.strictObject({ kind: z.literal(kind), spec }));
const Of = z.union(askings) as unknown as z.ZodType<{ kind: string; spec: unknown }>;
type Of = z.infer<typeof Of>;

/** Replicates, their jackknife and work in parts are the same for every kind that has them. */
const Range = { first: Count, count: z.int().min(1) };
const SHARED = [
  /** Some of all replicates: the ranges of one thing can be dealt out. `everything`: of figures that only the results document has too. */
  z.strictObject({ kind: z.literal("replicates"), ...Ground, of: Of, everything: z.boolean(), seed: Seed, ...Range }),
  /** What limits need besides replicates; of the differences between the β of a step as well. */
  z.strictObject({
    kind: z.literal("jackknife"),
    ...Ground,
    of: Of,
    everything: z.boolean(),
    step: Count.nullable(),
    accelerated: z.boolean(),
  }),
  /** How many parts some work has, and some of them. */
  z.strictObject({ kind: z.literal("parts"), ...Ground, of: Of }),
  z.strictObject({ kind: z.literal("part"), ...Ground, of: Of, ...Range }),
  /** The limits that replicates give. */
  z.strictObject({
    kind: z.literal("limits"),
    values: doubles,
    figures: z.int().min(1),
    expected: z.array(z.strictObject({ estimate: z.number(), acceleration: z.number() })),
    pairs: z.array(z.strictObject({ first: Count, second: Count })).nullable(),
    by: z.enum(["bca", "percentile"]),
    confidence: z.number(),
  }),
  /** Every result of a study, for a study file. The study was parsed where it came in. */
  z.strictObject({ kind: z.literal("study-results"), ...Ground, spec: z.custom<StudyResultsSpec>((of) => typeof (of as StudyResultsSpec | null)?.study === "object") }), // prettier-ignore
] as const;
type Shared = z.infer<(typeof SHARED)[number]>;

/** What a worker can be asked to do. */
export type Job = (Asking & Ground) | Shared;
/** Something to be resampled or dealt out, with all it stands on. */
export type Dealing = Ground & { of: Of };

export const Job = z.discriminatedUnion("kind", [
  ...SHARED,
  ...ASKED.map(({ kind, spec }) => z.strictObject({ kind: z.literal(kind), ...Ground, spec })),
]) as unknown as z.ZodType<Job>;

/** What it answers, by kind of job. */
export type JobResults = { [K in AskedName]: ResultOf<K> } & {
  replicates: Replicates;
  jackknife: Jackknife;
  limits: Limits[];
  parts: number;
  part: unknown;
  "study-results": ResultsDocument;
};
