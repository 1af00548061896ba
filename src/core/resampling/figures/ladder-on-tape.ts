import { CoreError } from "../../errors";
import type { LadderModels } from "../../regression/ladder";
import type { DesignColumn } from "../../regression/design-matrix";
import { cholesky, dot, type Matrix, upperInverse } from "../tape/linear-algebra";
import type { TapeWriter, Value } from "../tape/tape";
import { dividedBy, type HeldAt, heldAtLevel, type Place, placeAt, predictionWeights, slopeWeights } from "../../regression/design-point";
import type { Combined, Figure } from "./figure";
import { recentring, type Recentring } from "./recentring";
import { packedLength, type WhitenedRows } from "./whitened-rows";

interface Step {
  /** Columns with the intercept. */
  readonly m: number;
  readonly columns: readonly DesignColumn[];
  readonly moves: Recentring;
  /** Position in the basis of each component's own column. */
  readonly own: readonly number[];
  /** b in the units the columns entered in, as they were centred in the sample. */
  readonly b: readonly Value[];
  /** Mean and SD of each component in the resample, in the units it entered in. */
  readonly means: readonly Value[];
  readonly sds: readonly Value[];
  /** Where b is centred and what it is divided by: 0 and 1 where the component entered as it is. */
  readonly shifts: readonly Value[];
  readonly units: readonly Value[];
}

/** A numeric component of columns whose own column is not in the model: its mean and SD in a resample are not at hand. */
export class NotClosedError extends CoreError {
  readonly code = "not-closed";
  readonly details = {};
  constructor() {
    super("A product stands without its parts, so that centring it anew fits another model.");
  }
}

/**
 * The figures of a ladder in a resample, written on a tape: means, SDs, z-scores, centring and products formed anew (docs/methods.md, “Bootstrap intervals”).
 * Everything follows from the resample's sums of z·zᵀ: one factorization for every step, since the leading columns of its triangle are those of the steps
 * before; with RSS after m columns = Σ of ℓ² from m on.
 */
export class LadderOnTape {
  private readonly cases: Value;
  /** Σ ℓ² from a column on. */
  private readonly left: Value[];
  private readonly inverse: Matrix;
  private readonly l: Value[];
  private readonly u: Matrix;
  private readonly steps: Step[];
  private readonly sdY: Value;
  private readonly known = new Map<string, Value>();

  /**
   * @param input the tape's input that holds the first sum
   * @param others true: the sums are of all rows but the ones that are meant
   * @throws NotClosedError when a product stands without its parts, so that centring anew changes what is fitted
   */
  constructor(
    private readonly t: TapeWriter,
    private readonly models: LadderModels,
    rows: WhitenedRows,
    input: number,
    others = false,
  ) {
    const { q, width, r, y, n } = rows;
    const g: Matrix = (i, j) => {
      const sum = t.input(input + packedLength(i) + j);
      // of all rows together the sums are the identity
      return others ? t.subtract(t.constant(i === j ? 1 : 0), sum) : sum;
    };
    this.cases = t.multiply(g(0, 0), t.constant(n)); // the intercept's column is 1/√n
    const low = cholesky(t, g, width);
    // ℓ = Lᵀy and U = LᵀR
    this.l = Array.from({ length: width }, (_, j) => dot(t, j, width, (i) => low(i, j), (i) => t.constant(y[i]!))); // prettier-ignore
    this.u = (a, b) => dot(t, a, b + 1, (i) => low(i, a), (i) => t.constant(r[i * q + b]!)); // prettier-ignore
    this.inverse = upperInverse(t, this.u, q);
    this.left = new Array<Value>(width + 1).fill(t.constant(0));
    for (let j = width - 1; j >= 0; j--) this.left[j] = t.accumulate(this.left[j + 1]!, this.l[j]!, this.l[j]!);
    this.sdY = t.multiply(t.root(t.divide(this.left[1]!, this.degrees(1))), t.constant(this.outcomeUnit));
    this.steps = models.fits.map((_, k) => this.step(k));
  }

  /** @throws NotClosedError */
  figure(figure: Figure): Value {
    const { t } = this;
    switch (figure.kind) {
      case "R2":
        return this.R2(figure.step);
      case "adjustedR2": {
        const share = t.divide(t.multiply(t.subtract(t.constant(1), this.R2(figure.step)), this.degrees(1)), this.degrees(this.steps[figure.step]!.m)); // prettier-ignore
        return t.subtract(t.constant(1), share);
      }
      case "dR2":
        return figure.step === 0 ? this.R2(0) : t.subtract(this.R2(figure.step), this.R2(figure.step - 1));
      case "b":
        return this.b(figure.step, this.at(figure.step, figure.column));
      case "beta":
        return this.beta(figure.step, this.at(figure.step, figure.column));
      case "part":
        return this.part(figure.step, this.at(figure.step, figure.column));
      case "difference":
        return t.subtract(this.beta(figure.step, this.at(figure.step, figure.first)), this.beta(figure.step, this.at(figure.step, figure.second))); // prettier-ignore
      case "slope":
        return this.slope(figure.step, figure.column, figure.at);
      case "marginalMean":
        return this.atLevel(figure.step, figure.variable, figure.level);
      case "contrast":
        return t.subtract(
          this.atLevel(figure.step, figure.variable, figure.level),
          this.atLevel(figure.step, figure.variable, figure.minus),
        );
      case "combined":
        return this.combined(figure);
    }
  }

  /** Mean, sum of squares about it and number of cases of a numeric component, for groups that are put together. */
  moments(step: number, component: string): { mean: Value; squares: Value; cases: Value } {
    const { moves, means, own } = this.steps[step]!;
    const c = moves.components.indexOf(component);
    const { scale } = this.scaled(own[c]!);
    return { mean: means[c]!, squares: this.t.divide(this.squares(own[c]!), this.t.constant(scale * scale)), cases: this.cases };
  }

  /** The same of the outcome, about its mean in the sample. */
  outcomeMoments(): { mean: Value; squares: Value; cases: Value } {
    const { t } = this;
    const { centre } = this.models.fits[0]!.basis.design.outcome;
    const unit = this.outcomeUnit;
    return {
      mean: t.accumulate(t.constant(centre), t.divide(t.multiply(this.u(0, 0), this.l[0]!), this.cases), t.constant(unit)),
      squares: t.multiply(this.left[1]!, t.constant(unit * unit)),
      cases: this.cases,
    };
  }

  /** Components of a step whose centre can be moved. */
  components(step: number): readonly string[] {
    return this.steps[step]!.moves.components;
  }

  columnsOf(step: number): readonly DesignColumn[] {
    return this.steps[step]!.columns;
  }

  /** A coefficient once components are centred and divided otherwise, in outcome units. */
  movedB(step: number, column: string, shifts: readonly Value[], units: readonly Value[]): Value {
    const { moves, b } = this.steps[step]!;
    const at = this.at(step, column);
    return this.times(this.moved(moves, at, b, shifts), moves.numeric[at]!, units);
  }

  /** A coefficient as its components were centred and divided in the whole sample. */
  enteredB(step: number, column: string): Value {
    return this.steps[step]!.b[this.at(step, column)]!;
  }

  private get outcomeUnit(): number {
    return 1 / this.models.fits[0]!.basis.design.outcome.scale;
  }

  private degrees(taken: number): Value {
    return this.t.subtract(this.cases, this.t.constant(taken));
  }

  private scaled(position: number) {
    const { basis } = this.models.fits.at(-1)!;
    return basis.design.columns[basis.kept[position]! - 1]!;
  }

  private step(k: number): Step {
    const { t } = this;
    const { design, fits, spec } = this.models;
    const fit = fits[k]!;
    const byName = new Map(design.columns.map((c) => [c.name, c]));
    const columns = fit.columns.map((name) => byName.get(name)!);
    if (fit.dropped.some(({ column }) => byName.get(column)!.components.length > 1)) throw new NotClosedError();
    const moves = recentring(columns, spec.standardizeIndicators ?? false);
    if (!moves) throw new NotClosedError();
    const own = moves.components.map((name) => fit.columns.indexOf(name) + 1);
    if (own.includes(0)) throw new NotClosedError();
    const m = columns.length + 1;
    const b = columns.map((_, i) => {
      const sum = dot(t, i + 1, m, (c) => this.inverse(i + 1, c), (c) => this.l[c]!); // prettier-ignore
      return t.multiply(sum, t.constant(this.scaled(i + 1).scale * this.outcomeUnit));
    });
    const means = own.map((p) => {
      const { centre, scale } = this.scaled(p);
      return t.accumulate(t.constant(centre), t.divide(t.multiply(this.u(0, 0), this.u(0, p)), this.cases), t.constant(1 / scale));
    });
    const sds = own.map((p) => t.multiply(t.root(t.divide(this.squares(p), this.degrees(1))), t.constant(1 / this.scaled(p).scale)));
    const coded = moves.components.map((name) => design.codings.some((coding) => coding.variable === name));
    return {
      m, columns, moves, own, b, means, sds,
      shifts: means.map((mean, c) => (coded[c] ? mean : t.constant(0))),
      units: sds.map((sd, c) => (coded[c] && spec.centring === "z" ? sd : t.constant(1))),
    }; // prettier-ignore
  }

  /** Sum of squares of a scaled column about its mean. */
  private squares(position: number): Value {
    return dot(this.t, 1, position + 1, (i) => this.u(i, position), (i) => this.u(i, position)); // prettier-ignore
  }

  private at(step: number, column: string): number {
    return this.models.fits[step]!.columns.indexOf(column);
  }

  private R2(step: number): Value {
    const { t } = this;
    return t.subtract(t.constant(1), t.divide(this.left[this.steps[step]!.m]!, this.left[1]!));
  }

  private b(step: number, at: number): Value {
    const { moves, b, shifts, units } = this.steps[step]!;
    return this.times(this.moved(moves, at, b, shifts), moves.numeric[at]!, units);
  }

  private beta(step: number, at: number): Value {
    const { moves, b, means, sds } = this.steps[step]!;
    return this.t.divide(this.times(this.moved(moves, at, b, means), moves.numeric[at]!, sds), this.sdY);
  }

  /** γ/(√(variance of γ without s²)·√TSS). */
  private part(step: number, at: number): Value {
    const { t } = this;
    const { moves, b, shifts, m } = this.steps[step]!;
    const row = new Array<Value>(m).fill(t.constant(0));
    let coefficient = t.constant(0);
    for (const { from, times, shifts: of } of moves.shares[at]!) {
      const factor = of.reduce((product, c) => t.multiply(product, shifts[c]!), t.constant(times));
      coefficient = t.accumulate(coefficient, b[from]!, factor);
      const weight = t.multiply(factor, t.constant(this.scaled(from + 1).scale));
      for (let k = from + 1; k < m; k++) row[k] = t.accumulate(row[k]!, weight, this.inverse(from + 1, k));
    }
    const squares = dot(t, 1, m, (k) => row[k]!, (k) => row[k]!); // prettier-ignore
    return t.divide(t.multiply(coefficient, t.constant(1 / this.outcomeUnit)), t.root(t.multiply(squares, this.left[1]!)));
  }

  private moved({ shares }: Recentring, column: number, b: readonly Value[], shifts: readonly Value[]): Value {
    const { t } = this;
    return shares[column]!.reduce((sum, { from, times, shifts: of }) => {
      const term = of.reduce((product, c) => t.multiply(product, shifts[c]!), t.multiply(b[from]!, t.constant(times)));
      return t.add(sum, term);
    }, t.constant(0));
  }

  private times(value: Value, components: readonly number[], units: readonly Value[]): Value {
    return components.reduce((product, c) => this.t.multiply(product, units[c]!), value);
  }

  /** Per raw unit of the variable. */
  private slope(step: number, column: string, held: readonly HeldAt[]): Value {
    const { t } = this;
    const { columns, b } = this.steps[step]!;
    const weights = slopeWeights(t, columns, column, this.place(step, held));
    const sum = weights.reduce((total, weight, i) => t.accumulate(total, b[i]!, weight), t.constant(0));
    return t.divide(sum, t.constant(dividedBy(this.models.design, column)));
  }

  private place(step: number, held: readonly HeldAt[]): Place<Value> {
    const { t } = this;
    const { moves, means, sds } = this.steps[step]!;
    return placeAt(t, this.models.design, held, (component, from) => {
      const c = moves.components.indexOf(component.name);
      if (c < 0) throw new NotClosedError();
      return from === 0 ? means[c]! : t.accumulate(means[c]!, sds[c]!, t.constant(from));
    });
  }

  private combined({ step, parts, per }: Combined): Value {
    const { t } = this;
    const sum = parts.reduce((total, { weight, ...of }) => {
      // the same place stands in many sums: it is worked out once
      const key = JSON.stringify([step, of]);
      const part = this.known.get(key) ?? (of.slope === null ? this.prediction(step, of.at) : this.slope(step, of.slope, of.at));
      this.known.set(key, part);
      return t.accumulate(total, part, t.constant(weight));
    }, t.constant(0));
    if (per === null) return sum;
    const { moves, sds } = this.steps[step]!;
    if (per.column === null) return t.divide(sum, this.sdY);
    const own = moves.components.indexOf(per.column);
    if (own < 0) throw new NotClosedError();
    // the SD is in the units the component entered in
    const raw = t.multiply(sds[own]!, t.constant(dividedBy(this.models.design, per.column)));
    return t.divide(t.multiply(sum, raw), this.sdY);
  }

  /** Predicted outcome with one variable set. */
  private atLevel(step: number, variable: string, level: string): Value {
    return this.prediction(step, heldAtLevel(this.models.design, variable, level));
  }

  /** Predicted outcome where some components are held, all others at their averages (docs/methods.md, “Marginal means”). */
  private prediction(step: number, held: readonly HeldAt[]): Value {
    const { t } = this;
    const { columns, b, m } = this.steps[step]!;
    const { centre } = this.models.fits[0]!.basis.design.outcome;
    const intercept = dot(t, 0, m, (c) => this.inverse(0, c), (c) => this.l[c]!); // prettier-ignore
    const start = t.accumulate(t.constant(centre), intercept, t.constant(this.outcomeUnit));
    const weights = predictionWeights(t, columns, this.place(step, held));
    return weights.reduce((sum, weight, i) => t.accumulate(sum, b[i]!, t.subtract(weight, t.constant(this.scaled(i + 1).centre))), start);
  }
}
