/** Solves with an upper triangle R, q × q, row-major. All write their answer into a new array of length q. */

/** x with R·x = right. */
export function solveUpper(r: Float64Array, right: ArrayLike<number>, q: number): Float64Array {
  const x = new Float64Array(q);
  for (let i = q - 1; i >= 0; i--) {
    let sum = right[i]!;
    for (let j = i + 1; j < q; j++) sum -= r[i * q + j]! * x[j]!;
    x[i] = sum / r[i * q + i]!;
  }
  return x;
}

/** z with Rᵀ·z = right. */
export function solveUpperTransposed(r: Float64Array, right: ArrayLike<number>, q: number): Float64Array {
  const z = Float64Array.from({ length: q }, (_, i) => right[i]!);
  for (let i = 0; i < q; i++) {
    const value = z[i]! / r[i * q + i]!;
    z[i] = value;
    for (let j = i + 1; j < q; j++) z[j] = z[j]! - r[i * q + j]! * value; // along the row, as R lies in memory
  }
  return z;
}

/** R⁻¹, upper triangle, row-major. */
export function invertUpper(r: Float64Array, q: number): Float64Array {
  const inverse = new Float64Array(q * q);
  for (let col = 0; col < q; col++) {
    inverse[col * q + col] = 1 / r[col * q + col]!;
    for (let i = col - 1; i >= 0; i--) {
      let sum = 0;
      for (let k = i + 1; k <= col; k++) sum += r[i * q + k]! * inverse[k * q + col]!;
      inverse[i * q + col] = -sum / r[i * q + i]!;
    }
  }
  return inverse;
}
