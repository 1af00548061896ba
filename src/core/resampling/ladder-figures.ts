import { invertUpper } from "../linear-algebra/triangular";
import { type LadderModels, ladderTables } from "../regression/ladder";
import { recentring, type Recentring } from "./recentring";
import { packedLength, type WhitenedRows } from "./whitened-rows";

/** A number of a ladder that replicates are made of. Steps are counted from 0. */
export type Figure = { kind: "R2" | "adjustedR2" | "dR2"; step: number } | { kind: "b" | "beta" | "part"; step: number; column: string };

/** The figures of a ladder, in the order in which they stand in replicates. */
export function figuresOf({ fits }: LadderModels): Figure[] {
  return fits.flatMap((fit, step): Figure[] => [
    { kind: "R2", step },
    { kind: "adjustedR2", step },
    { kind: "dR2", step },
    ...fit.columns.flatMap((column): Figure[] => [
      { kind: "b", step, column },
      { kind: "beta", step, column },
      { kind: "part", step, column },
    ]),
  ]);
}

/** A pivot that falls below this share of its diagonal makes a resample singular. */
const SINGULAR = 1e-10;

interface StepPlan {
  /** Columns with the intercept. */
  m: number;
  recentring: Recentring;
  /** Position in the basis of each component's own column. */
  own: number[];
  /** Per component: whether b is centred, so that its centre moves with the resample. */
  coded: boolean[];
  scratch: { b: Float64Array; means: Float64Array; sds: Float64Array; shiftB: Float64Array; unitB: Float64Array };
}

/** What every resample of a ladder shares. Null: a product stands without its parts, so that centring anew changes what is fitted. */
export interface FigurePlan {
  readonly steps: readonly StepPlan[];
  /** True: what is centred is divided by its SD as well. */
  readonly z: boolean;
  /** Room for one resample's triangle, outcome, sums and a row. */
  readonly u: Float64Array;
  readonly l: Float64Array;
  readonly left: Float64Array;
  readonly row: Float64Array;
}

/** @returns null when a step is not closed under centring: its replicates are refitted one by one */
export function figurePlan(models: LadderModels): FigurePlan | null {
  const { design, fits, spec } = models;
  const byName = new Map(design.columns.map((c) => [c.name, c]));
  const steps: StepPlan[] = [];
  for (const fit of fits) {
    const columns = fit.columns.map((name) => byName.get(name)!);
    if (fit.dropped.some(({ column }) => byName.get(column)!.components.length > 1)) return null;
    const found = recentring(columns, spec.standardizeIndicators ?? false);
    if (!found) return null;
    const own = found.components.map((name) => fit.columns.indexOf(name) + 1);
    if (own.includes(0)) return null;
    const coded = found.components.map((name) => design.codings.some((coding) => coding.variable === name));
    const each = () => new Float64Array(own.length);
    const scratch = { b: new Float64Array(fit.columns.length), means: each(), sds: each(), shiftB: each(), unitB: each() };
    steps.push({ m: fit.columns.length + 1, recentring: found, own, coded, scratch });
  }
  const q = fits.at(-1)!.basis.kept.length;
  return {
    steps,
    z: spec.centring === "z",
    u: new Float64Array(q * q),
    l: new Float64Array(q + 1),
    left: new Float64Array(q + 2),
    row: new Float64Array(q),
  };
}

/**
 * The figures of one resample (contract section 5: means, SDs, z-scores, centring and products formed anew).
 * @param g packed lower triangle of Σ w·z·zᵀ; overwritten
 * @param out length plan.count
 * @returns false when the resample is singular; `out` then holds nothing
 */
export function resampleFigures(models: LadderModels, rows: WhitenedRows, plan: FigurePlan, g: Float64Array, out: Float64Array): boolean {
  const { q, width, r, y } = rows;
  const cases = g[0]! * rows.n; // the intercept's column is 1/√n
  if (!factor(g, width)) return false;
  // ℓ = Lᵀy and U = LᵀR
  const { u, l, left } = plan;
  for (let j = 0; j < width; j++) {
    let sum = 0;
    for (let i = j; i < width; i++) sum += g[(i * (i + 1)) / 2 + j]! * y[i]!;
    l[j] = sum;
  }
  for (let a = 0; a < q; a++) {
    for (let b = a; b < q; b++) {
      let sum = 0;
      for (let i = a; i <= b; i++) sum += g[(i * (i + 1)) / 2 + a]! * r[i * q + b]!;
      u[a * q + b] = sum;
    }
  }
  const inverse = invertUpper(u, q);
  left[width] = 0; // Σ of ℓ² from a column on
  for (let j = width - 1; j >= 0; j--) left[j] = left[j + 1]! + l[j]! * l[j]!;
  const total = left[1]!;
  const { fits } = models;
  const { columns: scaled } = fits[0]!.basis.design;
  const { kept } = fits.at(-1)!.basis;
  const sdY = Math.sqrt(total / (cases - 1)) * rows.outcomeUnit;
  let at = 0;
  let before = 0;
  for (const { m, recentring: moves, own, coded, scratch } of plan.steps) {
    const { b, means, sds, shiftB, unitB } = scratch;
    const R2 = 1 - left[m]! / total;
    out[at++] = R2;
    out[at++] = 1 - ((1 - R2) * (cases - 1)) / (cases - m);
    out[at++] = R2 - before;
    before = R2;
    // coefficients in the units the columns entered in
    for (let i = 1; i < m; i++) {
      let sum = 0;
      for (let k = i; k < m; k++) sum += inverse[i * q + k]! * l[k]!;
      b[i - 1] = sum * scaled[kept[i]! - 1]!.scale * rows.outcomeUnit;
    }
    for (let c = 0; c < own.length; c++) {
      const p = own[c]!;
      const { centre, scale } = scaled[kept[p]! - 1]!;
      let squares = 0;
      for (let i = 1; i <= p; i++) squares += u[i * q + p]! ** 2;
      means[c] = (u[0]! * u[p]!) / cases / scale + centre;
      sds[c] = Math.sqrt(squares / (cases - 1)) / scale;
      // b is centred and divided as the ladder says; β always by mean and SD
      shiftB[c] = coded[c] ? means[c]! : 0;
      unitB[c] = coded[c] && plan.z ? sds[c]! : 1;
    }
    for (let i = 0; i < m - 1; i++) {
      const numeric = moves.numeric[i]!;
      out[at++] = moved(moves, i, b, shiftB) * productOf(numeric, unitB);
      out[at++] = (moved(moves, i, b, means) * productOf(numeric, sds)) / sdY;
      out[at++] = partOf(moves, i, scratch, inverse, q, m, scaled, kept, total, plan.row) / rows.outcomeUnit;
    }
  }
  return true;
}

/** A coefficient once the components are centred elsewhere. */
function moved({ shares }: Recentring, column: number, b: Float64Array, shifts: Float64Array): number {
  let sum = 0;
  for (const { from, times, shifts: of } of shares[column]!) {
    let term = b[from]! * times;
    for (const c of of) term *= shifts[c]!;
    sum += term;
  }
  return sum;
}

function productOf(components: readonly number[], units: Float64Array): number {
  let product = 1;
  for (const c of components) product *= units[c]!;
  return product;
}

/** γ/(√(variance of γ without s²)·√TSS), γ in outcome units, the rest in scaled units. */
function partOf(
  { shares }: Recentring,
  column: number,
  { b, shiftB: shifts }: StepPlan["scratch"],
  inverse: Float64Array,
  q: number,
  m: number,
  scaled: readonly { readonly scale: number }[],
  kept: readonly number[],
  total: number,
  row: Float64Array,
): number {
  row.fill(0);
  let coefficient = 0;
  for (const { from, times, shifts: of } of shares[column]!) {
    let factor_ = times;
    for (const c of of) factor_ *= shifts[c]!;
    coefficient += b[from]! * factor_;
    const weight = factor_ * scaled[kept[from + 1]! - 1]!.scale;
    for (let k = from + 1; k < m; k++) row[k] = row[k]! + weight * inverse[(from + 1) * q + k]!;
  }
  let squares = 0;
  for (let k = 1; k < m; k++) squares += row[k]! * row[k]!;
  return coefficient / Math.sqrt(squares * total);
}

/** Cholesky in place, packed lower triangle. False when a pivot vanishes beside its diagonal. */
function factor(g: Float64Array, width: number): boolean {
  for (let a = 0; a < width; a++) {
    const ra = (a * (a + 1)) / 2;
    const diagonal = g[ra + a]!;
    for (let b = 0; b <= a; b++) {
      const rb = (b * (b + 1)) / 2;
      let sum = g[ra + b]!;
      for (let k = 0; k < b; k++) sum -= g[ra + k]! * g[rb + k]!;
      if (b < a) g[ra + b] = sum / g[rb + b]!;
      else if (!(sum > SINGULAR * diagonal)) return false;
      else g[ra + a] = Math.sqrt(sum);
    }
  }
  return true;
}

/**
 * The same figures from a fit of its own, for ladders that are not closed under centring, and for estimates.
 * @returns false when the resample cannot be fitted as the ladder was
 */
export function fittedFigures(models: LadderModels, out: Float64Array, columns: readonly (readonly string[])[]): boolean {
  const { steps } = ladderTables(models, { kind: "classical" });
  let at = 0;
  for (const [k, { model, change, coefficients }] of steps.entries()) {
    out[at++] = model.R2;
    out[at++] = model.adjustedR2;
    out[at++] = change.change;
    if (coefficients.length !== columns[k]!.length) return false;
    for (const [i, c] of coefficients.entries()) {
      if (c.column !== columns[k]![i] || c.beta === null) return false;
      out[at++] = c.b.estimate;
      out[at++] = c.beta.estimate;
      out[at++] = c.part;
    }
  }
  return true;
}

/** The identity of a resample that leaves nothing out, less one row's products: what remains without it. */
export function withoutUnit(products: Float64Array, unit: number, width: number, g: Float64Array): void {
  const size = packedLength(width);
  for (let a = 0, at = 0; a < width; a++) for (let b = 0; b <= a; b++, at++) g[at] = (a === b ? 1 : 0) - products[unit * size + at]!;
}
