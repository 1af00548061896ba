import fc from "fast-check";
import { cholesky, solveLower, solveLowerTransposed } from "./cholesky";
import { searchFrom, type Valley } from "./minimize";

/** From −1 to 1 in steps that no rounding blurs: ties are ties. */
const entry = fc.integer({ min: -64, max: 64 }).map((x) => x / 64);
const entries = (n: number) => fc.array(entry, { minLength: n, maxLength: n });
/** A bowl ½(x − c)ᵀA(x − c), A = MMᵀ + I/2. */
const bowls = fc.integer({ min: 1, max: 5 }).chain((k) =>
  fc.record({ m: entries(k * k), c: entries(k) }).map(({ m, c }) => {
    const a = new Float64Array(k * k);
    for (let i = 0; i < k; i++)
      for (let j = 0; j < k; j++) {
        a[i * k + j] = i === j ? 0.5 : 0;
        for (let l = 0; l < k; l++) a[i * k + j] = a[i * k + j]! + m[i * k + l]! * m[j * k + l]!;
      }
    return { k, a, c: Float64Array.from(c) };
  }),
);
type Bowl = { k: number; a: Float64Array; c: Float64Array };
const look = ({ k, a, c }: Bowl) => (at: Float64Array): Valley => {
  const gradient = new Float64Array(k);
  let value = 0;
  for (let i = 0; i < k; i++) {
    for (let j = 0; j < k; j++) gradient[i] = gradient[i]! + a[i * k + j]! * (at[j]! - c[j]!);
    value += (gradient[i]! * (at[i]! - c[i]!)) / 2;
  }
  return { value, gradient, hessian: a, safeHessian: a };
}; // prettier-ignore

/** The least place of a bowl above a bound, by trying which coordinates stand on it: the choice that neither a place nor a slope speaks against, but for rounding. */
function byTrying({ k, a, c }: Bowl, bound: number): Float64Array {
  let best = { at: new Float64Array(k), against: Infinity };
  for (let held = 0; held < 2 ** k; held++) {
    const free = Array.from({ length: k }, (_, i) => i).filter((i) => !(held & (1 << i)));
    const at = new Float64Array(k).fill(bound);
    const part = Float64Array.from(free.flatMap((i) => free.map((j) => a[i * k + j]!)));
    const right = free.map((i) => Array.from({ length: k }, (_, j) => a[i * k + j]! * (c[j]! - (held & (1 << j) ? bound : 0))).reduce((x, y) => x + y, 0)); // prettier-ignore
    const l = cholesky(part, free.length)!;
    solveLowerTransposed(l, solveLower(l, right, free.length), free.length).forEach((x, place) => (at[free[place]!] = x));
    const { gradient } = look({ k, a, c })(at);
    const against = Math.max(...Array.from(at, (x, i) => (free.includes(i) ? bound - x : -gradient[i]!)));
    if (against < best.against) best = { at, against };
  }
  expect(best.against).toBeLessThan(1e-12);
  return best.at;
}

test("law: the bottom of a bowl above a bound is the one that trying every set of held coordinates finds, to eleven digits", () =>
  fc.assert(
    fc.property(bowls, entries(5), entry, (bowl, start, bound) => {
      const found = searchFrom([Float64Array.from(start.slice(0, bowl.k))], bound, look(bowl));
      const wanted = byTrying(bowl, bound);
      expect(found.settled).toBe(true);
      found.at.forEach((x, i) => expect(Math.abs(x - wanted[i]!)).toBeLessThan(1e-11));
    }),
  ));

/** x⁴/4 − x²/2 + t·x in each coordinate: a valley near −1 and one near 1, tilted. */
const twoValleys = (t: number) => (at: Float64Array): Valley => {
  const k = at.length;
  const hessian = new Float64Array(k * k);
  const safeHessian = new Float64Array(k * k);
  let value = 0;
  at.forEach((x, i) => {
    value += x ** 4 / 4 - x ** 2 / 2 + t * x;
    hessian[i * k + i] = 3 * x ** 2 - 1;
    safeHessian[i * k + i] = 3 * x ** 2 + 0.1;
  });
  return { value, gradient: at.map((x) => x ** 3 - x + t), hessian, safeHessian };
}; // prettier-ignore

test("of two valleys the lower one is kept whatever start leads there; the other is counted as higher", () => {
  for (const starts of [
    [[1.1], [-1.1]],
    [[-1.1], [1.1]],
    [[0.9], [2], [-0.4]],
  ]) {
    const found = searchFrom(starts.map((one) => Float64Array.from(one)), -5, twoValleys(0.1)); // prettier-ignore
    const [x] = found.at;
    expect(x! ** 3 - x! + 0.1).toBeCloseTo(0, 13);
    expect(x!).toBeLessThan(-1);
    expect([found.starts, found.higher]).toEqual([starts.length, starts.filter(([s]) => s! > 0.2).length]);
  }
});

test("where starts part, further ones are tried; where they agree, none is", () => {
  let asked = 0;
  const further = () => {
    asked++;
    return [Float64Array.of(-1.3)];
  };
  expect(searchFrom([Float64Array.of(0.9), Float64Array.of(1.2)], -5, twoValleys(0.1), further).at[0]).toBeGreaterThan(0);
  expect(asked).toBe(0);
  const found = searchFrom([Float64Array.of(0.9), Float64Array.of(-0.9)], -5, twoValleys(0.1), further);
  expect([asked, found.starts]).toEqual([1, 3]);
});

test("from a place where the valley bends the wrong way it is left downhill, and a bottom is reached all the same", () => {
  const found = searchFrom([Float64Array.of(0.01, -0.02, 0.3)], -5, twoValleys(0.05));
  expect(found.settled).toBe(true);
  found.at.forEach((x) => expect(Math.abs(x ** 3 - x + 0.05)).toBeLessThan(1e-12));
});
