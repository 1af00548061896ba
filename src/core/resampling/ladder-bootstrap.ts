import { CoreError } from "../errors";
import type { Predictor } from "../regression/design-matrix";
import { type LadderModels, ladderModels } from "../regression/ladder";
import { drawCounts, seededState } from "./draw";
import type { EngineKind } from "./engine/choose-engine";
import { batchSize, type Problem } from "./engine/problem";
import { type Figure, figuresOf } from "./figures/figure";
import { fittedFigures } from "./figures/fitted-figures";
import { LadderOnTape, NotClosedError } from "./figures/ladder-on-tape";
import { whitenedRows } from "./figures/whitened-rows";
import { type Resampling, resamplingOf } from "./resampler";
import { TapeWriter } from "./tape/tape";
import { type Drawing, type Units, unitsOf } from "./units";

/** A ladder made ready to be resampled. */
export interface LadderResampling extends Resampling {
  /** What is drawn: cases, or whole clusters. */
  readonly units: number;
}

/**
 * A ladder made ready to be resampled, for some of its figures.
 * @param models a ladder fitted on its sample
 * @param figures which, in the order they are given; all of every step when left out
 */
export function ladderBootstrap(
  models: LadderModels,
  drawing: Drawing,
  figures: readonly Figure[] = figuresOf(models),
  kind: EngineKind = null,
): LadderResampling {
  const units = unitsOf(drawing, models.y.length);
  const problem = ladderProblem(models, units, figures);
  const of = problem ? resamplingOf(problem, kind) : refitting(models, units, figures);
  return { ...of, units: units.count };
}

/** Null: each resample has to be fitted as a sample of its own. */
function ladderProblem(models: LadderModels, units: Units, figures: readonly Figure[]): Problem | null {
  const rows = whitenedRows(models, units);
  if (!rows) return null;
  const writer = new TapeWriter();
  try {
    const ladder = new LadderOnTape(writer, models, rows, 0);
    for (const figure of figures) writer.output(ladder.figure(figure));
  } catch (error) {
    if (error instanceof NotClosedError) return null;
    throw error;
  }
  return { parts: [rows.part], tape: writer.tape() };
}

/** A ladder whose products stand without their parts is another model once it is centred anew: each resample is fitted as a sample of its own. */
function refitting(models: LadderModels, units: Units, figures: readonly Figure[]): Resampling {
  const { variables, spec } = models;
  const n = models.y.length;
  const columns = models.fits.map((fit) => fit.columns);
  const batch = batchSize(units.count);
  const own = new Float64Array(figures.length);
  const counts = new Uint8Array(units.count);
  const state = new Int32Array(4);
  const fitted = (): boolean => {
    const cases: number[] = [];
    for (let i = 0; i < n; i++) for (let t = counts[units.unitOf(i)]!; t > 0; t--) cases.push(i);
    const taken = (of: Predictor): Predictor =>
      "codes" in of ? { levels: of.levels, codes: Int32Array.from(cases, (i) => of.codes[i]!) } : Float64Array.from(cases, (i) => of[i]!);
    try {
      const again = new Map([...variables].map(([name, of]) => [name, taken(of)]));
      return fittedFigures(ladderModels({ ...spec, errors: { kind: "classical" } }, again), figures, columns, own);
    } catch (error) {
      if (error instanceof CoreError) return false; // constant, too few: singular
      throw error;
    }
  };
  const put = (out: Float64Array, stride: number, at: number) => {
    if (!fitted()) own.fill(NaN);
    own.forEach((value, k) => (out[k * stride + at] = value));
  };
  return {
    batch,
    figures: figures.length,
    strata: [units.strata],
    estimates: () => {
      const out = new Float64Array(figures.length);
      fittedFigures(models, figures, columns, out);
      return out;
    },
    draw: (seed, first, count, attempt, out, stride, at) => {
      for (let r = 0; r < count; r++) {
        seededState(seed, first + r, attempt, state);
        counts.fill(0);
        let from = 0;
        for (const size of units.strata) {
          drawCounts(counts.subarray(from, from + size), state);
          from += size;
        }
        put(out, stride, at + r);
      }
    },
    leaveOut: (_, first, count, out, stride, at) => {
      counts.fill(1);
      for (let i = 0; i < count; i++) {
        counts[first + i] = 0;
        put(out, stride, at + i);
        counts[first + i] = 1;
      }
    },
  };
}
