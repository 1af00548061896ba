import { OutOfRangeError, TooFewCasesError } from "../errors";
import { type DoubleDouble, scaleByPower, subtract, sumOfSquares } from "../linear-algebra/double-double";
import { independentColumns, upperTriangle } from "../linear-algebra/householder";
import { invertUpper, solveUpper } from "../linear-algebra/triangular";
import { AugmentedSystem } from "./augmented-system";
import { type PreparedDesign, rawIntercept } from "./prepared-design";
import { semiNormalSolution } from "./semi-normal-solution";

/** Sums of squares below this begin to lose digits in outcome units. */
const LEAST_SQUARE = 1e-290;

/** A column that takes no part in a fit, and why. */
export interface DroppedColumn {
  column: string;
  reason: "constant" | "combination";
  /** The earlier columns it is a combination of; empty for a constant. */
  combinationOf: string[];
}

/**
 * What further computations stand on: the design and the triangle R of the kept columns, in the design's centred and
 * scaled units. Position 0 is the intercept, position i ≥ 1 belongs to `columns[i − 1]` of the fit.
 */
export interface FitBasis {
  readonly design: PreparedDesign;
  /** How many columns of the design were offered to this fit. */
  readonly width: number;
  /** Columns of the factorization that carry a coefficient; 0 is the intercept, k ≥ 1 is column k − 1 of the design. */
  readonly kept: readonly number[];
  /** R and R⁻¹, q × q, row-major. */
  readonly triangle: Float64Array;
  readonly inverse: Float64Array;
  /** Coefficients in scaled units, length q. */
  readonly solution: Float64Array;
  /** For each dropped column: which one of the factorization, and its weights on the kept ones before it. */
  readonly dependent: readonly { readonly column: number; readonly weights: Float64Array }[];
}

/** A least-squares fit with intercept of the leading columns of a design. Positions refer to `columns`. */
export interface Fit {
  readonly basis: FitBasis;
  readonly outcome: string;
  readonly n: number;
  /** Names of the columns that carry a coefficient. */
  readonly columns: readonly string[];
  readonly dropped: readonly DroppedColumn[];
  readonly intercept: number;
  /** b per column, outcome units per unit of the column. */
  readonly slopes: Float64Array;
  readonly interceptError: number;
  /** Classical standard errors of the slopes. All 0 when the fit is perfect. */
  readonly slopeErrors: Float64Array;
  /** Part (semipartial) correlation per column, −1…1; its square is the ΔR² the column brings when entered last. */
  readonly part: Float64Array;
  /** 1 − R² of the column on the other columns, 0…1. */
  readonly tolerance: Float64Array;
  readonly dfResidual: number;
  readonly ssTotal: number;
  readonly ssResidual: number;
  readonly ssRegression: number;
  /** True when nothing but rounding is left to explain: no test is possible. */
  readonly perfect: boolean;
  /** Observed − predicted, outcome units, in the order of the sample. */
  readonly residuals: Float64Array;
  /** SSE and SST in scaled units and full precision, so that two fits of one design differ without cancellation. */
  readonly exact: { readonly residual: DoubleDouble; readonly total: DoubleDouble; readonly scale: number };
}

/**
 * Fits the first `width` columns: QR, then refinement that brings b to full double precision (semi-normal-solution.ts, or
 * augmented-system.ts for an ill-conditioned design).
 * @throws TooFewCasesError when no residual degree of freedom is left; OutOfRangeError when the outcome's squares leave double precision
 */
export function leastSquares(design: PreparedDesign, width: number): Fit {
  const { n, factorization, outcome } = design;
  const kept = independentColumns(factorization, width + 1);
  const q = kept.length;
  if (n - q < 1) throw new TooFewCasesError({ cases: n, needed: q + 1, purpose: `A model with ${q - 1} columns` });
  const r = upperTriangle(factorization, kept);
  const inverse = invertUpper(r, q);
  const refined = semiNormalSolution(design, kept, r, inverse) ?? AugmentedSystem.solve(design, kept, r, width + 1);
  const { residual: errors, solution } = refined;
  const residual = sumOfSquares(errors.hi, errors.lo);
  const { total } = design;
  const perfect = residual[0] <= n * (16 * Number.EPSILON * sizeOfParts(solution, design, kept)) ** 2;
  const unit = 1 / outcome.scale;
  const ssTotal = total[0] * unit * unit;
  if (!(ssTotal > LEAST_SQUARE && ssTotal < Infinity)) throw new OutOfRangeError({ column: outcome.name });
  const ssResidual = perfect ? 0 : residual[0] * unit * unit;
  const dfResidual = n - q;
  const s = perfect ? 0 : Math.sqrt(residual[0] / dfResidual); // in scaled outcome units

  const slopes = new Float64Array(q - 1);
  const slopeErrors = new Float64Array(q - 1);
  const part = new Float64Array(q - 1);
  const tolerance = new Float64Array(q - 1);
  const interceptRow = inverse.slice(0, q);
  const terms: { j: number; b: DoubleDouble }[] = [];
  for (let i = 1; i < q; i++) {
    const j = kept[i]! - 1;
    const column = design.columns[j]!;
    const row = inverse.subarray(i * q, i * q + q);
    const length = norm(row);
    const factor = column.scale * unit;
    slopes[i - 1] = solution[i]![0] * factor;
    slopeErrors[i - 1] = s * length * factor;
    part[i - 1] = solution[i]![0] / (length * Math.sqrt(total[0]));
    let squares = 0; // centred length² of the column: its R entries without the intercept's row
    for (let k = 1; k <= i; k++) squares += r[k * q + i]! ** 2;
    tolerance[i - 1] = Math.min(1, 1 / (length * length * squares));
    terms.push({ j, b: solution[i]! });
    const shift = column.centre * column.scale;
    for (let k = 0; k < q; k++) interceptRow[k]! -= shift * row[k]!;
  }
  const ssRegression = perfect ? ssTotal : subtract(total, residual)[0] * unit * unit;
  const dependent = dependentColumns(design, kept, r, width);
  return {
    basis: { design, width, kept, triangle: r, inverse, solution: Float64Array.from(solution, (b) => b[0]), dependent },
    outcome: outcome.name,
    n,
    columns: kept.slice(1).map((k) => design.columns[k - 1]!.name),
    dropped: dependent.map((d) => droppedColumn(design, kept, d)),
    intercept: rawIntercept(design, solution[0]!, terms),
    slopes,
    interceptError: s * norm(interceptRow) * unit,
    slopeErrors,
    part,
    tolerance,
    dfResidual,
    ssTotal,
    ssResidual,
    ssRegression: Math.max(0, ssRegression),
    perfect,
    residuals: errors.hi.map((e) => e * unit),
    exact: { residual, total, scale: outcome.scale },
  };
}

/**
 * How large the outcome and the parts it is predicted from are (these about their means: the fit has an intercept), in scaled outcome units: residuals of a few rounding errors
 * of that size mean that nothing is left to explain.
 */
function sizeOfParts(solution: readonly DoubleDouble[], design: PreparedDesign, kept: readonly number[]): number {
  const { outcome, columns } = design;
  return kept.slice(1).reduce((sum, k, i) => {
    const { widest, scale } = columns[k - 1]!;
    return sum + Math.abs(solution[i + 1]![0]) * widest * scale;
  }, outcome.largest * outcome.scale);
}

function norm(v: Float64Array): number {
  let squares = 0;
  for (const x of v) squares += x * x;
  return Math.sqrt(squares);
}

function dependentColumns(design: PreparedDesign, kept: readonly number[], r: Float64Array, width: number): FitBasis["dependent"] {
  const { factorization } = design;
  const q = kept.length;
  const found: { column: number; weights: Float64Array }[] = [];
  for (let column = 1; column <= width; column++) {
    if (factorization.pivot[column]! >= 0) continue;
    const head = kept.filter((c) => c < column).length;
    const triangle = new Float64Array(head * head);
    for (let i = 0; i < head; i++) for (let j = i; j < head; j++) triangle[i * head + j] = r[i * q + j]!;
    const entries = Float64Array.from({ length: head }, (_, i) => factorization.packed[column * factorization.rows + i]!);
    found.push({ column, weights: solveUpper(triangle, entries, head) });
  }
  return found;
}

function droppedColumn(design: PreparedDesign, kept: readonly number[], { column, weights }: FitBasis["dependent"][number]): DroppedColumn {
  const { name, constant } = design.columns[column - 1]!;
  if (constant) return { column: name, reason: "constant", combinationOf: [] };
  const named = kept.slice(1, weights.length).filter((_, i) => Math.abs(weights[i + 1]!) > 1e-8);
  return { column: name, reason: "combination", combinationOf: named.map((k) => design.columns[k - 1]!.name) };
}

/** Pearson's r of each column of a fit with the outcome, −1…1, from R and the coefficients: Xᵀy = Rᵀ(R·b). */
export function outcomeCorrelations({ basis, exact }: Fit): Float64Array {
  const { triangle, solution } = basis;
  const q = solution.length;
  const projected = new Float64Array(q);
  for (let i = 0; i < q; i++) for (let k = i; k < q; k++) projected[i] = projected[i]! + triangle[i * q + k]! * solution[k]!;
  return Float64Array.from({ length: q - 1 }, (_, column) => {
    let [along, squares] = [0, 0];
    for (let i = 1; i <= column + 1; i++) {
      const entry = triangle[i * q + column + 1]!;
      along += entry * projected[i]!;
      squares += entry * entry;
    }
    return Math.max(-1, Math.min(1, along / Math.sqrt(squares * exact.total[0])));
  });
}

/** SSE of `reduced` − SSE of `full` in squared outcome units, formed before anything is rounded. */
export function explainedBeyond(reduced: Fit, full: Fit): number {
  const difference = subtract(reduced.exact.residual, full.exact.residual);
  return Math.max(0, scaleByPower(difference, 1 / full.exact.scale)[0] / full.exact.scale);
}
