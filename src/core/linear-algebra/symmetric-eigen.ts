/** Rounds of the QL iteration allowed for one eigenvalue; it takes two on average. */
const MOST_ROUNDS = 60;

/** Eigenvalues, largest first, and their vectors of length 1: vector j lies at `vectors[j·n … j·n + n − 1]`. */
export interface SymmetricEigen {
  values: Float64Array;
  vectors: Float64Array;
}

/**
 * Eigenvalues and eigenvectors of a symmetric matrix: reduction to three diagonals, then QL steps with implicit shifts.
 * The library's decomposition gives the same digits and takes twice as long (bench/README.md).
 * @param matrix n × n, row-major, finite; only its lower triangle counts
 * Source: Martin, Reinsch & Wilkinson (1968), Numerische Mathematik 11, 181–195; Dubrulle, Martin & Wilkinson (1968), 12, 377–383.
 */
export function symmetricEigen(matrix: Float64Array, n: number): SymmetricEigen {
  const a = matrix.slice();
  const diagonal = new Float64Array(n);
  const beside = new Float64Array(n);
  reduce(a, n, diagonal, beside, true);
  // vectors as rows, so that a rotation of two of them runs along memory
  const rows = new Float64Array(n * n);
  for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) rows[j * n + i] = a[i * n + j]!;
  iterate(diagonal, beside, n, rows);
  const order = Array.from({ length: n }, (_, i) => i).sort((i, j) => diagonal[j]! - diagonal[i]!);
  const vectors = new Float64Array(n * n);
  order.forEach((from, to) => vectors.set(rows.subarray(from * n, from * n + n), to * n));
  return { values: Float64Array.from(order, (i) => diagonal[i]!), vectors };
}

/** Eigenvalues alone, largest first: nine times as fast as the library, which always works out the vectors too. @param matrix as above */
export function symmetricEigenvalues(matrix: Float64Array, n: number): Float64Array {
  const diagonal = new Float64Array(n);
  const beside = new Float64Array(n);
  reduce(matrix.slice(), n, diagonal, beside, false);
  iterate(diagonal, beside, n, null);
  return diagonal.sort().reverse();
}

/** Householder reflections from the last row up; leaves their product in `a` when the vectors are wanted. */
function reduce(a: Float64Array, n: number, diagonal: Float64Array, beside: Float64Array, accumulate: boolean): void {
  for (let i = n - 1; i >= 1; i--) {
    const row = i * n;
    let [size, square] = [0, 0];
    for (let k = 0; k < i; k++) size += Math.abs(a[row + k]!);
    if (i === 1 || size === 0) {
      beside[i] = a[row + i - 1]!;
      diagonal[i] = 0;
      continue;
    }
    for (let k = 0; k < i; k++) {
      a[row + k] = a[row + k]! / size;
      square += a[row + k]! ** 2;
    }
    const last = a[row + i - 1]!;
    const length = last >= 0 ? -Math.sqrt(square) : Math.sqrt(square);
    beside[i] = size * length;
    square -= last * length;
    a[row + i - 1] = last - length;
    // matrix times reflector, both triangles from one pass along the rows
    beside.fill(0, 0, i);
    for (let j = 0; j < i; j++) {
      const here = a[row + j]!;
      let sum = a[j * n + j]! * here;
      for (let k = 0; k < j; k++) {
        const entry = a[j * n + k]!;
        sum += entry * a[row + k]!;
        beside[k] = beside[k]! + entry * here;
      }
      beside[j] = beside[j]! + sum;
    }
    let along = 0;
    for (let j = 0; j < i; j++) {
      if (accumulate) a[j * n + i] = a[row + j]! / square;
      beside[j] = beside[j]! / square;
      along += beside[j]! * a[row + j]!;
    }
    const half = along / (2 * square);
    for (let j = 0; j < i; j++) {
      const f = a[row + j]!;
      const g = (beside[j] = beside[j]! - half * f);
      for (let k = 0; k <= j; k++) a[j * n + k] = a[j * n + k]! - f * beside[k]! - g * a[row + k]!;
    }
    diagonal[i] = square;
  }
  diagonal[0] = beside[0] = 0;
  const along = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const row = i * n;
    if (accumulate && diagonal[i] !== 0) {
      along.fill(0, 0, i);
      for (let k = 0; k < i; k++) {
        const f = a[row + k]!;
        for (let j = 0; j < i; j++) along[j] = along[j]! + f * a[k * n + j]!;
      }
      for (let k = 0; k < i; k++) {
        const f = a[k * n + i]!;
        for (let j = 0; j < i; j++) a[k * n + j] = a[k * n + j]! - along[j]! * f;
      }
    }
    diagonal[i] = a[row + i]!;
    if (!accumulate) continue;
    a[row + i] = 1;
    for (let j = 0; j < i; j++) a[row + j] = a[j * n + i] = 0;
  }
}

/** QL steps until nothing is left beside the diagonal; `rows` holds the vectors and is turned along, unless null. */
function iterate(diagonal: Float64Array, beside: Float64Array, n: number, rows: Float64Array | null): void {
  for (let i = 1; i < n; i++) beside[i - 1] = beside[i]!;
  beside[n - 1] = 0;
  for (let l = 0; l < n; l++) {
    for (let round = 0; ; round++) {
      let m = l;
      while (m < n - 1 && Math.abs(beside[m]!) > Number.EPSILON * (Math.abs(diagonal[m]!) + Math.abs(diagonal[m + 1]!))) m++;
      if (m === l || round === MOST_ROUNDS) break;
      let g = (diagonal[l + 1]! - diagonal[l]!) / (2 * beside[l]!);
      const root = Math.sqrt(g * g + 1); // hypot would guard against sizes that correlations never have, at three times the cost
      g = diagonal[m]! - diagonal[l]! + beside[l]! / (g + (g >= 0 ? root : -root));
      let [sine, cosine, shift] = [1, 1, 0];
      let split = false;
      for (let i = m - 1; i >= l; i--) {
        const f = sine * beside[i]!;
        const b = cosine * beside[i]!;
        const r = Math.sqrt(f * f + g * g);
        beside[i + 1] = r;
        if (r === 0) {
          diagonal[i + 1] = diagonal[i + 1]! - shift;
          beside[m] = 0;
          split = true;
          break;
        }
        sine = f / r;
        cosine = g / r;
        g = diagonal[i + 1]! - shift;
        const turn = (diagonal[i]! - g) * sine + 2 * cosine * b;
        shift = sine * turn;
        diagonal[i + 1] = g + shift;
        g = cosine * turn - b;
        if (rows) rotateRows(rows, i * n, n, cosine, sine);
      }
      if (split) continue;
      diagonal[l] = diagonal[l]! - shift;
      beside[l] = g;
      beside[m] = 0;
    }
  }
}

function rotateRows(rows: Float64Array, at: number, n: number, cosine: number, sine: number): void {
  for (let k = at; k < at + n; k++) {
    const next = rows[k + n]!;
    rows[k + n] = sine * rows[k]! + cosine * next;
    rows[k] = cosine * rows[k]! - sine * next;
  }
}
