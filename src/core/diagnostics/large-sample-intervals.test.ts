import { randomStream } from "../random/random-stream";
import type { ErrorChoice } from "../regression/covariance";
import { covariance } from "../regression/covariance";
import { changeInterval } from "../regression/change-interval";
import { ladderModels, type LadderSpec } from "../regression/ladder";
import { caseStatistics, dfbetasOfCase } from "./case-statistics";
import { notableCases } from "./notable-cases";
import { partIntervals } from "./part-intervals";

type Data = Map<string, Float64Array>;
const spec = (...steps: string[][]): LadderSpec => ({
  outcome: "y",
  centring: "mean",
  confidence: 0.95,
  steps: steps.map((names) => names.map((name) => ({ components: name.split("*") }))),
});

/** y = .5a + .3b + noise, a and b correlated .5; noise normal or, skewed, from a squared normal. */
function sample(seed: number, n: number, skewed = false): Data {
  const random = randomStream(seed);
  const a = Float64Array.from({ length: n }, () => random.normal());
  const b = a.map((v) => 0.5 * v + Math.sqrt(0.75) * random.normal());
  const noise = () => (skewed ? (random.normal() ** 2 - 1) / Math.SQRT2 : random.normal());
  const y = a.map((v, i) => 0.5 * v + 0.3 * b[i]! + noise());
  return new Map([
    ["a", a],
    ["b", b],
    ["y", y],
  ]);
}
const classical: ErrorChoice = { kind: "classical" };
const intervals = (data: Data, of: LadderSpec, choice: ErrorChoice = classical) => {
  const { fits, y } = ladderModels(of, data);
  const clusters = choice.kind === "cluster" ? choice.codes : null;
  return fits.map((fit, k) => {
    const found = covariance(fit, choice);
    if ("reason" in found) throw new Error(found.reason);
    return {
      change: changeInterval(fits[k - 1] ?? null, fit, y, found, 0.95, clusters),
      parts: partIntervals(fit, y, found, 0.95, clusters),
      R2: 1 - fit.ssResidual / fit.ssTotal,
    };
  });
};

test("normal data: R's standard error is (1 − ρ²)/√n", () => {
  const n = 40_000;
  const [only] = intervals(sample(3, n), spec(["a", "b"]));
  const half = (Math.sqrt(only!.change!.upper) - Math.sqrt(only!.change!.lower)) / 2;
  expect(half / 1.96).toBeCloseTo((1 - only!.R2) / Math.sqrt(n), 4); // Olkin & Finn (1995), from the normal distribution alone
  expect(half).toBeGreaterThan(0.003);
});

test("law: in a step of one column the squared limits of its part correlation are those of ΔR²", () => {
  const [, second] = intervals(sample(4, 150), spec(["a"], ["b"]));
  const { lower, upper } = second!.parts[1]!;
  expect(lower).toBeGreaterThan(0);
  expect(lower ** 2).toBeCloseTo(second!.change!.lower, 12);
  expect(upper ** 2).toBeCloseTo(second!.change!.upper, 12);
});

test("law: units of outcome and predictors do not matter", () => {
  const data = sample(5, 120);
  const scaled: Data = new Map([...data].map(([name, v], i) => [name, v.map((x) => x * 10 ** (3 * i - 2) + 7)]));
  const [one, other] = [intervals(data, spec(["a"], ["b"])), intervals(scaled, spec(["a"], ["b"]))];
  one.forEach((step, k) => {
    expect(other[k]!.change!.upper).toBeCloseTo(step.change!.upper, 9);
    step.parts.forEach((part, i) => expect(other[k]!.parts[i]!.lower).toBeCloseTo(part!.lower, 9));
  });
});

test("law: every case given twice, the two in a cluster, says no more than every case once", () => {
  const data = sample(6, 4000);
  const twice: Data = new Map([...data].map(([name, v]) => [name, Float64Array.from([...v, ...v])]));
  const codes = Int32Array.from({ length: 8000 }, (_, i) => i % 4000);
  const [once] = intervals(data, spec(["a", "b"]));
  const [doubled] = intervals(twice, spec(["a", "b"]), { kind: "cluster", codes });
  expect(doubled!.change!.lower).toBeCloseTo(once!.change!.lower, 5);
  expect(doubled!.parts[0]!.upper).toBeCloseTo(once!.parts[0]!.upper, 5);
  const [taken] = intervals(twice, spec(["a", "b"]));
  expect(doubled!.change!.upper - doubled!.change!.lower).toBeGreaterThan(1.3 * (taken!.change!.upper - taken!.change!.lower));
});

test("with skewed residuals the intervals hold what they should about as often as they say", () => {
  // of the population: a and b have variance 1 and covariance .5; what b adds is .3²·.75 of Var(y) = .25 + .09 + .15 + 1
  const truth = (0.09 * 0.75) / 1.49;
  const held = Array.from({ length: 400 }, (_, k) => intervals(sample(100 + k, 200, true), spec(["a"], ["b"]))[1]!);
  const share = (test: (one: (typeof held)[number]) => boolean) => held.filter(test).length / held.length;
  const ofChange = share(({ change }) => change !== null && change.lower <= truth && truth <= change.upper);
  const ofPart = share(({ parts }) => parts[1]!.lower <= Math.sqrt(truth) && Math.sqrt(truth) <= parts[1]!.upper);
  expect(ofChange).toBeGreaterThan(0.91);
  expect(ofChange).toBeLessThan(0.98);
  expect(ofPart).toBe(ofChange); // the same statement
});

test("a step that adds nothing, or leaves nothing, has no interval", () => {
  const data = sample(7, 60);
  const exact = new Map([...data, ["y", data.get("a")!.map((v) => 2 * v + 1)] as const]);
  expect(intervals(exact, spec(["a"]))[0]).toMatchObject({ change: null, parts: [null] });
  const empty = intervals(data, spec(["a"], []));
  expect(empty[1]!.change).toBeNull();
});

describe("cases to look at", () => {
  const fitOf = (data: Data) => {
    const { fits, y } = ladderModels(spec(["a", "b"]), data);
    return { fit: fits[0]!, y };
  };
  const changed = (data: Data, name: string, at: number, value: number): Data =>
    new Map([...data].map(([k, v]) => [k, k === name ? v.map((x, i) => (i === at ? value : x)) : v]));

  test("none in clean data; one far from its prediction; one that moves a coefficient, by name", () => {
    const data = sample(8, 200);
    expect(notableCases(fitOf(data).fit)).toEqual([]);
    const far = notableCases(fitOf(changed(data, "y", 17, 8)).fit);
    expect(far).toMatchObject([{ at: 17, why: "far" }]);
    const pulled = changed(changed(data, "a", 30, 12), "y", 30, -12);
    const moves = notableCases(fitOf(pulled).fit);
    expect(moves[0]).toMatchObject({ at: 30, why: "moves", moves: { column: "a" } });
  });

  test("law: one case's D and DFBETAS are those of the table of all", () => {
    const { fit, y } = fitOf(changed(changed(sample(9, 50), "a", 3, 9), "y", 3, -9));
    const [found] = notableCases(fit);
    const all = caseStatistics(fit, y);
    expect(found!.cooksD).toBeCloseTo(all.cooksD[3]!, 12);
    expect(found!.residual).toBeCloseTo(all.deletedStudentized[3]!, 12);
    const s = Math.sqrt(fit.ssResidual / fit.dfResidual);
    const without = s * Math.sqrt((fit.dfResidual - all.studentized[3]! ** 2) / (fit.dfResidual - 1));
    const own = dfbetasOfCase(fit, 3, fit.residuals[3]! / (1 - all.leverage[3]!), without);
    own.forEach(({ errors }, i) => expect(errors).toBeCloseTo(all.dfbetas[i]!.values[3]!, 12));
  });
});
