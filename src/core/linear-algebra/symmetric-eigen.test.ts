import { EigenvalueDecomposition, Matrix } from "ml-matrix";
import { randomStream } from "../random/random-stream";
import { symmetricEigen, symmetricEigenvalues } from "./symmetric-eigen";

function symmetric(n: number, seed: number, rank = n): Float64Array {
  const random = randomStream(seed, n);
  const half = Array.from({ length: n }, () => Array.from({ length: rank }, () => random.normal()));
  return Float64Array.from({ length: n * n }, (_, at) => half[Math.floor(at / n)]!.reduce((sum, x, j) => sum + x * half[at % n]![j]!, 0));
}

const CASES: [string, number, Float64Array][] = [
  ["one row", 1, Float64Array.of(-3)],
  ["two rows", 2, symmetric(2, 1)],
  ["26 rows", 26, symmetric(26, 2)],
  ["60 rows", 60, symmetric(60, 3)],
  ["30 rows of rank 4: equal eigenvalues of 0", 30, symmetric(30, 4, 4)],
  ["nothing but zeros", 5, new Float64Array(25)],
  ["diagonal already, with equal values", 4, Float64Array.from({ length: 16 }, (_, at) => (at % 5 === 0 ? 2 : 0))],
  ["three diagonals", 6, Float64Array.from({ length: 36 }, (_, at) => band(Math.floor(at / 6), at % 6))],
];
function band(i: number, j: number): number {
  return Math.abs(i - j) < 2 ? 1 + ((i + j) % 7) / 7 : 0;
}

describe.each(CASES)("%s", (_, n, a) => {
  const { values, vectors } = symmetricEigen(a, n);
  const size = Math.max(1, ...Array.from(values, Math.abs));

  test("A·v = λ·v, and the vectors are of length 1 and at right angles", () => {
    for (let j = 0; j < n; j++) {
      const v = vectors.subarray(j * n, j * n + n);
      for (let i = 0; i < n; i++) {
        const image = v.reduce((sum, x, l) => sum + a[i * n + l]! * x, 0);
        expect(Math.abs(image - values[j]! * v[i]!)).toBeLessThan(1e-12 * size);
      }
      for (let l = 0; l <= j; l++) {
        const product = v.reduce((sum, x, i) => sum + x * vectors[l * n + i]!, 0);
        expect(Math.abs(product - (l === j ? 1 : 0))).toBeLessThan(1e-13 * n);
      }
    }
  });

  test("the library's eigenvalues, largest first, with the vectors and without", () => {
    const library = new EigenvalueDecomposition(Matrix.from1DArray(n, n, a), { assumeSymmetric: true }).realEigenvalues.sort(
      (x, y) => y - x,
    );
    const alone = symmetricEigenvalues(a, n);
    library.forEach((value, j) => {
      expect(Math.abs(values[j]! - value)).toBeLessThan(1e-12 * size);
      expect(Math.abs(alone[j]! - value)).toBeLessThan(1e-12 * size);
    });
  });
});
