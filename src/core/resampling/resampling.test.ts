import Papa from "papaparse";
import { readFileSync } from "node:fs";
import fc from "fast-check";
import { randomStream } from "../random/random-stream";
import type { Predictor } from "../regression/design-matrix";
import type { HeldAt } from "../regression/design-point";
import { ladderModels, type LadderSpec } from "../regression/ladder";
import { drawCounts, seededState } from "./draw";
import type { EngineKind } from "./engine/choose-engine";
import { differencesOf, type Figure, figuresOf } from "./figures/figure";
import { fittedFigures } from "./figures/fitted-figures";
import { bcaLimits, percentileLimits, replicateP } from "./interval-limits";
import { acceleration, JackknifeMoments } from "./jackknife-moments";
import { ladderBootstrap } from "./ladder-bootstrap";
import { OrderStatistics } from "./order-statistics";
import { accelerationsOf, replicatesOf } from "./resampler";

const csv = (name: string) =>
  Papa.parse<string[]>(readFileSync(`reference/${name}.csv`, "utf8"), { delimiter: ",", skipEmptyLines: true }).data;
const columnsOf = (rows: string[][]) =>
  new Map(rows[0]!.map((name, i) => [name, Float64Array.from(rows.slice(1), (row) => Number(row[i]))]));

const accelerationOf = (values: Float64Array) => {
  const moments = new JackknifeMoments(values[0]!);
  moments.add(values, 0, values.length);
  return acceleration([moments]);
};
/** How often each unit stands in a replicate. */
function counted(units: number, seed: number, replicate: number, attempt = 0): Uint8Array {
  const [counts, state] = [new Uint8Array(units), new Int32Array(4)];
  seededState(seed, replicate, attempt, state);
  drawCounts(counts, state);
  return counts;
}

describe("limits from given replicates", () => {
  const { expected, spec } = JSON.parse(readFileSync("reference/fixed_replicates.json", "utf8"));
  const replicates = columnsOf(csv("fixed_replicates"));
  const jackknife = columnsOf(csv("fixed_replicates_jackknife"));
  test.each(Object.keys(expected.limits.values))("%s: percentile and BCa at every level, to 1e-9", (name) => {
    const values = replicates.get(name)!;
    const a = accelerationOf(jackknife.get(name)!);
    for (const [level, { percentile, bca }] of Object.entries<any>(expected.limits.values[name])) {
      if (level === "bootstrap_se") continue; // of the replicates: the limits do not use it
      const ours = percentileLimits(values, Number(level));
      const near = (value: number, wanted: number) => expect(Math.abs(value - wanted)).toBeLessThanOrEqual(1e-9 * Math.abs(wanted) + 1e-15);
      near(ours.lower, percentile.lower);
      near(ours.upper, percentile.upper);
      expect([ours.lowerClamped, ours.upperClamped]).toEqual([percentile.lower_clamped, percentile.upper_clamped]);
      near(a, bca.acceleration);
      const limits = bcaLimits(values, spec.estimates[name], a, Number(level));
      expect(limits !== null).toBe(bca.available);
      if (!limits) continue;
      near(limits.z0, bca.z0);
      near(limits.lower, bca.lower);
      near(limits.upper, bca.upper);
      expect([limits.lowerClamped, limits.upperClamped]).toEqual([bca.lower_clamped, bca.upper_clamped]);
    }
  });

  test("p of a difference counts the side that is rarer; ties with zero count on both", () => {
    const of = (...values: number[]) => replicateP(Float64Array.from(values));
    expect(of(1, 2, 3, 4)).toBe(2 / 5);
    expect(of(-1, 2, 3, 4, 5, 6, 7, 8, 9)).toBe(4 / 10);
    expect(of(0, 0, 0)).toBe(1);
  });
});

test.each([37, 70_000])("law: draws are those of the stream of (seed, replicate), of %d units", (units) => {
  const stream = randomStream(9, 4);
  const expected = new Uint8Array(units);
  for (let i = 0; i < units; i++) expected[stream.below(units)]!++;
  expect(counted(units, 9, 4)).toEqual(expected);
});

test("a replicate draws the same cases whatever was drawn before; a redraw draws others", () => {
  const counts = (seed: number, replicate: number, attempt: number) => Array.from(counted(50, seed, replicate, attempt));
  expect(counts(7, 3, 0)).toEqual(counts(7, 3, 0));
  expect(counts(7, 3, 0).reduce((s, c) => s + c)).toBe(50);
  const all = [counts(7, 3, 0), counts(7, 4, 0), counts(8, 3, 0), counts(7, 3, 1), counts(7, 3, 2)];
  expect(new Set(all.map(String)).size).toBe(all.length);
});

/** y on two numbers and a category, with products; `n` cases. */
function sample(n: number, seed = 1): Map<string, Predictor> {
  const random = randomStream(seed);
  const a = Float64Array.from({ length: n }, () => 5 + 2 * random.normal());
  const b = a.map((v) => 0.4 * v + random.normal());
  const codes = Int32Array.from({ length: n }, () => random.below(3));
  const y = a.map((v, i) => v + 0.5 * b[i]! + 0.2 * v * b[i]! + codes[i]! + 3 * random.normal());
  return new Map<string, Predictor>([
    ["y", y],
    ["a", a],
    ["b", b],
    ["g", { levels: ["p", "q", "r"], codes }],
  ]);
}
const spec = (over: Partial<LadderSpec>, ...steps: string[][]): LadderSpec => ({
  outcome: "y",
  centring: "mean",
  confidence: 0.95,
  steps: steps.map((names) => names.map((name) => ({ components: name.split("*") }))),
  ...over,
});
const CASES: [string, LadderSpec][] = [
  ["no product", spec({}, ["a"], ["b", "g"])],
  ["a product, mean-centred", spec({}, ["g"], ["a", "b"], ["a*b"])],
  ["a product, z-scored", spec({ centring: "z" }, ["a", "b"], ["a*b"])],
  ["a product, uncentred", spec({ centring: "raw" }, ["a", "b"], ["a*b"])],
  ["a square and a category's product", spec({}, ["a", "g", "b"], ["a*a"], ["a*g"])],
  ["three components, with all their parts", spec({}, ["a", "b", "g"], ["a*b", "a*g", "b*g"], ["a*b*g"])],
  ["columns of categories standardized", spec({ standardizeIndicators: true }, ["a", "g"], ["a*g"])],
  ["deviations", spec({ categories: new Map([["g", { coding: "deviation", reference: "q" }]]) }, ["a", "g"], ["a*g"])],
  ["a product without its part", spec({}, ["a"], ["a*b"])],
];

/** The cases of a sample as often as counted. */
const resample = (data: ReadonlyMap<string, Predictor>, counts: ArrayLike<number>) => {
  const cases = Array.from(counts).flatMap((times, i) => new Array<number>(times).fill(i));
  const taken = (v: Predictor): Predictor =>
    "codes" in v ? { levels: v.levels, codes: Int32Array.from(cases, (i) => v.codes[i]!) } : Float64Array.from(cases, (i) => v[i]!);
  return new Map([...data].map(([k, v]) => [k, taken(v)]));
};
/** Figures of a resample fitted as a sample of its own: means, SDs, centring and products are those of its rows. */
function refitted(
  of: LadderSpec,
  data: ReadonlyMap<string, Predictor>,
  counts: ArrayLike<number>,
  figures: readonly Figure[],
): Float64Array {
  const columns = ladderModels(of, data).fits.map((fit) => fit.columns);
  const out = new Float64Array(figures.length);
  expect(fittedFigures(ladderModels(of, resample(data, counts)), figures, columns, out)).toBe(true);
  return out;
}
const expectClose = (ours: ArrayLike<number>, theirs: ArrayLike<number>, digits = 1e-9) =>
  Array.from(ours).forEach((value, i) =>
    expect(Math.abs(value - theirs[i]!)).toBeLessThanOrEqual(digits * Math.max(1, Math.abs(theirs[i]!))),
  );
/** Replicate r of values that stand figure after figure. */
const replicate = (values: Float64Array, count: number, r: number) => values.filter((_, i) => i % count === r);

/** Everything a ladder can be asked for: also slopes where it has products, and predicted outcomes. */
function everyFigure(of: LadderSpec, data: ReadonlyMap<string, Predictor>): Figure[] {
  const models = ladderModels(of, data);
  const step = models.fits.length - 1;
  const names = models.fits[step]!.columns;
  const figures: Figure[] = [...figuresOf(models), ...differencesOf(models, step)];
  for (const at of [{ component: "b", unit: "sd", value: 1 } as const, { component: "b", unit: "raw", value: 3 } as const]) {
    if (names.includes("a") && names.some((name) => name.includes("*"))) figures.push({ kind: "slope", step, column: "a", at: [at] });
  }
  if (names.includes("g[q]") || names.includes("g[p]")) {
    for (const level of ["p", "q", "r"]) figures.push({ kind: "marginalMean", step, variable: "g", level });
    figures.push({ kind: "contrast", step, variable: "g", level: "r", minus: "p" });
  }
  if (names.includes("a") && names.includes("b")) {
    const [low, high] = [-1, 1].map((value): HeldAt[] => [{ component: "b", unit: "sd", value }]);
    const parts = [{ weight: 1, slope: "a", at: high! }, { weight: -1, slope: "a", at: low! }]; // prettier-ignore
    for (const per of [null, { column: "a" }, { column: null }]) figures.push({ kind: "combined", step, parts, per });
    const means = [{ weight: 0.75, slope: null, at: high! }, { weight: -0.25, slope: null, at: [...low!, { component: "a", unit: "raw" as const, value: 2 }] }]; // prettier-ignore
    figures.push({ kind: "combined", step, parts: means, per: null });
  }
  if (names.includes("a")) figures.push({ kind: "marginalMean", step, variable: "a", level: "low" });
  return figures;
}

describe.each(CASES)("%s", (_, of) => {
  const data = sample(60);
  const models = ladderModels(of, data);
  const figures = everyFigure(of, data);
  const boot = ladderBootstrap(models, { by: "cases" }, figures);

  test("law: the figures of all cases are those of the ladder", () => {
    expectClose(boot.estimates(), refitted(of, data, new Uint8Array(60).fill(1), figures));
  });

  test("law: a replicate is the ladder fitted anew on the cases it draws", () => {
    const { values, redrawn } = replicatesOf(boot, 11, { first: 0, count: 12 });
    expect(redrawn).toBe(0);
    for (let r = 0; r < 12; r++) expectClose(replicate(values, 12, r), refitted(of, data, counted(60, 11, r), figures));
  });

  test("law: the jackknife is the ladder fitted without each case, and gives the acceleration", () => {
    const out = new Float64Array(figures.length * 60);
    boot.leaveOut(0, 0, 60, out, 60, 0);
    for (const left of [0, 17, 59]) {
      const counts = Array.from({ length: 60 }, (__, i) => (i === left ? 0 : 1));
      expectClose(replicate(out, 60, left), refitted(of, data, counts, figures));
    }
    const estimates = boot.estimates();
    expectClose(accelerationsOf(boot, estimates).figures, figures.map((__, k) => accelerationOf(out.slice(k * 60, (k + 1) * 60))), 1e-7); // prettier-ignore
  });

  test("law: the plain path gives the numbers of the kernel", () => {
    const plain = ladderBootstrap(models, { by: "cases" }, figures, "plain");
    const ours = replicatesOf(boot, 3, { first: 5, count: 40 }).values;
    expectClose(replicatesOf(plain, 3, { first: 5, count: 40 }).values, ours, 1e-10);
    expectClose(accelerationsOf(plain, plain.estimates()).figures, accelerationsOf(boot, boot.estimates()).figures, 1e-10);
  });
});

const KINDS: [EngineKind][] = [["kernel"], ["plain"]];
test.each(KINDS)("law: replicates do not depend on how their ranges are dealt out (%s)", (kind) => {
  const boot = ladderBootstrap(ladderModels(CASES[1]![1], sample(40)), { by: "cases" }, undefined, kind);
  const whole = replicatesOf(boot, 5, { first: 0, count: 30 }).values;
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 1, max: 12 }), { minLength: 1, maxLength: 8 }), (cuts) => {
      let first = 0;
      for (const cut of [...cuts, 30]) {
        const count = Math.min(cut, 30 - first);
        if (count === 0) break;
        const { values } = replicatesOf(boot, 5, { first, count });
        for (let r = 0; r < count; r++) expect(replicate(values, count, r)).toEqual(replicate(whole, 30, first + r));
        first += count;
      }
    }),
    { numRuns: 15 },
  );
});

test.each(KINDS)("law: whole clusters are drawn, and left out one at a time (%s)", (kind) => {
  const data = sample(60);
  const of = CASES[1]![1];
  const codes = Int32Array.from({ length: 60 }, (_, i) => (i * 7) % 12);
  const models = ladderModels(of, data);
  const figures = figuresOf(models);
  const boot = ladderBootstrap(models, { by: "clusters", codes }, figures, kind);
  expect(boot.units).toBe(12);
  const order = [...new Set(codes)];
  const casesOf = (times: ArrayLike<number>) => Array.from(codes, (code) => times[order.indexOf(code)]!);
  const drawn = replicatesOf(boot, 3, { first: 0, count: 1 }).values;
  expectClose(drawn, refitted(of, data, casesOf(counted(12, 3, 0)), figures));
  const left = new Float64Array(figures.length);
  boot.leaveOut(0, 5, 1, left, 1, 0);
  expectClose(left, refitted(of, data, casesOf(order.map((_, c) => (c === 5 ? 0 : 1))), figures));
});

describe.each(KINDS)("within groups (%s)", (kind) => {
  const data = sample(60);
  const of = CASES[0]![1];
  const codes = Int32Array.from({ length: 60 }, (_, i) => [4, 0, 0, 2, 0][i % 5]!);
  const models = ladderModels(of, data);
  const figures = figuresOf(models);
  const boot = ladderBootstrap(models, { by: "within", codes }, figures, kind);
  const groups = [4, 0, 2].map((code) => Array.from(codes.keys()).filter((i) => codes[i] === code));

  test("law: each group keeps its size, and a replicate is the ladder fitted anew on what was drawn of each", () => {
    const state = new Int32Array(4);
    for (let r = 0; r < 5; r++) {
      seededState(8, r, 0, state);
      const counts = new Uint8Array(60);
      for (const cases of groups) {
        const own = new Uint8Array(cases.length);
        drawCounts(own, state); // one stream for all groups, one after the other
        own.forEach((times, i) => (counts[cases[i]!] = times));
        expect(own.reduce((sum, c) => sum + c)).toBe(cases.length);
      }
      expectClose(replicatesOf(boot, 8, { first: r, count: 1 }).values, refitted(of, data, counts, figures));
    }
  });

  test("law: the acceleration takes each group's own mean and size", () => {
    const values = figures.map(() => [] as number[][]);
    for (const cases of groups) {
      const without = cases.map((left) =>
        refitted(
          of,
          data,
          Array.from({ length: 60 }, (_, i) => (i === left ? 0 : 1)),
          figures,
        ),
      );
      values.forEach((all, k) => all.push(without.map((v) => v[k]!)));
    }
    const expected = values.map((all) => {
      let [squares, cubes] = [0, 0];
      for (const own of all) {
        const centre = own.reduce((sum, v) => sum + v, 0) / own.length;
        for (const v of own) {
          const u = (own.length - 1) * (centre - v);
          squares += u ** 2 / own.length ** 2;
          cubes += u ** 3 / own.length ** 3;
        }
      }
      return cubes / (6 * squares ** 1.5);
    });
    expectClose(accelerationsOf(boot, boot.estimates()).figures, expected, 1e-7);
  });
});

test.each(KINDS)("a resample in which a column vanishes is drawn again, and counted (%s)", (kind) => {
  const data = sample(30);
  const rare: Predictor = { levels: ["p", "q"], codes: Int32Array.from({ length: 30 }, (_, i) => (i === 4 ? 1 : 0)) };
  const models = ladderModels(spec({}, ["a", "rare"]), new Map([...data, ["rare", rare]]));
  const { values, redrawn } = replicatesOf(ladderBootstrap(models, { by: "cases" }, undefined, kind), 1, { first: 0, count: 200 });
  // the one respondent is not drawn in (29/30)³⁰ = 36 % of resamples
  expect(redrawn / (redrawn + 200)).toBeGreaterThan(0.28);
  expect(redrawn / (redrawn + 200)).toBeLessThan(0.45);
  expect(values.every(Number.isFinite)).toBe(true);
});

test("law: as many replicates as are said to be needed put both limits inside the outermost ones", () => {
  const random = randomStream(4);
  const values = (count: number) => Float64Array.from({ length: count }, () => random.normal());
  for (const confidence of [0.9, 0.95, 0.99, 0.999]) {
    const { needed } = percentileLimits(values(3), confidence);
    const enough = percentileLimits(values(needed), confidence);
    const tooFew = percentileLimits(values(needed - 1), confidence);
    expect([enough.lowerClamped, enough.upperClamped, tooFew.lowerClamped, tooFew.upperClamped]).toEqual([false, false, true, true]);
  }
});

test("law: any rank of any numbers is that of the sorted ones, ties, tails and runs included", () => {
  const random = randomStream(8);
  const kinds: ((i: number) => number)[] = [
    () => random.normal(),
    () => random.below(5),
    (i) => i,
    (i) => -i,
    (i) => (i % 97 === 0 ? -1e9 : random.uniform()),
  ];
  for (const count of [1, 2, 40, 3000]) {
    for (const kind of kinds) {
      const values = Float64Array.from({ length: count }, (_, i) => kind(i));
      const sorted = values.slice().sort();
      const of = new OrderStatistics(values);
      for (const rank of [1, 2, 25, 300, 1500, 2924, 2975, count - 1, count].filter((r) => r >= 1 && r <= count)) {
        expect(of.pairAt(rank)).toEqual([sorted[rank - 1], sorted[Math.min(count, rank + 1) - 1]]);
      }
    }
  }
});
