import { searchFrom, type Valley } from "./minimize";
import { randomStream } from "../random/random-stream";
import { cholesky, solveLower, solveLowerTransposed } from "./cholesky";
import { add, multiply, subtract, sumOfSquares, twoProduct, twoSum } from "./double-double";
import { apply, applyTransposed, factorize, independentColumns, upperTriangle } from "./householder";
import { invertUpper, solveUpper, solveUpperTransposed } from "./triangular";

test("sums and products lose nothing: what rounding cuts off stands in the low part", () => {
  expect(twoSum(1, 2 ** -80)).toEqual([1, 2 ** -80]);
  const a = 1 + 2 ** -30;
  expect(twoProduct(a, a)).toEqual([1 + 2 ** -29, 2 ** -60]); // (1 + e)² = 1 + 2e + e²
  expect(subtract(add([1e16, 0], [1, 0]), [1e16, 0])).toEqual([1, 0]);
  expect(multiply([3, 2 ** -60], [2, 0])).toEqual([6, 2 ** -59]);
});

test("a sum of squares in double-double keeps a small part beside a huge one", () => {
  const [hi, lo] = sumOfSquares(Float64Array.from([1e10, 1]), new Float64Array(2));
  expect(BigInt(hi) + BigInt(lo)).toBe(100000000000000000001n);
});

const random = randomStream(3);
const [rows, columns] = [12, 4];
const matrix = Float64Array.from({ length: rows * columns }, () => random.normal());
const limits = new Float64Array(columns).fill(1e-12);

test("QR: Qᵀ turns the matrix into R, Q takes it back, lengths stay", () => {
  const f = factorize(matrix.slice(), rows, columns, limits);
  const r = upperTriangle(f, independentColumns(f, columns));
  for (let j = 0; j < columns; j++) {
    const column = matrix.slice(j * rows, (j + 1) * rows);
    const turned = column.slice();
    applyTransposed(f, columns, turned);
    for (let i = 0; i < rows; i++) expect(turned[i]).toBeCloseTo(i <= j ? r[i * columns + j]! : 0, 12);
    apply(f, columns, turned);
    turned.forEach((v, i) => expect(v).toBeCloseTo(column[i]!, 12));
  }
});

test("a column that follows from those before it gets no pivot", () => {
  const dependent = matrix.slice();
  for (let i = 0; i < rows; i++) dependent[2 * rows + i] = 2 * matrix[i]! - matrix[rows + i]!;
  const f = factorize(dependent, rows, columns, new Float64Array(columns).fill(1e-11));
  expect(independentColumns(f, columns)).toEqual([0, 1, 3]);
});

test("triangular solves and inverse agree with multiplying back", () => {
  const f = factorize(matrix.slice(), rows, columns, limits);
  const r = upperTriangle(f, [0, 1, 2, 3]);
  const times = (m: Float64Array, x: Float64Array, transposed = false) =>
    Float64Array.from({ length: columns }, (_, i) =>
      x.reduce((sum, v, j) => sum + (transposed ? m[j * columns + i]! : m[i * columns + j]!) * v, 0),
    );
  const right = Float64Array.from([1, -2, 3, 0.5]);
  times(r, solveUpper(r, right, columns)).forEach((v, i) => expect(v).toBeCloseTo(right[i]!, 12));
  times(r, solveUpperTransposed(r, right, columns), true).forEach((v, i) => expect(v).toBeCloseTo(right[i]!, 12));
  times(invertUpper(r, columns), right).forEach((v, i) => expect(v).toBeCloseTo(solveUpper(r, right, columns)[i]!, 12));
});

test("Cholesky solves what multiplying makes, and says when a matrix is singular", () => {
  const q = 4;
  const gram = new Float64Array(q * q);
  for (let i = 0; i < q; i++) {
    for (let j = 0; j < q; j++) for (let r = 0; r < rows; r++) gram[i * q + j]! += matrix[i * rows + r]! * matrix[j * rows + r]!;
  }
  const l = cholesky(gram, q)!;
  const x = [1, -2, 0.5, 3];
  const right = Float64Array.from({ length: q }, (_, i) => x.reduce((sum, v, j) => sum + gram[i * q + j]! * v, 0));
  solveLowerTransposed(l, solveLower(l, right, q), q).forEach((v, i) => expect(v).toBeCloseTo(x[i]!, 10));
  expect(cholesky(Float64Array.of(1, 1, 1, 1 + 1e-12), 2)).toBeNull();
  expect(cholesky(Float64Array.of(1, 2, 2, 1), 2)).toBeNull(); // not positive
  expect(cholesky(new Float64Array(4), 2)).toBeNull();
});

test("a search from several places keeps the deepest valley it finds, and says how many ended higher", () => {
  // (x² − 1)² + 0.3x has valleys near −1 (the deeper) and 1; the second coordinate is held at its bound
  const look = (at: Float64Array): Valley => {
    const [x, z] = at as unknown as [number, number];
    const curve = 12 * x * x - 4;
    return {
      value: (x * x - 1) ** 2 + 0.3 * x + z,
      gradient: Float64Array.of(4 * x * (x * x - 1) + 0.3, 1),
      hessian: Float64Array.of(curve, 0, 0, 1),
      safeHessian: Float64Array.of(Math.abs(curve) + 1, 0, 0, 1),
    };
  };
  const found = searchFrom([Float64Array.of(0.9, 3), Float64Array.of(-1.8, 3), Float64Array.of(1.5, 0)], -2, look);
  expect(found).toMatchObject({ settled: true, starts: 3, higher: 2 });
  expect(found.at[0]).toBeCloseTo(-1.0355, 3);
  expect(found.at[1]).toBe(-2);
  // alone, a start tells of no other
  expect(searchFrom([Float64Array.of(0.9, 3)], -2, look)).toMatchObject({ starts: 1, higher: 0 });
});
