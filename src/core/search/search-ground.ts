import { centredSumOfSquares } from "../describe/centred-sum-of-squares";
import { mean } from "../describe/mean";
import { leastSquares } from "../regression/least-squares";
import { orthonormalBasis } from "../regression/orthonormal-basis";
import { type NamedColumn, prepareDesign } from "../regression/prepared-design";

/** A column that keeps less than this of its length beside the controls is left out: they determine it. */
const NOTHING_LEFT = 1e-11;

/** A candidate: a number, or a category with its indicator columns. */
export interface SearchTerm {
  name: string;
  columns: NamedColumn[];
}

/** Everything a search works with: candidates and outcome beside the controls, as correlations of what these leave. */
export interface SearchGround {
  n: number;
  /** Columns of the controls that count, without the intercept. */
  controls: number;
  /** R² of the controls alone, and of the outcome: total and what the controls leave. */
  controlsR2: number;
  total: number;
  rest: number;
  /** Names of the columns that are searched, in the order given; q of them. */
  names: string[];
  /** Candidates with the places of their columns. */
  terms: { name: string; columns: number[] }[];
  /** Columns that the controls determine. */
  leftOut: string[];
  /** Correlations of what the controls leave of the columns, q × q, row-major. */
  G: Float64Array;
  /** The same with the outcome. */
  r: Float64Array;
  /** SD (n − 1) of what the controls leave. */
  outcomeSd: number;
  sds: Float64Array;
  /** What the controls leave of each column and of the outcome, at length 1; and an orthonormal basis of intercept and controls, column after column. */
  z: Float64Array[];
  y: Float64Array;
  basis: Float64Array;
  /** As given: for raw coefficients. */
  raw: { outcome: NamedColumn; controls: readonly NamedColumn[]; columns: NamedColumn[] };
}

/** What choosing works with: a whole ground, or that of some of its cases. */
export type Searchable = Pick<SearchGround, "n" | "controls" | "controlsR2" | "rest" | "names" | "terms" | "G" | "r">;

/**
 * @param controls always in, in the order given
 * @throws what a regression on the controls throws
 */
export function searchGround(controls: readonly NamedColumn[], candidates: readonly SearchTerm[], outcome: NamedColumn): SearchGround {
  const n = outcome.values.length;
  const fit = leastSquares(prepareDesign(controls, outcome), controls.length);
  const { design, kept } = fit.basis;
  const basis = orthonormalBasis(design).subarray(0, kept.length * n);
  const beside = (values: Float64Array) => residualOn(basis, kept.length, values);
  const own = beside(outcome.values);
  const total = centredSumOfSquares(outcome.values);
  const terms: SearchGround["terms"] = [];
  const [names, leftOut, z, lengths, columns] = [[] as string[], [] as string[], [] as Float64Array[], [] as number[], [] as NamedColumn[]];
  for (const term of candidates) {
    const places: number[] = [];
    for (const column of term.columns) {
      const left = beside(column.values);
      const whole = Math.sqrt(centredSumOfSquares(column.values));
      if (!(left.length > NOTHING_LEFT * whole) || whole === 0) {
        leftOut.push(column.name);
        continue;
      }
      places.push(names.length);
      names.push(column.name);
      z.push(left.values);
      lengths.push(left.length);
      columns.push(column);
    }
    terms.push({ name: term.name, columns: places });
  }
  const q = names.length;
  const G = new Float64Array(q * q);
  const r = new Float64Array(q);
  for (let a = 0; a < q; a++) {
    r[a] = dot(z[a]!, own.values);
    for (let b = 0; b < a; b++) G[a * q + b] = G[b * q + a] = dot(z[a]!, z[b]!);
    G[a * q + a] = 1;
  }
  const rest = own.length ** 2;
  return {
    n,
    controls: kept.length - 1,
    controlsR2: kept.length === 1 ? 0 : 1 - rest / total,
    total,
    rest,
    names,
    terms,
    leftOut,
    G,
    r,
    outcomeSd: own.length / Math.sqrt(n - 1),
    sds: Float64Array.from(lengths, (length) => length / Math.sqrt(n - 1)),
    z,
    y: own.values,
    basis,
    raw: { outcome, controls, columns },
  };
}

/** What a basis leaves of some values: at length 1, with the length it had. Taken out twice, so that nothing of it comes back by rounding. */
function residualOn(basis: Float64Array, width: number, values: Float64Array): { values: Float64Array; length: number } {
  const n = values.length;
  const centre = mean(values);
  const left = values.map((v) => v - centre);
  for (let round = 0; round < 2; round++) {
    for (let k = 0; k < width; k++) {
      const column = basis.subarray(k * n, (k + 1) * n);
      const along = dot(column, left);
      for (let i = 0; i < n; i++) left[i] = left[i]! - along * column[i]!;
    }
  }
  const length = Math.sqrt(dot(left, left));
  return { values: length === 0 ? left : left.map((v) => v / length), length };
}

/** Σ aᵢ·bᵢ, in eight sums: rounding of one does not carry on through all. */
export function dot(a: Float64Array, b: Float64Array): number {
  const sums = new Float64Array(8);
  const n = a.length;
  for (let i = 0; i < n; i++) sums[i & 7] = sums[i & 7]! + a[i]! * b[i]!;
  return sums[0]! + sums[1]! + (sums[2]! + sums[3]!) + (sums[4]! + sums[5]! + (sums[6]! + sums[7]!));
}

/** R² of the whole model, controls included, at some coefficients of the columns. */
export function pathR2({ G, r, controlsR2, names }: Searchable, beta: Float64Array): number {
  const q = names.length;
  let explained = 0;
  for (let a = 0; a < q; a++) {
    if (beta[a] === 0) continue;
    let along = 0;
    for (let b = 0; b < q; b++) along += G[a * q + b]! * beta[b]!;
    explained += beta[a]! * (2 * r[a]! - along);
  }
  return controlsR2 + (1 - controlsR2) * explained;
}

/** Adjusted for the controls' columns and those with a coefficient; null with no degree of freedom left. */
export function adjusted({ n, controls }: Searchable, R2: number, size: number): number | null {
  const df = n - 1 - controls - size;
  return df < 1 ? null : 1 - ((1 - R2) * (n - 1)) / df;
}

/** Raw coefficients by column: bⱼ = βⱼ·s_y/sⱼ; intercept and controls from the outcome without Σbⱼxⱼ, fitted on the controls. */
export function rawCoefficients(ground: SearchGround, beta: Float64Array): Record<string, number> {
  const { raw, names, outcomeSd, sds, n } = ground;
  const b = beta.map((value, j) => (value === 0 ? 0 : (value * outcomeSd) / sds[j]!));
  const left = raw.outcome.values.slice();
  b.forEach((weight, j) => {
    if (weight === 0) return;
    const { values } = raw.columns[j]!;
    for (let i = 0; i < n; i++) left[i] = left[i]! - weight * values[i]!;
  });
  const fit = leastSquares(prepareDesign(raw.controls, { name: raw.outcome.name, values: left }), raw.controls.length);
  const named: Record<string, number> = { "(Intercept)": fit.intercept };
  fit.columns.forEach((name, k) => (named[name] = fit.slopes[k]!));
  names.forEach((name, j) => b[j] !== 0 && (named[name] = b[j]!));
  return named;
}

/** Least squares on the controls and some of the columns. */
export function refitColumns(ground: SearchGround, names: readonly string[]) {
  const { controls, columns, outcome } = ground.raw;
  const own = [...controls, ...columns.filter((column) => names.includes(column.name))];
  const fit = leastSquares(prepareDesign(own, outcome), own.length);
  const R2 = fit.ssRegression / fit.ssTotal;
  const b: Record<string, number> = { "(Intercept)": fit.intercept };
  fit.columns.forEach((name, k) => (b[name] = fit.slopes[k]!));
  return { R2, adjR2: adjusted(ground, R2, fit.columns.length - ground.controls), b };
}
