import { z } from "zod";

/** JSON has no infinity: such a number is null there. */
const Finite = z.number();

const Histogram = z.strictObject({ edges: z.array(Finite), counts: z.array(z.int().min(0)) });

/** An interval read from replicates, and how. */
export const ReplicateInterval = z.strictObject({
  estimate: Finite,
  lower: Finite,
  upper: Finite,
  /** "percentile" also where BCa was asked for and is not defined. */
  method: z.enum(["bca", "percentile"]),
  /** True where a limit lies beyond the outermost replicate. */
  clamped: z.boolean(),
  /** So many replicates would put both limits inside the outermost ones; null: more than can be counted. */
  needed: z.int().nullable(),
});
export type ReplicateInterval = z.infer<typeof ReplicateInterval>;

const step = z.int().min(0);
const column = z.string();
const Held = z.strictObject({ component: z.string(), unit: z.enum(["sd", "raw"]), value: Finite });
const group = z.int().min(0);
const metric = z.enum(["b", "beta", "betaOwn"]);
/** A coefficient of a group, or of one group minus that of another. */
const GroupFigure = z.union([
  z.strictObject({ kind: metric, group, column }),
  z.strictObject({ kind: z.literal("difference"), of: metric, column, first: group, second: group }),
]);
const LadderFigure = z.union([
  z.strictObject({ kind: z.enum(["R2", "adjustedR2", "dR2"]), step }),
  z.strictObject({ kind: z.enum(["b", "beta", "part"]), step, column }),
  z.strictObject({ kind: z.literal("difference"), step, first: column, second: column }),
  z.strictObject({ kind: z.literal("slope"), step, column, at: z.array(Held) }),
  z.strictObject({ kind: z.literal("marginalMean"), step, variable: column, level: z.string() }),
  z.strictObject({ kind: z.literal("contrast"), step, variable: column, level: z.string(), minus: z.string() }),
  z.strictObject({
    kind: z.literal("combined"),
    step,
    parts: z.array(z.strictObject({ weight: Finite, slope: column.nullable(), at: z.array(Held) })),
    per: z.strictObject({ column: column.nullable() }).nullable(),
  }),
]);

const Figure = z.union([z.enum(["alpha", "omega"]), LadderFigure, GroupFigure]);

/** One β of a step minus another, tested on the replicates of the difference. */
const BetaDifference = ReplicateInterval.extend({ first: column, second: column, p: Finite, pHolm: Finite });
export type BetaDifference = z.infer<typeof BetaDifference>;

/** Intervals of something from its replicates: of a ladder, or of the reliability of a scale. */
export const ReplicateIntervals = z.strictObject({
  replicates: z.int().min(1),
  redrawn: z.int().min(0),
  /** Number of cases or clusters drawn from. */
  units: z.int().min(1),
  intervals: z.array(z.strictObject({ figure: Figure, interval: ReplicateInterval, spread: Histogram })),
  /** All pairs of β of the step that was asked for; none of a scale. */
  differences: z.array(BetaDifference),
});
export type ReplicateIntervals = z.infer<typeof ReplicateIntervals>;

type Told = ReplicateIntervals["intervals"][number];

/** The intervals that are of a ladder's figures. */
export function ladderFigures({ intervals }: ReplicateIntervals): (Told & { figure: z.infer<typeof LadderFigure> })[] {
  return intervals.flatMap(({ figure, ...one }) => (typeof figure === "string" || !("step" in figure) ? [] : [{ ...one, figure }]));
}

/** The intervals that are of groups. */
export function groupFiguresOf({ intervals }: ReplicateIntervals): (Told & { figure: z.infer<typeof GroupFigure> })[] {
  return intervals.flatMap(({ figure, ...one }) => (typeof figure === "string" || "step" in figure ? [] : [{ ...one, figure }]));
}

/** Intervals that were worked out before, under the fingerprint of all they depend on. */
export const KeptIntervals = z.strictObject({ key: z.string().regex(/^[0-9a-f]{16}$/), intervals: ReplicateIntervals });
export type KeptIntervals = z.infer<typeof KeptIntervals>;

/** Changes whenever the same replicates would come out otherwise: what was kept before is then worked out anew. */
export const ENGINE_VERSION = 2;
