import { ladderModels } from "../regression/ladder";
import { populationOf } from "./population";
import { effectOf, expectedHalfWidth, powerOf } from "./power";
import { simulate, type Drawing } from "./simulate";

const LADDER = [[0], [1], [2], [3], [2, 3]];
const drawing = (own: Partial<Drawing> = {}): Drawing => ({ n: 300, skew: 0, missing: 0, alpha: 0.05, oneSided: false, seed: 1, ...own });

describe("a population of assumptions", () => {
  test.each([2, 3, 7])("what one of %d predictors does not share with the others is the textbook's", (p) => {
    for (const r of [0, 0.2, 0.6]) {
      const columns = Array.from({ length: p }, (_, k) => [k]);
      const { own } = populationOf({ columns, tested: 1, r, R2: 0.3, change: 0.02 })!;
      expect(own).toBeCloseTo(1 - (r * r * (p - 1)) / (1 + r * (p - 2)), 13);
    }
  });
  test("a product of two has variance 1 + r², and shares nothing with its parts", () => {
    for (const r of [0, 0.3, 0.7]) {
      const made = populationOf({ columns: LADDER, tested: 1, r, R2: 0.4, change: 0.03 })!;
      expect(made.own).toBeCloseTo(1 + r * r, 13);
      // what it explains is its coefficient squared times what it does not share
      expect(made.coefficients[4]! ** 2 * made.own).toBeCloseTo(0.03, 13);
    }
  });
  test("columns that say the same, or more explained than there is, make none", () => {
    expect(populationOf({ columns: [[0], [1], [0]], tested: 1, r: 0.3, R2: 0.3, change: 0.1 })).toBeNull();
    expect(populationOf({ columns: [[0], [1]], tested: 1, r: 0.3, R2: 0.1, change: 0.2 })).toBeNull();
    expect(populationOf({ columns: [[0], [1]], tested: 1, r: 0.3, R2: 1, change: 0.2 })).toBeNull();
  });
  test("a large sample of it has the R² and the ΔR² that were assumed", () => {
    const assumed = { columns: LADDER, tested: 2, r: 0.3, R2: 0.4, change: 0.1 };
    const { coefficients, residualSd } = populationOf(assumed)!;
    // drawn otherwise than the engine draws: by a plain recipe of its own
    let state = 7;
    const uniform = () => ((state = (Math.imul(state, 1103515245) + 12345) & 0x7fffffff) + 0.5) / 0x80000000;
    const normal = () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform());
    const n = 60_000;
    const x = LADDER.slice(0, 4).map(() => new Float64Array(n));
    const y = new Float64Array(n);
    for (let i = 0; i < n; i++) {
      const common = Math.sqrt(0.3) * normal();
      for (const values of x) values[i] = common + Math.sqrt(0.7) * normal();
      y[i] =
        residualSd * normal() + LADDER.reduce((sum, places, k) => sum + coefficients[k]! * places.reduce((of, p) => of * x[p]![i]!, 1), 0);
    }
    const name = (k: number) => `x${k}`;
    const terms = LADDER.map((places) => ({ components: places.map(name) }));
    const steps = [terms.slice(0, 3), terms.slice(3)];
    const { fits } = ladderModels({ outcome: "y", steps, confidence: 0.95, centring: "mean" }, new Map([...x.map((v, k) => [name(k), v] as const), ["y", y]])); // prettier-ignore
    const R2 = fits.map((fit) => fit.ssRegression / fit.ssTotal);
    expect(Math.abs(R2[1]! - 0.4)).toBeLessThan(0.012);
    expect(Math.abs(R2[1]! - R2[0]! - 0.1)).toBeLessThan(0.012);
  });
});

describe("simulated power", () => {
  const samples = 2000;
  const error = (p: number) => 3.5 * Math.sqrt((p * (1 - p)) / samples);
  test.each([
    ["one coefficient", 1, false],
    ["one coefficient in a direction", 1, true],
    ["two together", 2, false],
  ] as const)("of %s is the exact one within Monte Carlo error", (_, tested, oneSided) => {
    const population = populationOf({ columns: LADDER, tested, r: 0.3, R2: 0.3, change: 0.02 })!;
    const found = simulate(population, drawing({ oneSided }), { first: 0, count: samples });
    const exact = powerOf(300, effectOf(0.02, 0.3), { tested, columns: 5, alpha: 0.05, oneSided });
    // predictors that are drawn too cost a little beside what is conditional on them
    expect(Math.abs(found.held / samples - exact)).toBeLessThan(error(exact) + 0.01);
    expect(found.failed).toBe(0);
  });
  test("without an effect it is α, whatever is left is skewed", () => {
    for (const skew of [0, 1, 2] as const) {
      const population = populationOf({ columns: LADDER, tested: 1, r: 0.2, R2: 0.3, change: 0 })!;
      const found = simulate(population, drawing({ skew, n: 120, seed: 5 }), { first: 0, count: samples });
      expect(Math.abs(found.held / samples - 0.05)).toBeLessThan(error(0.05));
    }
  });
  test("missing answers leave as many as have them all; the interval is as wide as expected", () => {
    const population = populationOf({ columns: [[0], [1], [2]], tested: 1, r: 0.3, R2: 0.25, change: 0.03 })!;
    const found = simulate(population, drawing({ missing: 0.1, n: 400 }), { first: 0, count: 600 });
    const left = found.left / 600;
    expect(Math.abs(left - 400 * 0.9 ** 4)).toBeLessThan(2);
    const expected = expectedHalfWidth(Math.round(left), 3, { s: Math.sqrt(0.75), sd: 1, tolerance: population.own });
    expect(Math.abs(found.halfWidths / 600 / expected - 1)).toBeLessThan(0.02);
  });
  test("ranges add up, however they are dealt", () => {
    const population = populationOf({ columns: LADDER, tested: 1, r: 0.3, R2: 0.3, change: 0.02 })!;
    const of = (first: number, count: number) => simulate(population, drawing({ n: 80 }), { first, count });
    const [whole, a, b] = [of(0, 60), of(0, 17), of(17, 43)];
    expect(a.held + b.held).toBe(whole.held);
    expect(a.halfWidths + b.halfWidths).toBeCloseTo(whole.halfWidths, 9);
  });
  test("too few respondents are counted as such, not as failures of the hypothesis", () => {
    const population = populationOf({ columns: LADDER, tested: 1, r: 0.3, R2: 0.3, change: 0.02 })!;
    expect(simulate(population, drawing({ n: 6 }), { first: 0, count: 20 })).toMatchObject({ failed: 20, held: 0 });
  });
});
