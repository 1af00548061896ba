import { standardDeviation } from "../describe/standard-deviation";
import { randomStream } from "../random/random-stream";
import { shuffle } from "../random/shuffle";
import type { Predictor } from "../regression/design-matrix";
import { fitLadder, type LadderSpec } from "../regression/ladder";
import { permutationP } from "../resampling/permutation-p";
import { groupDifferences } from "./differences";
import { type GroupFit, groupedStep, groupFits } from "./grouped-step";
import { alikeTest, crossedTest, pooledTest } from "./omnibus";
import { shuffledDifferences } from "./shuffled-labels";

const LEVELS = ["in person", "online", "blended"];
const term = (...components: string[]) => ({ components });
const TERMS = [term("hours"), term("support"), term("room"), term("hours", "support"), term("hours", "room")];

/** Respondents of three groups of different sizes whose slopes and noise differ. */
function respondents(n: number, seed: number, differ = 1): { variables: Map<string, Predictor>; labels: Int32Array } {
  const random = randomStream(seed);
  const labels = Int32Array.from({ length: n }, (_, i) => (i % 7 < 3 ? 0 : i % 7 < 5 ? 1 : 2));
  shuffle(labels, random);
  const hours = Float64Array.from({ length: n }, () => 4 + random.normal());
  const support = Float64Array.from(hours, (h) => 0.4 * h + random.normal());
  const room = Int32Array.from({ length: n }, () => random.below(3));
  const outcome = hours.map((h, i) => {
    const g = labels[i]! * differ;
    return (0.5 + 0.3 * g) * h + 0.2 * support[i]! + 0.1 * (h - 4) * support[i]! + 0.2 * room[i]! + (1 + 0.3 * g) * random.normal();
  });
  const variables = new Map<string, Predictor>([
    ["hours", hours],
    ["support", support],
    ["room", { levels: ["a", "b", "c"], codes: room }],
    ["outcome", outcome],
  ]);
  return { variables, labels };
}

const SPEC: Omit<LadderSpec, "steps"> = { outcome: "outcome", centring: "mean", confidence: 0.95 };
const fittedOf = (fits: ReturnType<typeof groupFits>) => fits as GroupFit[];
const coefficient = (fit: GroupFit, column: string) => fit.coefficients.find((c) => c.column === column)!.b;

describe.each(["mean", "z", "raw"] as const)("law: separate fits are the fully crossed single model (centring %s)", (centring) => {
  const { variables, labels } = respondents(260, 4);
  const step = groupedStep({ ...SPEC, centring }, TERMS, variables, labels, 3);
  const fits = fittedOf(groupFits(step));
  const crossed = fitLadder(
    { ...SPEC, centring, steps: [[term("format"), ...TERMS], TERMS.map(({ components }) => term("format", ...components))] },
    new Map([...variables, ["format", { levels: LEVELS, codes: labels }]]),
  );
  const [common, whole] = [crossed.steps[0]!, crossed.steps[1]!];
  const total = 259 * standardDeviation(variables.get("outcome") as Float64Array) ** 2;
  const b = (column: string) => whole.coefficients.find((c) => c.column === column)!.b.estimate;

  test("in b, not in SE", () => {
    for (const column of step.design.columns.map((c) => c.name)) {
      expect(coefficient(fits[0]!, column)!.estimate).toBeCloseTo(b(column), 9);
      expect(coefficient(fits[1]!, column)!.estimate).toBeCloseTo(b(column) + b(`format[online]*${column}`), 9);
      expect(coefficient(fits[2]!, column)!.estimate).toBeCloseTo(b(column) + b(`format[blended]*${column}`), 9);
    }
    expect(coefficient(fits[0]!, "hours*support")!.se! / whole.coefficients.find((c) => c.column === "hours*support")!.b.se!).toBeLessThan(
      0.95,
    );
  });

  test("in what its products with the group explain, each and together", () => {
    const pooled = pooledTest(step, fits, total)!;
    expect(pooled.F).toBeCloseTo(whole.change.F!, 9);
    expect(pooled.df).toEqual(whole.change.df);
    expect(pooled.p! / whole.change.p!).toBeCloseTo(1, 9);
    expect(pooled.dR2).toBeCloseTo(whole.model.R2 - common.model.R2, 12);
    for (const { components } of TERMS) {
      const name = components.join("*");
      const own = step.design.columns.filter((c) => c.term.components.join("*") === name).map((c) => c.name);
      const found = crossedTest(fits, own, total);
      const wanted = whole.terms.find((t) => t.term === `format*${name}`)!;
      expect(found.F! / wanted.F!).toBeCloseTo(1, 9);
      expect(found.df).toEqual(wanted.df);
    }
  });
});

test.each(["classical", "hc3"] as const)("law: of one slope, χ² is the weighted sum of squares about the weighted mean (%s)", (kind) => {
  const { variables, labels } = respondents(150, 9);
  const fits = fittedOf(groupFits(groupedStep({ ...SPEC, errors: { kind } }, TERMS, variables, labels, 3)));
  const slopes = fits.map((fit) => coefficient(fit, "support")!);
  const weight = slopes.map(({ se }) => 1 / se! ** 2);
  const sum = (of: (i: number) => number) => slopes.reduce((total, _, i) => total + of(i), 0);
  const mean = sum((i) => weight[i]! * slopes[i]!.estimate) / sum((i) => weight[i]!);
  const found = alikeTest(fits, ["support"]);
  expect(found.chi2).toBeCloseTo(sum((i) => weight[i]! * (slopes[i]!.estimate - mean) ** 2), 9); // prettier-ignore
  expect(found.df).toBe(2);
});

test("law: of two groups and one slope, χ² is z², whatever the units", () => {
  const { variables, labels } = respondents(150, 9);
  const two = labels.map((g) => Math.min(g, 1));
  const chi = (factor: number) => {
    const scaled = new Map(variables).set("support", (variables.get("support") as Float64Array).map((v) => v * factor)); // prettier-ignore
    const fits = fittedOf(groupFits(groupedStep(SPEC, TERMS.slice(0, 3), scaled, two, 2)));
    const [d] = groupDifferences(["support"], fits.map((fit) => (column) => coefficient(fit, column)), 0.95); // prettier-ignore
    expect(alikeTest(fits, ["support"]).chi2! / d!.z! ** 2).toBeCloseTo(1, 9);
    expect(alikeTest(fits, ["support"]).p! / d!.p!).toBeCloseTo(1, 8);
    return alikeTest(fits, ["hours", "support"]).chi2!;
  };
  for (const factor of [1e-150, 1e-6, 1e9, 1e150]) expect(chi(factor) / chi(1)).toBeCloseTo(1, 8);
});

describe("what a group cannot tell is told from nothing", () => {
  const { variables, labels } = respondents(150, 2);
  const support = variables.get("support") as Float64Array;
  const room = variables.get("room") as { levels: string[]; codes: Int32Array };

  test("a predictor that does not vary in one group leaves the others as they are", () => {
    const flat = support.map((v, i) => (labels[i] === 1 ? 3 : v));
    const step = groupedStep(SPEC, TERMS, new Map(variables).set("support", flat), labels, 3);
    const [one, two] = fittedOf(groupFits(step));
    expect(coefficient(two!, "support")).toBeNull();
    expect(two!.dropped[0]).toMatchObject({ column: "support", reason: "constant" });
    // with support at 3 for everyone, hours and its product with support are one
    expect(coefficient(two!, "hours")).toBeNull();
    expect(coefficient(two!, "room[b]")).not.toBeNull();
    expect(coefficient(one!, "support")).not.toBeNull();
    expect(alikeTest(groupFits(step), ["support"])).toMatchObject({ groups: [0, 2], df: 1 });
  });

  test("a level that nobody of a group has; a reference level that nobody has leaves nothing to compare with", () => {
    const without = (level: number) => ({
      ...room,
      codes: room.codes.map((c, i) => (labels[i] === 2 && c === level ? (level + 1) % 3 : c)),
    });
    const of = (level: number) => fittedOf(groupFits(groupedStep(SPEC, TERMS.slice(0, 3), new Map(variables).set("room", without(level)), labels, 3)))[2]!; // prettier-ignore
    expect(coefficient(of(1), "room[b]")).toBeNull();
    expect(coefficient(of(1), "room[c]")).not.toBeNull();
    expect(of(1).coefficients.find((c) => c.column === "room[c]")!.betaOwn).not.toBeNull();
    expect(coefficient(of(0), "room[b]")).toBeNull();
    expect(coefficient(of(0), "room[c]")).toBeNull();
    expect(of(0).coefficients.every((c) => c.b !== null || c.betaOwn === null)).toBe(true);
  });

  test("fewer respondents than predictors, or an outcome that does not vary: the group is refused, the others are not", () => {
    const few = labels.map((g, i) => (i < 5 ? 3 : g));
    const fits = groupFits(groupedStep(SPEC, TERMS, variables, few, 4));
    expect(fits[3]).toMatchObject({ cases: 5, error: { code: "too-few-cases" } });
    expect("fit" in fits[0]!).toBe(true);
    const flat = (variables.get("outcome") as Float64Array).map((v, i) => (labels[i] === 0 ? 1 : v));
    expect(groupFits(groupedStep(SPEC, TERMS, new Map(variables).set("outcome", flat), labels, 3))[0]).toMatchObject({ error: { code: "constant-outcome" } }); // prettier-ignore
    expect(alikeTest(fits, ["hours"]).groups).toEqual([0, 1, 2]);
  });
});

test("law: without a difference, the p of shuffled labels is uniform", () => {
  const p = Array.from({ length: 120 }, (_, seed) => {
    const { variables, labels } = respondents(70, 100 + seed, 0);
    const step = groupedStep(SPEC, [term("hours"), term("support")], variables, labels, 3);
    const [d] = shuffledDifferences(step, [0, 1], seed, { first: 0, count: 99 });
    return permutationP(d!.beyond, 99);
  });
  const share = (limit: number) => p.filter((one) => one <= limit).length / p.length;
  // 4.5 standard errors of a share
  for (const limit of [0.1, 0.3, 0.5, 0.7, 0.9]) expect(Math.abs(share(limit) - limit)).toBeLessThan(4.5 * Math.sqrt((limit * (1 - limit)) / 120)); // prettier-ignore
});
