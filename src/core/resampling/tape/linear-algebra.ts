import type { TapeWriter, Value } from "./tape";

/** A matrix on the tape: row, column → value. */
export type Matrix = (row: number, column: number) => Value;

/** Cholesky factor L of a positive definite matrix of which the lower triangle is given; not a number where it is singular. */
export function cholesky(t: TapeWriter, a: Matrix, width: number): Matrix {
  const l: Value[][] = [];
  for (let i = 0; i < width; i++) {
    l.push([]);
    for (let j = 0; j <= i; j++) {
      let sum = a(i, j);
      for (let k = 0; k < j; k++) sum = t.reduce(sum, l[i]![k]!, l[j]![k]!);
      l[i]!.push(j < i ? t.divide(sum, l[j]![j]!) : t.pivot(sum, a(i, i)));
    }
  }
  return (i, j) => l[i]![j]!;
}

/** Inverse of an upper triangle, itself upper: leading columns belong to the leading triangle. */
export function upperInverse(t: TapeWriter, u: Matrix, width: number): Matrix {
  const one = t.constant(1);
  const zero = t.constant(0);
  const inverse: Value[][] = Array.from({ length: width }, () => []);
  const diagonal = Array.from({ length: width }, (_, i) => t.divide(one, u(i, i)));
  for (let c = 0; c < width; c++) {
    inverse[c]![c] = diagonal[c]!;
    for (let r = c - 1; r >= 0; r--) {
      let sum = zero;
      for (let k = r + 1; k <= c; k++) sum = t.reduce(sum, u(r, k), inverse[k]![c]!);
      inverse[r]![c] = t.multiply(sum, diagonal[r]!);
    }
  }
  return (r, c) => inverse[r]![c]!;
}

/** Σ a(k) · b(k) over from ≤ k < to. */
export function dot(t: TapeWriter, from: number, to: number, a: (k: number) => Value, b: (k: number) => Value): Value {
  let sum = t.constant(0);
  for (let k = from; k < to; k++) sum = t.accumulate(sum, a(k), b(k));
  return sum;
}
