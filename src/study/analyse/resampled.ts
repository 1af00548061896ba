import { evenBins } from "@/core/describe/histogram";
import { bcaLimits, percentileLimits, replicateP } from "@/core/resampling/interval-limits";
import { type Figure, figuresOf } from "@/core/resampling/figures/figure";
import { ladderBootstrap } from "@/core/resampling/ladder-bootstrap";
import { type ReliabilityFigure, reliabilityBootstrap, reliabilityFigures } from "@/core/resampling/reliability-bootstrap";
import { accelerationsOf, type ReplicateRange, type Replicates, replicatesOf, type Resampling } from "@/core/resampling/resampler";
import type { Drawing } from "@/core/resampling/units";
import type { LadderModels } from "@/core/regression/ladder";
import type { Ladder } from "../model/ladder";
import type { ReplicateInterval } from "../model/replicate-intervals";
import type { Scale } from "../model/scale";
import { ladderSample, modelsOn } from "../prepare/ladder-models";
import { answersOf, completeRows } from "../prepare/score-scale";
import type { StudyColumns } from "../prepare/study-columns";

/** What is resampled: the figures of a ladder ("everything" with predicted outcomes of its categories), or the reliability of a scale. */
export type Resampled = { what: "ladder"; ladder: Ladder; extent: "tables" | "everything" } | { what: "scale"; scale: Scale; seed: number };

/** Something made ready to be resampled. */
export interface Ready<F> extends Resampling {
  readonly names: readonly F[];
  readonly units: number;
}

/** What a worker keeps ready from range to range: one thing at a time. */
export type ResamplingShelf = Map<string, Ready<Figure> | Ready<ReliabilityFigure>>;

/**
 * @param key says what the shelf may keep it ready by: the same for the same thing on the same answers
 * @throws what the ladder or the scale throws
 */
function readied(of: Resampled, columns: StudyColumns, shelf: ResamplingShelf, key: string): Ready<Figure> | Ready<ReliabilityFigure> {
  const known = shelf.get(key);
  if (known) return known;
  const made = of.what === "ladder" ? readyLadder(of, columns) : readyScale(of.scale, columns);
  shelf.clear();
  shelf.set(key, made);
  return made;
}

function readyLadder({ ladder, extent }: Extract<Resampled, { what: "ladder" }>, columns: StudyColumns): Ready<Figure> {
  const models = modelsOn(ladder, ladderSample(ladder, columns));
  const { errors } = models.spec;
  const drawing: Drawing = errors?.kind === "cluster" ? { by: "clusters", codes: errors.codes } : { by: "cases" };
  const names = extent === "tables" ? figuresOf(models) : [...figuresOf(models), ...predictedOutcomes(models)];
  return { ...ladderBootstrap(models, drawing, names), names };
}

/** Predicted outcomes and their differences over the levels of every category of a step, as far as they can be told. */
function predictedOutcomes({ design, fits }: LadderModels): Figure[] {
  return fits.flatMap(({ basis }, step) =>
    design.tables.flatMap(({ variable, levels }): Figure[] => {
      const holds = design.columns.slice(0, basis.width).some(({ term }) => term.components.includes(variable));
      if (!holds || basis.dependent.length > 0) return [];
      const means = levels.map(({ level }): Figure => ({ kind: "marginalMean", step, variable, level }));
      const pairs = levels.flatMap((a, i) => levels.slice(i + 1).map((b): Figure => ({ kind: "contrast", step, variable, level: b.level, minus: a.level }))); // prettier-ignore
      return [...means, ...pairs];
    }),
  );
}

/** @throws RangeError with fewer than two items, or two respondents who answered all of them */
function readyScale(scale: Scale, columns: StudyColumns): Ready<ReliabilityFigure> {
  const { keyed, scores } = columns.scale(scale);
  const rows = completeRows(keyed, columns.kept(scores.values.length, scale.respondents));
  if (keyed.length < 2 || rows.length < 2) throw new RangeError("no reliability to resample");
  return { ...reliabilityBootstrap(answersOf(keyed, rows)), names: reliabilityFigures(keyed.length), units: rows.length };
}

/** Replicates of a range. @throws what the ladder or scale throws; SingularResamplesError */
export function replicatesOfRange(
  of: Resampled,
  columns: StudyColumns,
  range: ReplicateRange,
  shelf: ResamplingShelf,
  key: string,
  progress?: (done: number) => void,
): Replicates {
  return replicatesOf(readied(of, columns, shelf, key), of.what === "ladder" ? of.ladder.seed : of.seed, range, progress);
}

/** A figure of the sample itself, and how leaving out a unit moves it. */
export interface Expected {
  estimate: number;
  acceleration: number;
}

/** What limits need besides replicates. */
export interface Jackknife {
  figures: readonly (Figure | ReliabilityFigure)[];
  units: number;
  expected: Expected[];
  /** Differences between every two β of a step: the places of the two among the figures. */
  differences: ({ first: number; second: number } & Expected)[];
}

/**
 * @param step whose β are compared, from 0; null for none
 * @param accelerated false where percentile limits are read: they need no acceleration, and 0 stands in its place
 */
export function jackknifeOf(
  of: Resampled,
  columns: StudyColumns,
  { step, accelerated }: { step: number | null; accelerated: boolean },
  shelf: ResamplingShelf,
  key: string,
): Jackknife {
  const ready = readied(of, columns, shelf, key);
  const estimates = ready.estimates();
  const betas = [...ready.names.entries()].flatMap(([at, f]) =>
    typeof f === "object" && f.kind === "beta" && f.step === step ? [at] : [],
  );
  const pairs = betas.flatMap((first, i) => betas.slice(i + 1).map((second) => ({ first, second })));
  const { figures, differences } = accelerated
    ? accelerationsOf(ready, estimates, pairs)
    : { figures: new Float64Array(estimates.length), differences: new Float64Array(pairs.length) };
  return {
    figures: ready.names,
    units: ready.units,
    expected: Array.from(estimates, (estimate, k) => ({ estimate, acceleration: figures[k]! })),
    differences: pairs.map((pair, i) => ({
      ...pair,
      estimate: estimates[pair.first]! - estimates[pair.second]!,
      acceleration: differences[i]!,
    })),
  };
}

/** Bars of the picture of a figure's replicates. */
const BINS = 40;

/** Limits, how the replicates are spread, and p that the figure is 0. */
export interface Limits {
  interval: ReplicateInterval;
  spread: { edges: number[]; counts: number[] };
  p: number;
}

/**
 * Limits of some figures.
 * @param values their replicates, figure after figure
 * @param expected one a figure, or one a pair
 * @param pairs differences between two of them instead of the figures themselves; null: the figures
 */
export function limitsOf(
  values: Float64Array,
  figures: number,
  expected: readonly Expected[],
  pairs: readonly { first: number; second: number }[] | null,
  how: { by: "bca" | "percentile"; confidence: number },
): Limits[] {
  const count = values.length / figures;
  const own = (k: number) => values.subarray(k * count, (k + 1) * count);
  const difference = (first: Float64Array, second: Float64Array) => first.map((v, r) => v - second[r]!);
  return expected.map(({ estimate, acceleration }, k) => {
    const replicates = pairs === null ? own(k) : difference(own(pairs[k]!.first), own(pairs[k]!.second));
    const corrected = how.by === "bca" ? bcaLimits(replicates, estimate, acceleration, how.confidence) : null;
    const { lower, upper, lowerClamped, upperClamped, needed } = corrected ?? percentileLimits(replicates, how.confidence);
    return {
      interval: {
        estimate, lower, upper,
        method: corrected ? "bca" : "percentile",
        clamped: lowerClamped || upperClamped,
        needed: Number.isSafeInteger(needed) ? needed : null,
      },
      spread: evenBins(replicates, BINS),
      p: replicateP(replicates),
    }; // prettier-ignore
  });
}
