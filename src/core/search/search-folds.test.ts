import { seededFolds } from "../comparison/cross-validation";
import { randomStream } from "../random/random-stream";
import type { NamedColumn } from "../regression/prepared-design";
import { coefficientsOn } from "./explained";
import { bestBySize, betaOf, chosenPoint, termsOf, waysOn } from "./methods";
import { searchFolds } from "./search-folds";
import { rawCoefficients, refitColumns, type SearchGround, searchGround } from "./search-ground";
import { SEARCH_METHODS, type SearchMethod } from "./search-methods";
import { stability } from "./stability";
import { foldProducts, trainingGround, wholeProducts } from "./training-ground";

const N = 80;
const stream = randomStream(12);
const draw = (name: string, of: (i: number) => number = () => 0): NamedColumn => ({ name, values: Float64Array.from({ length: N }, (_, i) => stream.normal() + of(i)) }); // prettier-ignore
const control = draw("c");
const a = draw("a");
const columns = [a, draw("b", (i) => a.values[i]!), draw("d", (i) => control.values[i]!), draw("e"), draw("f")];
const outcome = draw("y", (i) => 3 + a.values[i]! - 0.6 * columns[2]!.values[i]! + 0.4 * columns[3]!.values[i]! + control.values[i]!);
const everyone = Array.from({ length: N }, (_, i) => i);
const on = ({ name, values }: NamedColumn, cases: readonly number[]) => ({ name, values: Float64Array.from(cases, (i) => values[i]!) });
/** Two of the columns are one term. */
const groundOf = (cases: readonly number[]) => {
  const [one, two, three, four, five] = columns.map((column) => on(column, cases)) as [NamedColumn, NamedColumn, NamedColumn, NamedColumn, NamedColumn]; // prettier-ignore
  const terms = [{ name: "a", columns: [one] }, { name: "bd", columns: [two, three] }, { name: "e", columns: [four] }, { name: "f", columns: [five] }]; // prettier-ignore
  return searchGround([on(control, cases)], terms, on(outcome, cases));
};
const LIMITS = { enter: 0.05, leave: 0.1, epsilon: 0.02, steps: 400 };
const ground = groundOf(everyone);

/** What a method's best point with at most so many columns predicts, found on some cases alone, in raw units. */
function predictions(method: SearchMethod, own: SearchGround, size: number): (i: number) => number {
  const points = bestBySize(own, method, waysOn(own, LIMITS)).filter((point) => point.places.length <= size);
  const best = points.reduce((x, y) => (y.R2 > x.R2 ? y : x));
  const b = rawCoefficients(own, betaOf(own, best));
  return (i) => [control, ...columns].reduce((sum, one) => sum + (b[one.name] ?? 0) * one.values[i]!, b["(Intercept)"]!);
}

test.each(SEARCH_METHODS)("law: held-out R² of %s by size is that of searches made anew on the training cases alone", (method) => {
  const folds = seededFolds(N, 5, 9);
  const found = searchFolds(ground, wholeProducts(ground), foldProducts(ground, folds), folds, LIMITS, 5)[method];
  for (const size of [0, 1, 3, 5]) {
    let [missed, total] = [0, 0];
    for (let f = 0; f < 5; f++) {
      const training = everyone.filter((i) => folds.of[i] !== f);
      const predicted = predictions(method, groundOf(training), size);
      const mean = training.reduce((sum, i) => sum + outcome.values[i]! / training.length, 0);
      for (const i of everyone.filter((one) => folds.of[one] === f)) {
        missed += (outcome.values[i]! - predicted(i)) ** 2;
        total += (outcome.values[i]! - mean) ** 2;
      }
    }
    expect(found[size]).toBeCloseTo(1 - missed / total, 9);
  }
});

test("least squares on some columns have the coefficients of a regression on them", () => {
  for (const places of [[0], [1, 2], [3, 0, 4], [0, 1, 2, 3, 4]]) {
    const raw = rawCoefficients(ground, coefficientsOn(ground, places));
    const fitted = refitColumns(ground, places.map((j) => ground.names[j]!)).b; // prettier-ignore
    for (const [name, b] of Object.entries(fitted)) expect(raw[name]).toBeCloseTo(b, 10);
  }
});

test.each([...SEARCH_METHODS])("law: %s on drawn respondents is the search among them, each as often as drawn", (method) => {
  const drawn = randomStream(5);
  const cases = everyone.map(() => drawn.below(N));
  const times = new Int32Array(N);
  for (const i of cases) times[i]!++;
  const [products] = foldProducts(ground, { of: new Int32Array(N), count: 1 }, times);
  const quick = trainingGround(ground, products!)!.ground;
  const slow = groundOf(cases);
  const terms = (of: typeof quick) => termsOf(of, chosenPoint(of, method, waysOn(of, LIMITS), { lambda: 0.1, size: null }).places);
  expect(terms(quick)).toEqual(terms(slow));
});

test("samples dealt out in ranges add up to those drawn at once, and what carries the outcome comes out most", () => {
  const folds = seededFolds(N, 5, 9);
  const choosing = { ...LIMITS, method: "lasso" as const, at: "minimum" as const, size: null };
  const draws = (first: number, count: number) => stability(ground, folds, choosing, { seed: 3, first, count }, ["a", "e"]);
  const [whole, one, two] = [draws(0, 30), draws(0, 11), draws(11, 19)];
  expect(Array.from(one.times, (t, k) => t + two.times[k]!)).toEqual([...whole.times]);
  expect([one.same + two.same, one.failed + two.failed]).toEqual([whole.same, whole.failed]);
  expect(whole.times[0]).toBe(Math.max(...whole.times));
  expect(whole.sizes.reduce((sum, count, size) => sum + count * size, 0)).toBe(whole.times.reduce((sum, t) => sum + t, 0));
});

test("a size set by hand is the best of at most so many columns; whole terms wait until they fit", () => {
  const ways = waysOn(ground, LIMITS);
  const at = (method: SearchMethod, size: number) => chosenPoint(ground, method, ways, { lambda: 0.2, size });
  for (const method of SEARCH_METHODS) {
    expect(at(method, 0).places).toEqual([]);
    for (const size of [1, 2, 3, 4]) {
      expect(at(method, size).places.length).toBeLessThanOrEqual(size);
      expect(at(method, size).R2).toBeGreaterThanOrEqual(at(method, size - 1).R2);
    }
  }
});
