/**
 * Householder QR of a tall matrix held column by column in one flat array: A = Q·[R; 0].
 * A column whose residual length falls below the caller's limit gets no reflection: it is a combination of
 * the columns before it, keeps its R entries (which say of what combination), and is left out of every solve.
 * Source: Golub & Van Loan (2013), Matrix Computations, 4th ed., §5.2.
 */
export interface Factorization {
  readonly rows: number;
  readonly columns: number;
  /** Householder vectors below, R on and above the pivot rows; column-major, rows × columns. */
  readonly packed: Float64Array;
  /** 2 / vᵀv of the reflection of each column; 0 for a dependent column. */
  readonly reflection: Float64Array;
  /** Pivot row of each column; −1 for a dependent column. */
  readonly pivot: Int32Array;
  /** Head of the Householder vector at its pivot row (R's diagonal is stored in `packed`). */
  readonly head: Float64Array;
}

/**
 * @param a rows × columns, column-major; overwritten
 * @param limit residual length of a column below which it counts as dependent, one number a column
 */
export function factorize(a: Float64Array, rows: number, columns: number, limit: Float64Array): Factorization {
  const reflection = new Float64Array(columns);
  const head = new Float64Array(columns);
  const pivot = new Int32Array(columns).fill(-1);
  let rank = 0;
  for (let j = 0; j < columns; j++) {
    const at = j * rows;
    for (let k = 0; k < j; k++) {
      if (pivot[k]! >= 0) reflect(a, k * rows, pivot[k]!, head[k]!, reflection[k]!, a, at, rows);
    }
    let length = 0;
    for (let i = rank; i < rows; i++) length += a[at + i]! ** 2;
    length = Math.sqrt(length);
    if (rank >= rows || !(length > limit[j]!)) continue;
    const first = a[at + rank]!;
    const diagonal = first > 0 ? -length : length;
    head[j] = first - diagonal;
    reflection[j] = 1 / (length * (length + Math.abs(first)));
    a[at + rank] = diagonal;
    pivot[j] = rank++;
  }
  return { rows, columns, packed: a, reflection, pivot, head };
}

/**
 * Applies one reflection (vector below `row` of column `from`, with its head apart) to a vector inside `target`. Four sums and four
 * elements at a time: this is half the time of a fit, and one sum alone waits for each addition (bench/README.md).
 */
function reflect(
  packed: Float64Array,
  from: number,
  row: number,
  head: number,
  factor: number,
  target: Float64Array,
  at: number,
  rows: number,
): void {
  const v = packed.subarray(from + row + 1, from + rows);
  const t = target.subarray(at + row + 1, at + rows);
  const n = v.length;
  const whole = n - (n % 4);
  let [a, b, c, d] = [0, 0, 0, 0];
  for (let i = 0; i < whole; i += 4) {
    a += v[i]! * t[i]!;
    b += v[i + 1]! * t[i + 1]!;
    c += v[i + 2]! * t[i + 2]!;
    d += v[i + 3]! * t[i + 3]!;
  }
  for (let i = whole; i < n; i++) a += v[i]! * t[i]!;
  const dot = (head * target[at + row]! + (a + b + (c + d))) * factor;
  target[at + row]! -= dot * head;
  for (let i = 0; i < whole; i += 4) {
    t[i] = t[i]! - dot * v[i]!;
    t[i + 1] = t[i + 1]! - dot * v[i + 1]!;
    t[i + 2] = t[i + 2]! - dot * v[i + 2]!;
    t[i + 3] = t[i + 3]! - dot * v[i + 3]!;
  }
  for (let i = whole; i < n; i++) t[i] = t[i]! - dot * v[i]!;
}

/** v ← Qᵀv, with the reflections of the first `columns` columns. */
export function applyTransposed(f: Factorization, columns: number, v: Float64Array): void {
  for (let k = 0; k < columns; k++) {
    if (f.pivot[k]! >= 0) reflect(f.packed, k * f.rows, f.pivot[k]!, f.head[k]!, f.reflection[k]!, v, 0, f.rows);
  }
}

/** v ← Qv, with the reflections of the first `columns` columns. */
export function apply(f: Factorization, columns: number, v: Float64Array): void {
  for (let k = columns - 1; k >= 0; k--) {
    if (f.pivot[k]! >= 0) reflect(f.packed, k * f.rows, f.pivot[k]!, f.head[k]!, f.reflection[k]!, v, 0, f.rows);
  }
}

/** The independent ones among the first `columns` columns, in order; the q-th has pivot row q. */
export function independentColumns(f: Factorization, columns: number): number[] {
  const kept: number[] = [];
  for (let j = 0; j < columns; j++) if (f.pivot[j]! >= 0) kept.push(j);
  return kept;
}

/** R of the kept columns, q × q upper triangle, row-major (zero below the diagonal). */
export function upperTriangle(f: Factorization, kept: readonly number[]): Float64Array {
  const q = kept.length;
  const r = new Float64Array(q * q);
  for (let row = 0; row < q; row++) {
    for (let col = row; col < q; col++) r[row * q + col] = f.packed[kept[col]! * f.rows + row]!;
  }
  return r;
}
