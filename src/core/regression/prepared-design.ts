import { isSpreadOfRounding } from "../describe/constant";
import { exactMean, mean } from "../describe/mean";
import { ConstantOutcomeError, NonFiniteValueError, OutOfRangeError, TooFewCasesError } from "../errors";
import { type Factorization, factorize } from "../linear-algebra/householder";
import {
  add,
  type DoubleDouble,
  type ExactVector,
  multiply,
  scaleByPower,
  subtract,
  sumOfSquares,
  twoSum,
} from "../linear-algebra/double-double";

/** A centred column counts as a combination of earlier ones when, at unit length, less than this is left of it. */
const RANK_TOLERANCE = 1e-11;

/** One numeric column as the factorization sees it: (x − centre) · scale, scale a power of two, about unit length. */
export interface ScaledColumn {
  readonly name: string;
  readonly values: Float64Array;
  readonly centre: number;
  readonly scale: number;
  readonly constant: boolean;
  /** (x − centre) · scale with digits beyond a double's, of a column whose values have them; null: worked out on the way. */
  readonly exact: ExactVector | null;
  /** What one double cannot hold of the centre; 0 without `exact`, whose values alone know it. */
  readonly centreLow: number;
  /** Largest |x| as given, and largest distance from the centre. */
  readonly largest: number;
  readonly widest: number;
}

/** A column by its name, length n. */
export interface NamedColumn {
  readonly name: string;
  readonly values: Float64Array;
  /** What the rounding of each value took from it. */
  readonly low?: Float64Array | null;
  /**
   * How far a value may be off from the rounding of what it was computed from (0 for given data): what varies by no more is
   * constant, and what is left by no more is nothing.
   */
  readonly noise?: number;
}

/** The outcome and all columns of a ladder, factorized once; every step uses the leading columns. */
export interface PreparedDesign {
  readonly n: number;
  readonly outcome: ScaledColumn;
  /** (outcome − centre) · scale, exactly: high and low parts. */
  readonly yHigh: Float64Array;
  readonly yLow: Float64Array;
  /** Σ(y − ȳ)² in squared scaled units. */
  readonly total: DoubleDouble;
  /** Without the intercept, which is column 0 of the factorization. */
  readonly columns: readonly ScaledColumn[];
  readonly factorization: Factorization;
}

/**
 * Centres and scales the columns and factorizes [1, columns…].
 * @param columns finite values, length n each, in the order of the ladder
 * @param outcome finite values, length n
 * @throws TooFewCasesError (n < 2), NonFiniteValueError, ConstantOutcomeError, OutOfRangeError
 */
export function prepareDesign(columns: readonly NamedColumn[], outcome: NamedColumn): PreparedDesign {
  const n = outcome.values.length;
  if (n < 2) throw new TooFewCasesError({ cases: n, needed: 2, purpose: "A regression" });
  const y = scaled(outcome.name, outcome.values);
  if (y.constant) throw new ConstantOutcomeError({ outcome: outcome.name, cases: n });
  const x = columns.map((c) => scaled(c.name, c.values, c.noise, c.low));
  const width = x.length + 1;
  const packed = new Float64Array(n * width);
  packed.fill(1, 0, n);
  const limit = new Float64Array(width);
  x.forEach((column, j) => {
    let squares = 0;
    for (let i = 0; i < n; i++) {
      const v = column.exact ? column.exact.hi[i]! : (column.values[i]! - column.centre) * column.scale;
      packed[(j + 1) * n + i] = v;
      squares += v * v;
    }
    const noise = 8 * (columns[j]!.noise ?? 0) * column.scale * Math.sqrt(n);
    limit[j + 1] = column.constant ? Infinity : Math.max(RANK_TOLERANCE * Math.sqrt(squares), noise);
  });
  return { n, outcome: y, ...exactOutcome(y), columns: x, factorization: factorize(packed, n, width, limit) };
}

/** Column k of the factorization; null is the intercept's column of ones. */
export function columnAt(design: PreparedDesign, k: number): ScaledColumn | null {
  return k === 0 ? null : design.columns[k - 1]!;
}

function exactOutcome(y: ScaledColumn): Pick<PreparedDesign, "yHigh" | "yLow" | "total"> {
  const n = y.values.length;
  const yHigh = new Float64Array(n);
  const yLow = new Float64Array(n);
  let [sum, rest] = [0, 0];
  for (let i = 0; i < n; i++) {
    const value = y.values[i]!;
    const d = value - y.centre;
    const v = d - value;
    const high = d * y.scale;
    const low = (value - (d - v) - (y.centre + v)) * y.scale;
    yHigh[i] = high;
    yLow[i] = low;
    const s = sum + high;
    const t = s - sum;
    rest += sum - (s - t) + (high - t) + low;
    sum = s;
  }
  const drift = sum + rest; // the centre is the mean up to rounding; this takes out the rest
  return { yHigh, yLow, total: subtract(sumOfSquares(yHigh, yLow), [(drift * drift) / n, 0]) };
}

function scaled(name: string, values: Float64Array, noise = 0, low: Float64Array | null = null): ScaledColumn {
  let least = values[0]!;
  let most = least;
  for (let i = 0; i < values.length; i++) {
    const v = values[i]!;
    if (!Number.isFinite(v)) throw new NonFiniteValueError({ column: name, row: i + 1 });
    if (v < least) least = v;
    if (v > most) most = v;
  }
  const [centre, centreLow] = low ? add(exactMean(values), [mean(low), 0]) : [mean(values), 0];
  const widest = Math.max(most - centre, centre - least);
  const largest = Math.max(Math.abs(least), Math.abs(most));
  const constant = isSpreadOfRounding(least, most) || widest <= 8 * noise;
  const exponent = constant ? 0 : -Math.round(Math.log2(widest) + Math.log2(values.length) / 2);
  const scale = 2 ** exponent;
  if (!Number.isFinite(scale) || scale === 0 || !Number.isFinite(widest)) throw new OutOfRangeError({ column: name });
  const exact = low && !constant ? scaledExactly(values, low, [centre, centreLow], scale) : null;
  return { name, values, centre, scale, constant, exact, centreLow: exact ? centreLow : 0, largest, widest };
}

function scaledExactly(values: Float64Array, low: Float64Array, centre: DoubleDouble, scale: number): ExactVector {
  const n = values.length;
  const [hi, lo] = [new Float64Array(n), new Float64Array(n)];
  for (let i = 0; i < n; i++) [hi[i], lo[i]] = scaleByPower(subtract([values[i]!, low[i]!], centre), scale);
  return { hi, lo };
}

/** The raw intercept in outcome units: a/scale + centre − Σ slope · centre, without cancellation error. */
export function rawIntercept(design: PreparedDesign, a: DoubleDouble, slopes: readonly { j: number; b: DoubleDouble }[]): number {
  const { outcome } = design;
  let sum = twoSum(a[0] / outcome.scale, outcome.centre);
  sum = twoSum(sum[0], sum[1] + a[1] / outcome.scale);
  for (const { j, b } of slopes) {
    const column = design.columns[j]!;
    const shift = multiply(b, [column.centre, column.centreLow]);
    const factor = column.scale / outcome.scale;
    const [s, e] = twoSum(sum[0], -shift[0] * factor);
    sum = twoSum(s, e + sum[1] - shift[1] * factor);
  }
  return sum[0];
}
