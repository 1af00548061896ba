import fc from "fast-check";
import { expectClose } from "../test-support/made-up-data";
import { randomStream } from "../random/random-stream";
import { arrangeFactors } from "./arrange-factors";
import { communalities } from "./extraction";
import { factorScoreWeights } from "./factor-scores";
import { correlationsIfOblique, type FactorSolution, factorSolution } from "./factor-solution";
import { oblimin } from "./oblimin";
import { promax } from "./promax";
import { multiply, type Rotation, transposed } from "./rotation";
import { rotationStarts } from "./rotation-starts";
import { varimax } from "./varimax";

const ROTATIONS: [string, (l: Float64Array, k: number, m: number) => Rotation][] = [
  ["varimax", varimax],
  ["promax", promax],
  ["oblimin", oblimin],
];
const K = 12;

/** Loadings of K items, each mainly on one of m factors. */
const someLoadings = fc.record({ m: fc.integer({ min: 2, max: 4 }), seed: fc.nat(10_000) }).map(({ m, seed }) => {
  const random = randomStream(seed, 77);
  const l = Float64Array.from({ length: K * m }, (_, at) => (Math.floor(at / m) % m === at % m ? 0.7 : 0) + 0.12 * random.normal());
  return { m, l, turn: rotationStarts(m)[1 + (seed % 8)]! };
});

describe.each(ROTATIONS)("%s", (name, rotate) => {
  test("law: communalities and the correlations that the factors make stay as they were", () => {
    fc.assert(
      fc.property(someLoadings, ({ m, l }) => {
        const { pattern, correlations, settled } = rotate(l, K, m);
        expect(settled).toBe(true);
        const structure = correlations ? multiply(pattern, correlations, K, m, m) : pattern;
        const made = multiply(structure, transposed(pattern, K, m), K, m, K);
        const before = multiply(l, transposed(l, K, m), K, m, K);
        made.forEach((x, at) => expect(Math.abs(x - before[at]!)).toBeLessThan(1e-10));
        if (correlations) for (let c = 0; c < m; c++) expect(correlations[c * m + c]).toBeCloseTo(1, 12);
      }),
      { numRuns: 25 },
    );
  });

  test("law: how the loadings were turned before makes no difference", () => {
    fc.assert(
      fc.property(someLoadings, ({ m, l, turn }) => {
        const arranged = (loadings: Float64Array) => {
          const { pattern, correlations } = rotate(loadings, K, m);
          return arrangeFactors(pattern, correlations, K, m);
        };
        const [a, b] = [arranged(l), arranged(multiply(l, turn, K, m, m))];
        a.pattern.forEach((x, at) => expect(Math.abs(x - b.pattern[at]!)).toBeLessThan(name === "oblimin" ? 1e-6 : 1e-8));
      }),
      { numRuns: 25 },
    );
  });

  test("an item that no factor explains stays at 0", () => {
    const l = Float64Array.from([0.8, 0.1, 0.7, 0, 0, 0, 0.1, 0.6, -0.1, 0.7]);
    const { pattern } = rotate(l, 5, 2);
    expect([pattern[4], pattern[5]].map((x) => Math.abs(x!))).toEqual([0, 0]);
    expect(pattern.every(Number.isFinite)).toBe(true);
  });
});

test("varimax ends on a peak: no pair of factors can be turned to a higher variance", () => {
  const { pattern } = varimax(Float64Array.from([0.6, 0.5, 0.7, 0.4, 0.5, 0.6, 0.6, -0.4, 0.5, -0.5, 0.6, -0.6]), 6, 2);
  const h2 = communalities(pattern, 6, 2);
  const height = (angle: number) => {
    let sum = 0;
    for (const [c, s] of [
      [Math.cos(angle), Math.sin(angle)],
      [-Math.sin(angle), Math.cos(angle)],
    ] as const) {
      const squares = Array.from(h2, (h, i) => (c * pattern[2 * i]! + s * pattern[2 * i + 1]!) ** 2 / h);
      const mean = squares.reduce((a, b) => a + b, 0) / 6;
      sum += squares.reduce((a, b) => a + (b - mean) ** 2, 0);
    }
    return sum;
  };
  for (const angle of [0.001, 0.01, 0.2, 0.7, 1.2]) {
    expect(height(angle)).toBeLessThanOrEqual(height(0) + 1e-12);
    expect(height(-angle)).toBeLessThanOrEqual(height(0) + 1e-12);
  }
});

test("factors stand by what they explain, the largest loading of each positive; correlations follow the signs", () => {
  const { pattern, correlations, variance } = arrangeFactors(
    Float64Array.from([-0.3, 0.1, -0.2, 0.2, 0.1, 0.9, 0.2, 0.8]),
    Float64Array.from([1, 0.4, 0.4, 1]),
    4,
    2,
  );
  expect(Array.from(pattern)).toEqual([0.1, 0.3, 0.2, 0.2, 0.9, -0.1, 0.8, -0.2]);
  expect(Array.from(correlations!)).toEqual([1, -0.4, -0.4, 1]);
  expect(variance[0]).toBeGreaterThan(variance[1]!);
});

describe("factor scores", () => {
  const r = Float64Array.from({ length: 36 }, (_, at) => {
    const [i, j] = [Math.floor(at / 6), at % 6];
    return i === j ? 1 : Math.floor(i / 3) === Math.floor(j / 3) ? 0.5 + 0.03 * (i % 3) * (j % 3) : 0.2;
  });
  const matrix = { r, items: 6, n: 300 };
  const names = ["a", "b", "c", "d", "e", "f"];
  const solved = (rotation: FactorSolution["rotation"]) =>
    factorSolution(matrix, { extraction: "maximum-likelihood", rotation, factors: 2 }, names);

  test("law: Bartlett's scores take all of their factor and nothing of the others (W′P = I)", () => {
    const solution = solved("oblimin");
    const w = factorScoreWeights(solution, matrix, "bartlett", names);
    const product = multiply(transposed(w, 6, 2), solution.rotated.pattern, 2, 6, 2);
    [1, 0, 0, 1].forEach((want, at) => expect(Math.abs(product[at]! - want)).toBeLessThan(1e-12));
  });

  test("law: regression scores correlate with each item in the proportion of the structure (R·W = S)", () => {
    const solution = solved("promax");
    const w = factorScoreWeights(solution, matrix, "regression", names);
    multiply(r, w, 6, 6, 2).forEach((x, at) => expectClose(x, solution.structure[at]));
  });

  test("law: the order of the items makes no difference", () => {
    const order = [3, 5, 0, 2, 4, 1];
    const turned = { ...matrix, r: r.map((_, at) => r[order[Math.floor(at / 6)]! * 6 + order[at % 6]!]!) };
    const a = solved("oblimin");
    const b = factorSolution(turned, { extraction: "maximum-likelihood", rotation: "oblimin", factors: 2 }, names);
    const swapped = Math.abs(a.rotated.pattern[0]! - b.rotated.pattern[2 * 2]!) > 0.1 ? 1 : 0; // equally strong factors may change places
    order.forEach((from, to) => {
      for (let m = 0; m < 2; m++) expectClose(b.rotated.pattern[to * 2 + ((m + swapped) % 2)], a.rotated.pattern[from * 2 + m], 1e-5);
    });
  });

  test("items of which nothing is left unexplained have no Bartlett scores", () => {
    const solution = factorSolution(matrix, { extraction: "principal-components", rotation: "none", factors: 6 }, names);
    expect(() => factorScoreWeights(solution, matrix, "bartlett", names)).toThrow(expect.objectContaining({ code: "no-uniqueness" }));
  });
});

test("how factors would correlate if they were free is what oblimin makes of the same extraction", () => {
  const r = Float64Array.from({ length: 36 }, (_, at) => {
    const [i, j] = [Math.floor(at / 6), at % 6];
    return i === j ? 1 : Math.floor(i / 3) === Math.floor(j / 3) ? 0.55 : 0.25;
  });
  const solved = (rotation: FactorSolution["rotation"], factors: number) =>
    factorSolution({ r, items: 6, n: 200 }, { extraction: "principal-axis", rotation, factors }, []);
  expect(correlationsIfOblique(solved("varimax", 2))).toEqual(solved("oblimin", 2).rotated.correlations);
  expect(correlationsIfOblique(solved("varimax", 1))).toBeNull();
});
