import { CoreError } from "../errors";
import type { Predictor } from "../regression/design-matrix";
import { type LadderModels, ladderModels } from "../regression/ladder";
import { drawCounts } from "./draw";
import { type Figure, fittedFigures, figurePlan, type FigurePlan, figuresOf, resampleFigures, withoutUnit } from "./ladder-figures";
import { packedLength, rowProducts, type WhitenedRows, whitenedRows } from "./whitened-rows";

/** Replicates first … first + count − 1. */
export interface ReplicateRange {
  readonly first: number;
  readonly count: number;
}

/** Replicates of a range: `figures` numbers each, one after the other. */
export interface Replicates {
  readonly values: Float64Array;
  /** Draws that were singular and drawn again. */
  readonly redrawn: number;
}

/** A replicate that is singular so often is not drawn again: the ladder has next to no resamples. */
const MOST_ATTEMPTS = 100;

/** So often a replicate could not be drawn without a column vanishing in it. */
export class SingularResamplesError extends CoreError {
  readonly code = "singular-resamples";
  constructor(readonly details: { attempts: number }) {
    super(`A resample came out singular ${details.attempts} times in a row.`);
  }
}

/** What all replicates of a ladder share. */
export class LadderBootstrap {
  readonly figures: readonly Figure[];
  /** What is drawn: cases, or whole clusters. */
  readonly units: number;
  private readonly rows: WhitenedRows | null;
  private readonly plan: FigurePlan | null;
  private readonly products: Float64Array;
  private readonly unitOf: Int32Array | null;
  private readonly g: Float64Array;
  /** Room for the units a replicate has drawn. */
  private readonly drawn: Int32Array;

  /**
   * @param models a ladder fitted on its sample
   * @param clusters cluster of each case: whole clusters are drawn; null draws cases
   */
  constructor(
    private readonly models: LadderModels,
    clusters: Int32Array | null,
  ) {
    this.figures = figuresOf(models);
    const places = new Map<number, number>();
    this.unitOf = clusters && clusters.map((code) => places.get(code) ?? (places.set(code, places.size), places.size - 1));
    this.units = clusters ? places.size : models.y.length;
    this.plan = figurePlan(models);
    this.rows = this.plan && whitenedRows(models);
    this.g = new Float64Array(this.rows ? packedLength(this.rows.width) : 0);
    this.drawn = new Int32Array(this.units);
    this.products = this.rows ? rowProducts(this.rows, this.unitOf, this.units) : new Float64Array(0);
  }

  /** The figures of the ladder itself. */
  estimates(): Float64Array {
    const out = new Float64Array(this.figures.length);
    fittedFigures(this.models, out, this.columns());
    return out;
  }

  /**
   * Replicates of a range. The same seed gives the same numbers, however the ranges are dealt out: replicate r draws from the stream of (seed, r).
   * @throws SingularResamplesError
   */
  replicates(seed: number, { first, count }: ReplicateRange, progress: (done: number) => void = () => undefined): Replicates {
    const size = this.figures.length;
    const values = new Float64Array(count * size);
    const counts = new Int32Array(this.units);
    let redrawn = 0;
    for (let k = 0; k < count; k++) {
      const out = values.subarray(k * size, (k + 1) * size);
      let attempt = 0;
      for (;;) {
        drawCounts(counts, seed, first + k, attempt);
        if (this.figuresAt(counts, out)) break;
        redrawn++;
        if (++attempt >= MOST_ATTEMPTS) throw new SingularResamplesError({ attempts: attempt });
      }
      progress(k + 1);
    }
    return { values, redrawn };
  }

  /**
   * Every figure without each unit in turn, unit after unit; a unit without which the ladder cannot be fitted keeps the figures of all.
   * In the basis of all rows leaving one out is the identity less its products, so nothing is fitted anew.
   */
  jackknife(): Float64Array {
    const size = this.figures.length;
    const values = new Float64Array(this.units * size);
    const estimates = this.estimates();
    const { rows, plan } = this;
    const { g } = this;
    const counts = new Int32Array(this.units).fill(1);
    for (let unit = 0; unit < this.units; unit++) {
      const out = values.subarray(unit * size, (unit + 1) * size);
      let done: boolean;
      if (rows && plan) {
        withoutUnit(this.products, unit, rows.width, g);
        done = resampleFigures(this.models, rows, plan, g, out);
      } else {
        counts[unit] = 0;
        done = this.refitted(counts, out);
        counts[unit] = 1;
      }
      if (!done) out.set(estimates);
    }
    return values;
  }

  private figuresAt(counts: Int32Array, out: Float64Array): boolean {
    const { rows, plan } = this;
    if (!rows || !plan) return this.refitted(counts, out);
    addUp(this.products, counts, this.drawn, this.g);
    return resampleFigures(this.models, rows, plan, this.g, out);
  }

  /** A ladder whose products stand without their parts is another model once it is centred anew: each resample is fitted as a sample of its own. */
  private refitted(counts: Int32Array, out: Float64Array): boolean {
    const { variables, spec } = this.models;
    const cases: number[] = [];
    for (let i = 0; i < this.models.y.length; i++) {
      const times = counts[this.unitOf ? this.unitOf[i]! : i]!;
      for (let t = 0; t < times; t++) cases.push(i);
    }
    const taken = (of: Predictor): Predictor =>
      "codes" in of ? { levels: of.levels, codes: Int32Array.from(cases, (i) => of.codes[i]!) } : Float64Array.from(cases, (i) => of[i]!);
    try {
      const models = ladderModels(
        { ...spec, errors: { kind: "classical" } },
        new Map([...variables].map(([name, of]) => [name, taken(of)])),
      );
      return fittedFigures(models, out, this.columns());
    } catch (error) {
      if (error instanceof CoreError) return false; // constant, too few: singular
      throw error;
    }
  }

  private columns(): readonly (readonly string[])[] {
    return this.models.fits.map((fit) => fit.columns);
  }
}

/**
 * g ← Σ times · products over the units that are drawn. Four units at a time, so that each sum is taken up and put down a quarter as often: this is
 * where replicates spend their time (bench/README.md).
 * @param drawn room for the places of the drawn units
 */
function addUp(products: Float64Array, counts: Int32Array, drawn: Int32Array, g: Float64Array): void {
  const size = g.length;
  let many = 0;
  for (let unit = 0; unit < counts.length; unit++) if (counts[unit] !== 0) drawn[many++] = unit;
  g.fill(0);
  let i = 0;
  for (; i + 3 < many; i += 4) {
    const [u, v, w, x] = [drawn[i]!, drawn[i + 1]!, drawn[i + 2]!, drawn[i + 3]!];
    const [tu, tv, tw, tx] = [counts[u]!, counts[v]!, counts[w]!, counts[x]!];
    const [fu, fv, fw, fx] = [u * size, v * size, w * size, x * size];
    for (let k = 0; k < size; k++) {
      g[k] = g[k]! + (tu * products[fu + k]! + tv * products[fv + k]! + (tw * products[fw + k]! + tx * products[fx + k]!));
    }
  }
  for (; i < many; i++) {
    const unit = drawn[i]!;
    const from = unit * size;
    for (let k = 0; k < size; k++) g[k] = g[k]! + counts[unit]! * products[from + k]!;
  }
}
