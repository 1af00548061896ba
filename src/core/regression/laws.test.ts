import fc from "fast-check";
import { correlation } from "../describe/correlation";
import { ConstantOutcomeError, DuplicateTermError, NonFiniteValueError, TooFewCasesError, UnknownVariableError } from "../errors";
import { independentColumns, upperTriangle } from "../linear-algebra/householder";
import { invertUpper } from "../linear-algebra/triangular";
import { randomStream } from "../random/random-stream";
import { AugmentedSystem } from "./augmented-system";
import { fitLadder, type LadderFit, type LadderSpec } from "./ladder";
import { lowerOrderTerms, marginalityFaults } from "./marginality";
import type { Predictor } from "./design-matrix";
import { prepareDesign } from "./prepared-design";
import { leastSquares } from "./least-squares";
import { semiNormalSolution } from "./semi-normal-solution";
import { termName } from "./terms";

type Data = Map<string, Float64Array>;

/** Correlated predictors a, b, c and an outcome y with a true product a × b. */
function sample(seed: number, n = 40): Data {
  const random = randomStream(seed);
  const a = Float64Array.from({ length: n }, () => 3 + random.normal());
  const b = a.map((v) => 0.5 * v + random.normal());
  const c = Float64Array.from({ length: n }, () => 10 * random.normal());
  const y = a.map((v, i) => 1 + 0.6 * v - 0.4 * b[i]! + 0.03 * c[i]! + 0.3 * v * b[i]! + random.normal());
  return new Map([
    ["a", a],
    ["b", b],
    ["c", c],
    ["y", y],
  ]);
}

const spec = (...steps: string[][]): LadderSpec => ({
  outcome: "y",
  centring: "mean",
  confidence: 0.95,
  steps: steps.map((names) => names.map((name) => ({ components: name.split("*") }))),
});
const fullSpec = spec(["c"], ["a", "b"], ["a*b"]);
const mapped = (data: Data, name: string, change: (v: number) => number): Data =>
  new Map([...data].map(([k, v]) => [k, k === name ? v.map(change) : v]));
const coefficient = (fit: LadderFit, step: number, column: string) => fit.steps[step]!.coefficients.find((c) => c.column === column)!;
const seeds = fc.integer({ min: 1, max: 1e6 });
const close = (got: number, expected: number, scale = Math.abs(expected)) =>
  expect(Math.abs(got - expected)).toBeLessThan(1e-9 * Math.max(1e-3, scale));

test("the order of the respondents does not matter", () => {
  fc.assert(
    fc.property(seeds, (seed) => {
      const data = sample(seed);
      const [one, other] = [fitLadder(fullSpec, data), fitLadder(fullSpec, new Map([...data].map(([k, v]) => [k, v.slice().reverse()])))];
      for (const c of one.steps[2]!.coefficients) {
        close(coefficient(other, 2, c.column).b.estimate, c.b.estimate);
        close(coefficient(other, 2, c.column).beta!.p!, c.beta!.p!);
      }
    }),
    { numRuns: 20 },
  );
});

test("another unit and zero point of a predictor: b scales, β, t and R² stay", () => {
  fc.assert(
    fc.property(
      seeds,
      fc.double({ min: 0.01, max: 100, noNaN: true }),
      fc.double({ min: -1e4, max: 1e4, noNaN: true }),
      (seed, unit, shift) => {
        const data = sample(seed);
        const [one, other] = [
          fitLadder(fullSpec, data),
          fitLadder(
            fullSpec,
            mapped(data, "a", (v) => v * unit + shift),
          ),
        ];
        const [before, after] = [coefficient(one, 1, "a"), coefficient(other, 1, "a")];
        close(after.b.estimate * unit, before.b.estimate);
        close(after.beta!.estimate, before.beta!.estimate);
        close(after.b.t!, before.b.t!);
        one.steps.forEach((step, k) => close(other.steps[k]!.model.R2, step.model.R2));
      },
    ),
    { numRuns: 30 },
  );
});

test("the test of the highest-order product does not depend on centring; R² never does", () => {
  const data = sample(9);
  const [raw, centred, z] = (["raw", "mean", "z"] as const).map((centring) => fitLadder({ ...fullSpec, centring }, data));
  for (const other of [raw!, z!]) {
    close(coefficient(other, 2, "a*b").b.t!, coefficient(centred!, 2, "a*b").b.t!);
    close(other.steps[2]!.model.R2, centred!.steps[2]!.model.R2);
  }
  expect(Math.abs(coefficient(raw!, 2, "a").b.t! - coefficient(centred!, 2, "a").b.t!)).toBeGreaterThan(0.1); // lower-order tests do
});

test("the squared part correlation is the ΔR² of a term that enters last, and partial is what is left against what is left", () => {
  fc.assert(
    fc.property(seeds, (seed) => {
      const data = sample(seed);
      const last = fitLadder(spec(["a", "c"], ["b"]), data);
      const b = coefficient(last, 1, "b");
      close(b.part ** 2, last.steps[1]!.change.change);
      close(last.steps[1]!.change.F!, b.b.t! ** 2);
      close(last.steps[1]!.change.p!, b.b.p!);
      // Frisch and Waugh: the slope among the residuals on a and c is b; their correlation is the partial correlation
      const residuals = (outcome: string) =>
        leastSquares(
          prepareDesign(
            ["a", "c"].map((name) => ({ name, term: { components: [name] }, values: data.get(name)! })),
            { name: outcome, values: data.get(outcome)! },
          ),
          2,
        ).residuals;
      const [ry, rb] = [residuals("y"), residuals("b")];
      const slope = ry.reduce((s, v, i) => s + v * rb[i]!, 0) / rb.reduce((s, v) => s + v * v, 0);
      close(slope, b.b.estimate);
      close(correlation(rb, ry)!, b.partial);
      close(1 - b.tolerance, fitLadder({ ...spec(["a", "c"]), outcome: "b" }, data).steps[0]!.model.R2);
    }),
    { numRuns: 20 },
  );
});

test("R² rises from step to step by ΔR², and the F of the whole model comes from the sum of the rises", () => {
  fc.assert(
    fc.property(seeds, (seed) => {
      const { steps } = fitLadder(fullSpec, sample(seed));
      let sum = 0;
      for (const { model, change } of steps) {
        sum += change.change;
        expect(change.change).toBeGreaterThanOrEqual(0);
        close(model.R2, sum);
        close(model.F!, model.R2 / model.p / ((1 - model.R2) / model.dfResidual));
      }
    }),
    { numRuns: 20 },
  );
});

test("the short way of refining a solution ends at the digits of the long one; an ill-conditioned design takes the long one", () => {
  const solve = (columns: Float64Array[], y: Float64Array) => {
    const design = prepareDesign(
      columns.map((values, i) => ({ name: `x${i}`, values })),
      { name: "y", values: y },
    );
    const kept = independentColumns(design.factorization, columns.length + 1);
    const r = upperTriangle(design.factorization, kept);
    return {
      short: semiNormalSolution(design, kept, r, invertUpper(r, kept.length)),
      long: AugmentedSystem.solve(design, kept, r, columns.length + 1),
    };
  };
  fc.assert(
    fc.property(seeds, fc.constantFrom(0, 1e5), (seed, offset) => {
      const data = sample(seed);
      const { short, long } = solve(
        ["a", "b", "c"].map((name) => data.get(name)!.map((v) => v + offset)),
        data.get("y")!,
      );
      long.solution.forEach((b, i) => expect(Math.abs(short!.solution[i]![0] - b[0])).toBeLessThan(4e-16 * Math.max(1e-3, Math.abs(b[0]))));
      long.residual.hi.forEach((e, i) => expect(Math.abs(short!.residual.hi[i]! - e)).toBeLessThan(1e-16));
    }),
    { numRuns: 20 },
  );
  const a = sample(1).get("a")!;
  expect(
    solve(
      [a, a.map((v, i) => v + 1e-6 * Math.sin(i))],
      a.map((v, i) => v + Math.cos(i)),
    ).short,
  ).toBeNull();
});

test("with one predictor β is r", () => {
  const data = sample(4);
  const c = coefficient(fitLadder(spec(["a"]), data), 0, "a");
  close(c.beta!.estimate, correlation(data.get("a")!, data.get("y")!)!);
  close(c.beta!.estimate, c.zeroOrder!);
});

test("a square is a product of a variable with itself", () => {
  const data = sample(6);
  const squared = new Map([...data, ["q", data.get("c")!.map((v, _i, all) => (v - all.reduce((s, x) => s + x, 0) / all.length) ** 2)]]);
  close(
    coefficient(fitLadder(spec(["c", "c*c"]), data), 0, "c*c").b.estimate,
    coefficient(fitLadder(spec(["c", "q"]), squared), 0, "q").b.estimate,
  );
});

describe("marginality", () => {
  test("names each lower-order term a product lacks, unless it stands in the same or an earlier step", () => {
    const faults = marginalityFaults(spec(["a"], ["a*b", "b"], ["a*b*c"]).steps);
    expect(faults.map((f) => [f.step, f.product, termName(f.missing)])).toEqual([
      [3, "a*b*c", "c"],
      [3, "a*b*c", "a*c"],
      [3, "a*b*c", "b*c"],
    ]);
  });

  test("a main effect that comes only later is missing where the product stands", () => {
    expect(marginalityFaults(spec(["a", "b*a"], ["b"]).steps).map((f) => termName(f.missing))).toEqual(["b"]);
  });

  test("a three-way product has six lower-order terms, a square one", () => {
    expect(lowerOrderTerms({ components: ["a", "b", "c"] })).toHaveLength(6);
    expect(lowerOrderTerms({ components: ["a", "a"] }).map(termName)).toEqual(["a"]);
  });
});

describe("hostile input gets a typed error or a labelled result", () => {
  const tiny = (n: number): Data => new Map([...sample(2)].map(([k, v]) => [k, v.slice(0, n)]));

  test.each([0, 1, 2, 3])("%d cases for two predictors are too few", (n) => {
    expect(() => fitLadder(spec(["a", "b"]), tiny(n))).toThrow(TooFewCasesError);
  });

  test("p + 2 cases are enough for every number", () => {
    const { model, change } = fitLadder(spec(["a", "b"]), tiny(4)).steps[0]!;
    expect(model.dfResidual).toBe(1);
    for (const value of [model.F, change.p, model.BIC]) expect(Number.isFinite(value)).toBe(true);
    expect(model.AICc).toBeNull(); // its correction has no degrees of freedom left
  });

  test("a constant outcome, an infinite value, an unknown and a repeated term are refused by name", () => {
    const data = sample(2);
    expect(() =>
      fitLadder(
        spec(["a"]),
        mapped(data, "y", () => 3),
      ),
    ).toThrow(ConstantOutcomeError);
    expect(() =>
      fitLadder(
        spec(["a"]),
        mapped(data, "a", (v) => (v > 4 ? Infinity : v)),
      ),
    ).toThrow(NonFiniteValueError);
    expect(() => fitLadder(spec(["nobody"]), data)).toThrow(UnknownVariableError);
    expect(() => fitLadder(spec(["a*b"], ["b*a"]), data)).toThrow(DuplicateTermError);
  });

  test.each([1e-160, 1e160])("a predictor with an SD around %d has the same β and t", (unit) => {
    const data = sample(3);
    const [plain, extreme] = [data, mapped(data, "a", (v) => v * unit)].map((d) => coefficient(fitLadder(spec(["a", "b"]), d), 0, "a"));
    close(extreme!.beta!.estimate, plain!.beta!.estimate);
    close(extreme!.b.t!, plain!.b.t!);
  });

  test("a perfect fit is labelled and has no test", () => {
    const data = sample(3);
    const perfect = new Map([...data, ["y", data.get("a")!.map((v) => 2 * v + 1)]]);
    const step = fitLadder(spec(["a"]), perfect).steps[0]!;
    expect(step.notes).toEqual([{ code: "perfect-fit" }]);
    expect([step.model.R2, step.model.F, step.change.p, step.coefficients[0]!.b.t, step.model.AIC]).toEqual([1, null, null, null, null]);
    close(step.coefficients[0]!.b.estimate, 2);
  });

  test("a fit that is perfect but for the rounding of its data is labelled too, at any zero point", () => {
    // sin(u + v) = cos v · sin u + sin v · cos u: three waves of one length, one follows from the other two
    const wave = (shift: number, level: number) => Float64Array.from({ length: 40 }, (_, i) => level + 3 * Math.sin(i * 12.9898 + shift));
    for (const level of [0, 1e4, 1e8]) {
      const data = new Map([
        ["y", wave(0.7, level)],
        ["a", wave(0, level)],
        ["b", wave(2, 0)],
      ]);
      const step = fitLadder(spec(["a", "b"]), data).steps[0]!;
      expect(step.notes).toEqual([{ code: "perfect-fit" }]);
      expect(step.coefficients.map((c) => c.b.t)).toEqual([null, null]);
    }
  });

  test("a fit that is nearly perfect is tested", () => {
    const data = sample(3);
    const nearly = new Map([...data, ["y", data.get("a")!.map((v, i) => 2 * v + 1e-9 * data.get("c")![i]!)]]);
    const step = fitLadder(spec(["a"]), nearly).steps[0]!;
    expect(step.notes).toEqual([]);
    expect(step.coefficients[0]!.b.t!).toBeGreaterThan(1e7);
  });

  test("an empty step adds nothing and has no test; an empty first step is the mean", () => {
    const { steps } = fitLadder(spec([], ["a"], []), sample(3));
    expect(steps[0]!.model).toMatchObject({ p: 0, F: null, R2: 0 });
    expect(steps[2]!.change).toMatchObject({ change: 0, F: null, p: null, f2: null });
  });

  test("four hundred predictors are fitted without a number going missing", () => {
    const random = randomStream(8);
    const n = 450;
    const names = Array.from({ length: 400 }, (_, i) => `x${i}`);
    const data: Data = new Map([...names, "y"].map((name) => [name, Float64Array.from({ length: n }, () => random.normal())]));
    const { coefficients, model } = fitLadder(spec(names), data).steps[0]!;
    expect(coefficients).toHaveLength(400);
    expect(coefficients.every((c) => Number.isFinite(c.b.p) && c.tolerance > 0)).toBe(true);
    expect(model.dfResidual).toBe(49);
  });
});

test("law: what variables and levels are called changes no number, and no two columns share a key", () => {
  const n = 60;
  const noise = (seed: number) => Float64Array.from({ length: n }, (_, i) => (Math.sin((i + 1) * (seed + 3) * 12.9898) * 43758.5453) % 1);
  const [a, b, c] = [noise(1), noise(2), noise(3)];
  const y = Float64Array.from(a, (_, i) => a[i]! + 2 * b[i]! * c[i]! + 0.3 * noise(4)[i]!);
  const codes = Int32Array.from({ length: n }, (_, i) => i % 3);
  const fitUnder = (names: readonly string[], levels: readonly string[]) => {
    const [one, two, three, group, outcome] = names as [string, string, string, string, string];
    const terms = [[one], [two], [three], [group], [one, two], [two, three], [one, group]];
    const spec = { outcome, steps: [terms.map((components) => ({ components }))], centring: "mean" as const, confidence: 0.95 };
    const variables = new Map<string, Predictor>([[one, a], [two, b], [three, c], [group, { levels, codes }], [outcome, y]]); // prettier-ignore
    return fitLadder(spec, variables);
  };
  const plain = fitUnder(["a", "b", "c", "g", "y"], ["p", "q", "r"]);
  const numbers = (fit: typeof plain) =>
    fit.steps[0]!.coefficients.map(({ b: own, beta, part, tolerance }) => [own, beta, part, tolerance]);
  for (const [names, levels] of [
    [
      ["a", "b", "a*b", "a[q]", "(Intercept)"],
      ["q", "r]*b[q", "r"],
    ],
    [
      ["g[q]", "g", "g*g[q]", "[", "*"],
      ["]", "*", '"'],
    ],
    [
      ['"a"', "a", "a*", "*a", "é 😀"],
      ["1", "1]", "[1"],
    ],
    [
      ["(Intercept)", "1", "-", "ע", "__proto__"],
      ["constructor", "x*y", ""],
    ],
  ] as const) {
    const odd = fitUnder(names, levels);
    expect(numbers(odd)).toEqual(numbers(plain));
    const keys = odd.steps[0]!.coefficients.map((one) => one.column);
    expect(new Set(keys).size).toBe(keys.length);
    expect(keys.every((key) => odd.parts.get(key)!.every((part) => names.includes(part.variable as never)))).toBe(true);
  }
});
