import Papa from "papaparse";
import { readFileSync } from "node:fs";
import fc from "fast-check";
import { randomStream } from "../random/random-stream";
import type { Predictor } from "../regression/design-matrix";
import { ladderModels, type LadderSpec } from "../regression/ladder";
import { drawCounts } from "./draw";
import { bcaLimits, jackknifeAcceleration, percentileLimits, replicateP } from "./interval-limits";
import { LadderBootstrap } from "./ladder-bootstrap";
import { fittedFigures } from "./ladder-figures";

const csv = (name: string) =>
  Papa.parse<string[]>(readFileSync(`reference/${name}.csv`, "utf8"), { delimiter: ",", skipEmptyLines: true }).data;
const columnsOf = (rows: string[][]) =>
  new Map(rows[0]!.map((name, i) => [name, Float64Array.from(rows.slice(1), (row) => Number(row[i]))]));

describe("limits from given replicates", () => {
  const { expected, spec } = JSON.parse(readFileSync("reference/fixed_replicates.json", "utf8"));
  const replicates = columnsOf(csv("fixed_replicates"));
  const jackknife = columnsOf(csv("fixed_replicates_jackknife"));
  test.each(Object.keys(expected.limits.values))("%s: percentile and BCa at every level, to 1e-9", (name) => {
    const sorted = replicates.get(name)!.slice().sort();
    const a = jackknifeAcceleration(jackknife.get(name)!);
    for (const [level, { percentile, bca }] of Object.entries<any>(expected.limits.values[name])) {
      if (level === "bootstrap_se") continue; // of the replicates: the limits do not use it
      const ours = percentileLimits(sorted, Number(level));
      const near = (value: number, wanted: number) => expect(Math.abs(value - wanted)).toBeLessThanOrEqual(1e-9 * Math.abs(wanted) + 1e-15);
      near(ours.lower, percentile.lower);
      near(ours.upper, percentile.upper);
      expect([ours.lowerClamped, ours.upperClamped]).toEqual([percentile.lower_clamped, percentile.upper_clamped]);
      near(a, bca.acceleration);
      const limits = bcaLimits(sorted, spec.estimates[name], a, Number(level));
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

test("law: draws are those of the stream of (seed, replicate)", () => {
  const counts = new Int32Array(37);
  drawCounts(counts, 9, 4, 0);
  const stream = randomStream(9, 4);
  const expected = new Int32Array(37);
  for (let i = 0; i < 37; i++) expected[stream.below(37)]!++;
  expect(counts).toEqual(expected);
});

test("a replicate draws the same cases whatever was drawn before; a redraw draws others", () => {
  const counts = (seed: number, replicate: number, attempt: number) => {
    const of = new Int32Array(50);
    drawCounts(of, seed, replicate, attempt);
    return Array.from(of);
  };
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

describe.each(CASES)("%s", (_, of) => {
  const data = sample(60);
  const models = ladderModels(of, data);
  const boot = new LadderBootstrap(models, null);
  const columns = models.fits.map((fit) => fit.columns);
  /** A resample fitted as a sample of its own: means, SDs, centring and products are those of its rows. */
  const refit = (counts: ArrayLike<number>): Float64Array => {
    const cases = Array.from(counts).flatMap((times, i) => new Array<number>(times).fill(i));
    const taken = (v: Predictor): Predictor =>
      "codes" in v ? { levels: v.levels, codes: Int32Array.from(cases, (i) => v.codes[i]!) } : Float64Array.from(cases, (i) => v[i]!);
    const out = new Float64Array(boot.figures.length);
    expect(fittedFigures(ladderModels(of, new Map([...data].map(([k, v]) => [k, taken(v)]))), out, columns)).toBe(true);
    return out;
  };
  const expectClose = (ours: Float64Array, theirs: Float64Array) =>
    ours.forEach((value, i) => expect(Math.abs(value - theirs[i]!)).toBeLessThanOrEqual(1e-9 * Math.max(1, Math.abs(theirs[i]!))));

  test("law: a replicate is the ladder fitted anew on the cases it draws", () => {
    const { values, redrawn } = boot.replicates(11, { first: 0, count: 12 });
    expect(redrawn).toBe(0);
    const size = boot.figures.length;
    for (let r = 0; r < 12; r++) {
      const counts = new Int32Array(60);
      drawCounts(counts, 11, r, 0);
      expectClose(values.subarray(r * size, (r + 1) * size), refit(counts));
    }
  });

  test("law: the jackknife is the ladder fitted without each case", () => {
    const values = boot.jackknife();
    const size = boot.figures.length;
    for (const left of [0, 17, 59]) {
      const counts = Array.from({ length: 60 }, (__, i) => (i === left ? 0 : 1));
      expectClose(values.subarray(left * size, (left + 1) * size), refit(counts));
    }
  });
});

test("law: replicates do not depend on how their ranges are dealt out", () => {
  const boot = new LadderBootstrap(ladderModels(CASES[1]![1], sample(40)), null);
  const whole = boot.replicates(5, { first: 0, count: 30 }).values;
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 1, max: 12 }), { minLength: 1, maxLength: 8 }), (cuts) => {
      const pieces: number[] = [];
      let first = 0;
      for (const cut of [...cuts, 30]) {
        const count = Math.min(cut, 30 - first);
        if (count > 0) pieces.push(...boot.replicates(5, { first, count }).values);
        first += count;
      }
      expect(pieces).toEqual(Array.from(whole));
    }),
    { numRuns: 15 },
  );
});

test("law: whole clusters are drawn, and left out one at a time", () => {
  const data = sample(60);
  const of = CASES[1]![1];
  const clusters = Int32Array.from({ length: 60 }, (_, i) => (i * 7) % 12);
  const models = ladderModels(of, data);
  const boot = new LadderBootstrap(models, clusters);
  expect(boot.units).toBe(12);
  const size = boot.figures.length;
  const refit = (times: (cluster: number) => number) => {
    const order = [...new Set(clusters)];
    const cases = Array.from({ length: 60 }, (_, i) => new Array<number>(times(order.indexOf(clusters[i]!))).fill(i)).flat();
    const taken = (v: Predictor): Predictor =>
      "codes" in v ? { levels: v.levels, codes: Int32Array.from(cases, (i) => v.codes[i]!) } : Float64Array.from(cases, (i) => v[i]!);
    const out = new Float64Array(size);
    fittedFigures(ladderModels(of, new Map([...data].map(([k, v]) => [k, taken(v)]))), out, models.fits.map((f) => f.columns)); // prettier-ignore
    return out;
  };
  const counts = new Int32Array(12);
  drawCounts(counts, 3, 0, 0);
  const drawn = boot.replicates(3, { first: 0, count: 1 }).values;
  refit((c) => counts[c]!).forEach((value, i) => expect(drawn[i]).toBeCloseTo(value, 9));
  const left = boot.jackknife().subarray(5 * size, 6 * size);
  refit((c) => (c === 5 ? 0 : 1)).forEach((value, i) => expect(left[i]).toBeCloseTo(value, 9));
});

test("a resample in which a column vanishes is drawn again, and counted", () => {
  const data = sample(30);
  const rare: Predictor = { levels: ["p", "q"], codes: Int32Array.from({ length: 30 }, (_, i) => (i === 4 ? 1 : 0)) };
  const boot = new LadderBootstrap(ladderModels(spec({}, ["a", "rare"]), new Map([...data, ["rare", rare]])), null);
  const { values, redrawn } = boot.replicates(1, { first: 0, count: 200 });
  // the one respondent is not drawn in (29/30)³⁰ = 36 % of resamples
  expect(redrawn / (redrawn + 200)).toBeGreaterThan(0.28);
  expect(redrawn / (redrawn + 200)).toBeLessThan(0.45);
  expect(values.every(Number.isFinite)).toBe(true);
});
