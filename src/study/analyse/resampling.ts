import { evenBins } from "@/core/describe/histogram";
import { bcaLimits, percentileLimits, replicateP } from "@/core/resampling/interval-limits";
import { accelerationsOf } from "@/core/resampling/resampler";
import type { ReplicateInterval } from "../model/replicate-intervals";
import type { Ready, ReplicateFigure } from "../kinds/kind";

/** A figure of the sample itself, and how leaving out a unit moves it. */
export interface Expected {
  estimate: number;
  acceleration: number;
}

/** What limits need besides replicates. */
export interface Jackknife {
  figures: readonly ReplicateFigure[];
  units: number;
  expected: Expected[];
  /** Differences between every two β of a step: the places of the two among the figures. */
  differences: ({ first: number; second: number } & Expected)[];
}

/**
 * @param step whose β are compared, from 0; null for none
 * @param accelerated false where percentile limits are read: they need no acceleration, and 0 stands in its place
 */
export function jackknifeOf(ready: Ready, { step, accelerated }: { step: number | null; accelerated: boolean }): Jackknife {
  const estimates = ready.estimates();
  const betas = [...ready.names.entries()].flatMap(([at, f]) =>
    typeof f === "object" && f.kind === "beta" && "step" in f && f.step === step ? [at] : [],
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
