import type { Tape } from "../tape/tape";

/** Units that are drawn from, and the sums a resample takes of them. */
export interface Part {
  /** Units in stretches that are drawn from each by itself, one after the other: one stretch when nothing is held together. */
  readonly strata: readonly number[];
  /** Numbers in a row; the products of each row with itself are summed. 0: a unit comes with its sums of products already. */
  readonly width: number;
  /** Sums: width · (width + 1) / 2, the lower triangle row by row. */
  readonly size: number;
  /**
   * Writes the row of each unit: its `width` numbers, or its `size` sums, from `at` on, `step` numbers from one row to the next. Called once, by the engine:
   * for a million units there is no room for a second copy.
   */
  readonly write: (to: Float64Array, at: number, step: number) => void;
  /** The sums over all units, each taken once: length size. */
  readonly total: Float64Array;
}

/** What is resampled: parts, and a tape that reads the sums of all of them one after the other. */
export interface Problem {
  readonly parts: readonly Part[];
  readonly tape: Tape;
}

/** @param countsOf a resample: how often each unit of the part stands in it */
export type FillCounts = (part: number, countsOf: (resample: number) => Uint8Array) => void;

/** Works out figures of resamples. The two engines differ by rounding alone. */
export interface Engine {
  readonly kind: "kernel" | "plain";
  /** So many replicates at most are asked for at a time. */
  readonly batch: number;
  /**
   * Figures of replicates first … first + count − 1: figure k of replicate first + i goes to out[k · stride + at + i]; not a number where singular.
   * Replicate r draws from the stream of (seed, r, attempt), part after part and stretch after stretch.
   */
  draw(seed: number, first: number, count: number, attempt: number, out: Float64Array, stride: number, at: number): void;
  /** Figures of resamples whose counts are given: `fill`, called once a part, sets how often each unit stands in each (up to 255), all `begin` before. Laid out as above. */
  counted(count: number, begin: 0 | 1, fill: FillCounts, out: Float64Array, stride: number, at: number): void;
  /** Figures without each of the units first … first + count − 1 of a part in turn, laid out as above; the other parts whole. */
  leaveOut(part: number, first: number, count: number, out: Float64Array, stride: number, at: number): void;
}

export const unitsOf = ({ strata }: Part) => strata.reduce((sum, units) => sum + units, 0);

/** Inputs of the tape that the parts before this one fill. */
export function firstInput({ parts }: Problem, part: number): number {
  return parts.slice(0, part).reduce((sum, p) => sum + p.size, 0);
}

/** Memory for the counts of a batch, and most replicates of one: what is done once a batch costs next to nothing then. */
const COUNT_BYTES = 64 * 2 ** 20;
const MOST = 512;

/** Replicates of a batch: a multiple of 16 whose counts, a byte a unit, fit. */
export function batchSize(units: number): number {
  return Math.max(16, Math.min(MOST, Math.floor(COUNT_BYTES / Math.max(1, units) / 16) * 16));
}

/** Rows whose products stand ready at a time, a multiple of 8: as many as stay nearest to the processor. */
export function blockRows(rowBytes: number): number {
  return Math.max(8, Math.min(256, Math.floor((24 * 1024) / rowBytes / 8) * 8));
}
