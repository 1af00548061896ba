import { CoreError } from "../errors";
import { mean } from "../describe/mean";
import { cronbachAlphaOf } from "../reliability/cronbach-alpha";
import { factorReliability } from "../reliability/omega";
import type { EngineKind } from "./engine/choose-engine";
import { packedLength } from "./figures/whitened-rows";
import { type Resampling, resamplingOf } from "./resampler";
import { TapeWriter } from "./tape/tape";

export type ReliabilityFigure = "alpha" | "omega";

/** With two items one factor says no more than their correlation. */
export const reliabilityFigures = (items: number): ReliabilityFigure[] => (items < 3 ? ["alpha"] : ["alpha", "omega"]);

/**
 * Alpha and omega of a scale made ready to be resampled: the covariances of a resample, and from them what the reliability of the sample is found by.
 * @param items k ≥ 2 keyed columns of equal length n, complete cases
 */
export function reliabilityBootstrap(items: readonly Float64Array[], kind: EngineKind = null): Resampling {
  const k = items.length;
  const n = items[0]!.length;
  const figures = reliabilityFigures(k);
  const width = k + 1;
  // about the sample's means, so that no digits are lost to them
  const centres = items.map(mean);
  const rows = new Float64Array(n * width);
  for (let i = 0; i < n; i++) {
    rows[i * width] = 1;
    for (let j = 0; j < k; j++) rows[i * width + j + 1] = items[j]![i]! - centres[j]!;
  }
  const size = packedLength(width);
  const total = new Float64Array(size);
  for (let from = 0; from < rows.length; from += width) {
    for (let a = 0, at = 0; a < width; a++) for (let b = 0; b <= a; b++, at++) total[at] = total[at]! + rows[from + a]! * rows[from + b]!;
  }
  const write = (to: Float64Array, at: number, step: number) => {
    for (let i = 0; i < n; i++) to.set(rows.subarray(i * width, (i + 1) * width), at + i * step);
  };
  const t = new TapeWriter();
  for (let at = 0; at < size; at++) t.output(t.input(at));
  const sums = resamplingOf({ parts: [{ strata: [n], width, size, write, total }], tape: t.tape() }, kind);
  const some = new Float64Array(size * sums.batch);
  const names = items.map((_, i) => String(i));
  const figuresAt = (out: Float64Array, stride: number, at: number, count: number) => {
    for (let r = 0; r < count; r++) {
      const found = reliabilityFrom((a) => some[a * count + r]!, k, names, figures.length > 1);
      found.forEach((value, f) => (out[f * stride + at + r] = value));
    }
  };
  return {
    batch: sums.batch,
    figures: figures.length,
    strata: sums.strata,
    estimates: () => {
      const whole = sums.estimates();
      return Float64Array.from(reliabilityFrom((a) => whole[a]!, k, names, figures.length > 1));
    },
    draw: (seed, first, count, attempt, out, stride, at) => {
      sums.draw(seed, first, count, attempt, some, count, 0);
      figuresAt(out, stride, at, count);
    },
    leaveOut: (part, first, count, out, stride, at) => {
      sums.leaveOut(part, first, count, some, count, 0);
      figuresAt(out, stride, at, count);
    },
  };
}

/** Not a number where an item does not vary in the resample, or where no factor can be found. */
function reliabilityFrom(sum: (at: number) => number, k: number, names: readonly string[], omega: boolean): number[] {
  const cases = sum(0);
  const own = (i: number) => sum(packedLength(i + 1));
  const covariance = (i: number, j: number) =>
    (sum(packedLength(Math.max(i, j) + 1) + Math.min(i, j) + 1) - (own(i) * own(j)) / cases) / (cases - 1);
  const variances = names.map((_, i) => covariance(i, i));
  const constant = names.filter((_, i) => !(variances[i]! > 0));
  if (constant.length > 0) return omega ? [NaN, NaN] : [NaN];
  const total = names.reduce((all, _, i) => all + names.reduce((some, __, j) => some + covariance(i, j), 0), 0);
  const alpha = cronbachAlphaOf(k, variances.reduce((all, v) => all + v, 0), total) ?? NaN; // prettier-ignore
  if (!omega) return [alpha];
  const sds = variances.map(Math.sqrt);
  const r = Float64Array.from({ length: k * k }, (_, at) => {
    const [i, j] = [Math.floor(at / k), at % k];
    return i === j ? 1 : covariance(i, j) / (sds[i]! * sds[j]!);
  });
  try {
    return [alpha, factorReliability({ r, items: k, n: cases }, sds, names, 1).omega];
  } catch (error) {
    if (error instanceof CoreError) return [alpha, NaN];
    throw error;
  }
}
