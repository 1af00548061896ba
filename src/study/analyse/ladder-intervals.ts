import { evenBins, type Histogram } from "@/core/describe/histogram";
import { holm } from "@/core/distributions/holm";
import { bcaLimits, jackknifeAcceleration, percentileLimits, replicateP } from "@/core/resampling/interval-limits";
import { LadderBootstrap, type ReplicateRange, type Replicates } from "@/core/resampling/ladder-bootstrap";
import type { Figure } from "@/core/resampling/ladder-figures";
import type { Ladder } from "../model/ladder";
import { ladderSample, modelsOn } from "../prepare/ladder-models";
import type { StudyColumns } from "../prepare/study-columns";

/** An interval read from replicates, and how. */
export interface ReplicateInterval {
  estimate: number;
  lower: number;
  upper: number;
  /** "percentile" also where BCa was asked for and is not defined. */
  method: "bca" | "percentile";
  /** True where a limit lies beyond the outermost replicate: more replicates would be needed. */
  clamped: boolean;
}

/** One β of a step minus another, tested on the replicates of the difference. */
export interface BetaDifference extends ReplicateInterval {
  first: string;
  second: string;
  p: number;
  /** Adjusted for all pairs of the step. */
  pHolm: number;
}

/** The intervals of a ladder from its replicates. */
export interface LadderReplicateIntervals {
  replicates: number;
  redrawn: number;
  /** Number of cases or clusters drawn from. */
  units: number;
  intervals: { figure: Figure; interval: ReplicateInterval; spread: Histogram }[];
  /** All pairs of β of the step that was asked for. */
  differences: BetaDifference[];
}

/** Bars of the picture of a figure's replicates. */
const BINS = 40;

/** A ladder made ready for replicates, kept in a worker from range to range: one at a time. */
export type BootstrapShelf = Map<string, LadderBootstrap>;

/** @throws what the ladder throws */
function bootstrapOf(ladder: Ladder, columns: StudyColumns, shelf: BootstrapShelf, key: string): LadderBootstrap {
  const known = shelf.get(key);
  if (known) return known;
  const found = ladderSample(ladder, columns);
  const models = modelsOn(ladder, found);
  const { errors } = models.spec;
  const made = new LadderBootstrap(models, errors?.kind === "cluster" ? errors.codes : null);
  shelf.clear();
  shelf.set(key, made);
  return made;
}

/**
 * Replicates of a range.
 * @param key says what the shelf may keep them ready by: the same for the same ladder on the same answers
 * @throws what the ladder throws; SingularResamplesError
 */
export function ladderReplicates(
  ladder: Ladder,
  columns: StudyColumns,
  range: ReplicateRange,
  shelf: BootstrapShelf,
  key: string,
  progress?: (done: number) => void,
): Replicates {
  return bootstrapOf(ladder, columns, shelf, key).replicates(ladder.seed, range, progress);
}

/**
 * Intervals of every figure, and of every difference between two β of one step.
 * @param replicates one after the other, as ladderReplicates gives them
 * @param step whose β are compared, from 0
 */
export function ladderIntervals(
  ladder: Ladder,
  columns: StudyColumns,
  replicates: Replicates,
  step: number,
  shelf: BootstrapShelf,
  key: string,
): LadderReplicateIntervals {
  return intervalsOf(bootstrapOf(ladder, columns, shelf, key), ladder, replicates, step);
}

/** The same from a ladder that is made ready already. */
export function intervalsOf(
  boot: LadderBootstrap,
  ladder: Pick<Ladder, "intervals" | "confidence">,
  { values, redrawn }: Replicates,
  step: number,
): LadderReplicateIntervals {
  const size = boot.figures.length;
  const count = values.length / size;
  const bca = ladder.intervals.by !== "percentile";
  const estimates = boot.estimates();
  const jackknife = bca ? boot.jackknife() : new Float64Array(0);
  /** Replicates of one figure or difference, and the interval they give. */
  const interval = (estimate: number, read: (all: Float64Array, from: number) => number) => {
    const sorted = Float64Array.from({ length: count }, (_, r) => read(values, r * size)).sort();
    const a = bca ? jackknifeAcceleration(Float64Array.from({ length: boot.units }, (_, i) => read(jackknife, i * size))) : 0;
    const corrected = bca ? bcaLimits(sorted, estimate, a, ladder.confidence) : null;
    const limits = corrected ?? percentileLimits(sorted, ladder.confidence);
    const found: ReplicateInterval = {
      estimate,
      lower: limits.lower,
      upper: limits.upper,
      method: corrected ? "bca" : "percentile",
      clamped: limits.lowerClamped || limits.upperClamped,
    };
    return { sorted, found };
  };
  const intervals = boot.figures.map((figure, at) => {
    const { sorted, found } = interval(estimates[at]!, (all, from) => all[from + at]!);
    return { figure, interval: found, spread: evenBins(sorted, BINS) };
  });
  const betas = boot.figures.flatMap((f, at) => (f.kind === "beta" && f.step === step ? [{ column: f.column, at }] : []));
  const pairs = betas.flatMap((a, i) => betas.slice(i + 1).map((b) => [a, b] as const));
  const found = pairs.map(([a, b]) => {
    const of = interval(estimates[a.at]! - estimates[b.at]!, (all, from) => all[from + a.at]! - all[from + b.at]!);
    return { ...of.found, first: a.column, second: b.column, p: replicateP(of.sorted) };
  });
  const adjusted = holm(found.map((d) => d.p));
  return {
    replicates: count,
    redrawn,
    units: boot.units,
    intervals,
    differences: found.map((d, i) => ({ ...d, pHolm: adjusted[i]! })),
  };
}
