import { CoreError } from "../errors";
import { engineFor, type EngineKind } from "./engine/choose-engine";
import type { Engine, Problem } from "./engine/problem";
import { acceleration, JackknifeMoments } from "./jackknife-moments";

/** Replicates first … first + count − 1. */
export interface ReplicateRange {
  readonly first: number;
  readonly count: number;
}

/** Replicates of a range: figure after figure, `count` numbers each. */
export interface Replicates {
  readonly values: Float64Array;
  /** Draws that were singular and drawn again. */
  readonly redrawn: number;
}

/** A replicate that is singular so often is not drawn again: there are next to no resamples. */
const MOST_ATTEMPTS = 100;

/** So often a replicate could not be drawn without a column vanishing in it. */
export class SingularResamplesError extends CoreError {
  readonly code = "singular-resamples";
  constructor(readonly details: { attempts: number }) {
    super(`A resample came out singular ${details.attempts} times in a row.`);
  }
}

/** What gives figures of resamples. @see Engine for what the two methods do */
export interface Resampling {
  readonly batch: number;
  readonly figures: number;
  /** Units of each stratum of each part, in the order in which they are left out. */
  readonly strata: readonly (readonly number[])[];
  estimates(): Float64Array;
  draw: Engine["draw"];
  leaveOut: Engine["leaveOut"];
}

/** Resampling of a problem by an engine. */
export function resamplingOf(problem: Problem, kind: EngineKind = null): Resampling {
  const engine = engineFor(problem, kind);
  const figures = problem.tape.outputs;
  // nothing below holds the problem, so that what its rows were made of can go
  const strata = problem.parts.map((part) => part.strata);
  return {
    batch: engine.batch,
    figures,
    strata,
    estimates: () => wholeFigures(engine, strata.length, figures),
    draw: (...args) => engine.draw(...args),
    leaveOut: (...args) => engine.leaveOut(...args),
  };
}

/** The figures with every unit taken once: those of leaving out a unit that is not there. */
function wholeFigures(engine: Engine, parts: number, figures: number): Float64Array {
  const out = new Float64Array(figures);
  engine.leaveOut(parts, 0, 1, out, 1, 0);
  return out;
}

/**
 * Replicates of a range. The same seed gives the same numbers, however the ranges are dealt out: replicate r draws from the stream of (seed, r).
 * One with a figure that is not a number is singular and drawn again from (seed, r, attempt).
 * @throws SingularResamplesError
 */
export function replicatesOf(
  of: Resampling,
  seed: number,
  { first, count }: ReplicateRange,
  progress: (done: number) => void = () => {},
): Replicates {
  const values = new Float64Array(of.figures * count);
  const again = new Float64Array(of.figures);
  let redrawn = 0;
  for (let from = 0; from < count; from += of.batch) {
    const many = Math.min(of.batch, count - from);
    of.draw(seed, first + from, many, 0, values, count, from);
    for (let r = from; r < from + many; r++) {
      for (let attempt = 1; !allFinite(values, of.figures, count, r); attempt++) {
        redrawn++;
        if (attempt >= MOST_ATTEMPTS) throw new SingularResamplesError({ attempts: attempt });
        of.draw(seed, first + r, 1, attempt, again, 1, 0);
        for (let k = 0; k < of.figures; k++) values[k * count + r] = again[k]!;
      }
    }
    progress(from + many);
  }
  return { values, redrawn };
}

function allFinite(values: Float64Array, figures: number, stride: number, at: number): boolean {
  for (let k = 0; k < figures; k++) if (!Number.isFinite(values[k * stride + at]!)) return false;
  return true;
}

/**
 * Acceleration of each figure, and of some differences between two of them, from leaving out each unit in turn; a unit without which there is no figure counts
 * as if it changed nothing.
 */
export function accelerationsOf(
  of: Resampling,
  estimates: Float64Array,
  pairs: readonly { readonly first: number; readonly second: number }[] = [],
): { figures: Float64Array; differences: Float64Array } {
  const { batch } = of;
  const references = [...estimates, ...pairs.map(({ first, second }) => estimates[first]! - estimates[second]!)];
  const moments: JackknifeMoments[][] = references.map(() => []);
  const some = new Float64Array(of.figures * batch);
  const difference = new Float64Array(batch);
  of.strata.forEach((strata, part) => {
    let first = 0;
    for (const units of strata) {
      const own = references.map((reference) => new JackknifeMoments(reference));
      for (let from = 0; from < units; from += batch) {
        const many = Math.min(batch, units - from);
        of.leaveOut(part, first + from, many, some, batch, 0);
        for (let k = 0; k < of.figures; k++) {
          const at = k * batch;
          for (let i = at; i < at + many; i++) if (!Number.isFinite(some[i]!)) some[i] = estimates[k]!;
          own[k]!.add(some, at, at + many);
        }
        pairs.forEach((pair, k) => {
          for (let i = 0; i < many; i++) difference[i] = some[pair.first * batch + i]! - some[pair.second * batch + i]!;
          own[of.figures + k]!.add(difference, 0, many);
        });
      }
      own.forEach((m, k) => moments[k]!.push(m));
      first += units;
    }
  });
  const all = Float64Array.from(moments, acceleration);
  return { figures: all.slice(0, of.figures), differences: all.slice(of.figures) };
}
