import { correlationTest } from "../describe/correlation-tests";
import { randomStream } from "../random/random-stream";
import { betaDifference } from "../regression/beta-difference";
import { fitLadder, ladderModels } from "../regression/ladder";
import { standardDeviation } from "../describe/standard-deviation";
import { mean } from "../describe/mean";
import { correlationEvidence, everyOne, replicateEvidence } from "./evidence";
import { judge, normalTheory } from "./verdict";

const stream = randomStream(5);
const draw = (n: number) => Float64Array.from({ length: n }, () => stream.normal());

test.each([{ kind: "classical" as const }, { kind: "hc3" as const }])(
  "a difference of two β is the coefficient of the one beside their sum (%j)",
  (errors) => {
    const n = 90;
    const [a, b, c, e] = [draw(n), draw(n), draw(n), draw(n)];
    const x = a.map((v, i) => v + 0.5 * b[i]!);
    const y = x.map((v, i) => 0.6 * v + 0.2 * c[i]! + e[i]!);
    const z = (values: Float64Array) => values.map((v) => (v - mean(values)) / standardDeviation(values));
    const spec = {
      outcome: "y",
      steps: [[{ components: ["x"] }, { components: ["c"] }, { components: ["b"] }]],
      confidence: 0.9,
      centring: "mean" as const,
      errors,
    };
    const found = betaDifference(ladderModels(spec, new Map([["x", x], ["c", c], ["b", b], ["y", y]])), 0, "x", "b", errors)!; // prettier-ignore
    const [zx, zb] = [z(x), z(b)];
    const sum = zx.map((v, i) => v + zb[i]!);
    // β₁·z₁ + β₂·z₂ = (β₁ − β₂)·z₁ + β₂·(z₁ + z₂)
    const turned = fitLadder({ ...spec, steps: [[{ components: ["x"] }, { components: ["c"] }, { components: ["s"] }]] }, new Map([["x", zx], ["c", z(c)], ["s", sum], ["y", z(y)]])); // prettier-ignore
    const law = turned.steps[0]!.coefficients[0]!.b;
    expect(found.estimate).toBeCloseTo(law.estimate, 11);
    expect(found.se).toBeCloseTo(law.se!, 11);
    expect(found.lower).toBeCloseTo(law.lower!, 11);
    expect(found.p).toBeCloseTo(law.p!, 11);
  },
);

test("replicates turned round give the same evidence turned round", () => {
  const replicates = draw(999).map((v) => 0.8 + v);
  const [one, other] = [0.8, -0.8].map((estimate) => replicateEvidence(replicates.map((v) => v * Math.sign(estimate)), { estimate, acceleration: 0.05 * Math.sign(estimate) }, "bca")); // prettier-ignore
  expect(other!.twoSided).toBe(one!.twoSided);
  for (const value of [0, 0.3, 1.1]) expect(other!.below(-value)).toBe(one!.above(value));
  const [a, b] = [one!.interval(0.95), other!.interval(0.95)];
  expect(b.lower).toBeCloseTo(-a.upper, 12);
  expect(b.upper).toBeCloseTo(-a.lower, 12);
});

test("replicates that are all above a value leave the smallest p there is", () => {
  const replicates = Float64Array.from({ length: 999 }, (_, k) => 1 + k / 1000);
  const of = replicateEvidence(replicates, { estimate: 1.5, acceleration: 0 }, "percentile");
  expect(of.twoSided).toBe(2 / 1000);
  expect(of.above(0)).toBe(1 / 1000);
  expect(of.below(0)).toBe(1 - 1 / 1000);
  expect(of.above(3)).toBe(1 - 1 / 1000);
});

test("many replicates of a normal estimate judge as normal theory does", () => {
  const replicates = draw(40_000).map((v) => 0.25 + 0.1 * v);
  const drawn = replicateEvidence(replicates, { estimate: 0.25, acceleration: 0 }, "bca");
  const normal = normalTheory(0.25, 0.1, null)!;
  expect(Math.abs(drawn.twoSided - normal.twoSided)).toBeLessThan(0.002);
  for (const value of [-0.1, 0.1, 0.2]) expect(Math.abs(drawn.above(value) - normal.above(value))).toBeLessThan(0.01);
  expect(Math.abs(drawn.interval(0.9).lower - normal.interval(0.9).lower)).toBeLessThan(0.004);
});

test("of several at once the weakest decides: never more support than any of them alone, and one twice is itself", () => {
  const claim = { claim: "effect", direction: "+", delta: 0, alpha: 0.05, before: true } as const;
  for (const [first, second] of [[0.3, 0.02], [0.2, 0.3], [0.3, -0.3], [-0.2, -0.4]] as const) {
    const [a, b] = [normalTheory(first, 0.08, 60)!, normalTheory(second, 0.08, 60)!];
    const both = everyOne([a, b]);
    const supported = [both, a, b].map((one) => judge(one, claim).verdict === "supported");
    expect(supported[0]).toBe(supported[1]! && supported[2]!);
    expect(both.above(0)).toBe(Math.max(a.above(0), b.above(0)));
    const [whole, own] = [both.interval(0.9), a.interval(0.9)];
    expect(whole.lower).toBeLessThanOrEqual(own.lower);
    expect(whole.upper).toBeGreaterThanOrEqual(own.upper);
    expect(everyOne([a, a]).twoSided).toBeCloseTo(a.twoSided, 14);
  } // prettier-ignore
});

test("a correlation is tested as its table has it, on both sides, far in the tail too", () => {
  for (const [r, n] of [[0.31, 60], [-0.31, 60], [0.9, 400], [0, 12]] as const) {
    const found = correlationEvidence(r, n)!;
    const table = correlationTest(r, n, 0.9)!;
    expect(found.twoSided).toBe(table.p);
    expect(Math.min(found.above(0), found.below(0))).toBe(table.p! / 2);
    expect(found.interval(0.9)).toEqual({ lower: table.lower, upper: table.upper });
    expect(found.above(0.2) + found.below(0.2)).toBeCloseTo(1, 14);
  } // prettier-ignore
  expect(correlationEvidence(0.9, 400)!.above(0)).toBeLessThan(1e-140);
  expect(correlationEvidence(1, 50)).toBeNull();
  expect(correlationEvidence(0.5, 3)).toBeNull();
});
