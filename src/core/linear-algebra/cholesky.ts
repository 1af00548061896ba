/** A pivot below this share of its own diagonal entry means that nothing but rounding is left of it. */
const SINGULAR = 1e-10;

/**
 * The lower triangle L with L·Lᵀ = a, for small systems that are solved again and again.
 * @param a symmetric, q × q, row-major; only the lower triangle is read
 * @returns null when the matrix is singular to working precision: the caller has to say what is then not available
 */
export function cholesky(a: Float64Array, q: number): Float64Array | null {
  const l = choleskyOrPivot(a, q);
  return typeof l === "number" ? null : l;
}

/** The same; of a singular matrix the place, from 0, of the first row that the rows before it determine. */
export function choleskyOrPivot(a: Float64Array, q: number): Float64Array | number {
  const l = new Float64Array(q * q);
  for (let i = 0; i < q; i++) {
    for (let j = 0; j <= i; j++) {
      let sum = a[i * q + j]!;
      for (let k = 0; k < j; k++) sum -= l[i * q + k]! * l[j * q + k]!;
      if (i === j) {
        if (!(sum > SINGULAR * a[i * q + i]!)) return i;
        l[i * q + i] = Math.sqrt(sum);
      } else {
        l[i * q + j] = sum / l[j * q + j]!;
      }
    }
  }
  return l;
}

/** z with L·z = right; L lower, q × q, row-major. */
export function solveLower(l: Float64Array, right: ArrayLike<number>, q: number): Float64Array {
  const z = new Float64Array(q);
  for (let i = 0; i < q; i++) {
    let sum = right[i]!;
    for (let j = 0; j < i; j++) sum -= l[i * q + j]! * z[j]!;
    z[i] = sum / l[i * q + i]!;
  }
  return z;
}

/** x with Lᵀ·x = z. */
export function solveLowerTransposed(l: Float64Array, z: ArrayLike<number>, q: number): Float64Array {
  const x = new Float64Array(q);
  for (let i = q - 1; i >= 0; i--) {
    let sum = z[i]!;
    for (let j = i + 1; j < q; j++) sum -= l[j * q + i]! * x[j]!;
    x[i] = sum / l[i * q + i]!;
  }
  return x;
}

/** (L·Lᵀ)⁻¹, q × q, symmetric. */
export function inverseFromCholesky(l: Float64Array, q: number): Float64Array {
  const inverse = new Float64Array(q * q);
  const unit = new Float64Array(q);
  for (let col = 0; col < q; col++) {
    unit.fill(0);
    unit[col] = 1;
    const x = solveLowerTransposed(l, solveLower(l, unit, q), q);
    for (let i = 0; i <= col; i++) inverse[i * q + col] = inverse[col * q + i] = x[i]!;
  }
  return inverse;
}
