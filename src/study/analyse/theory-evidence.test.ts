import { randomStream } from "@/core/random/random-stream";
import { ladderBootstrap } from "@/core/resampling/ladder-bootstrap";
import { replicatesOf } from "@/core/resampling/resampler";
import { differencesOf, type Figure } from "@/core/resampling/figures/figure";
import { drawingOf } from "@/core/resampling/units";
import { Groups } from "../model/groups";
import { Hypothesis } from "../model/hypothesis";
import { Ladder } from "../model/ladder";
import { Means } from "../model/means";
import { Probe } from "../model/probe";
import { Theory } from "../model/theory";
import { cells, deskOf, ladderOf } from "../test-support/desk";
import { ladderSample, modelsOn } from "../prepare/ladder-models";
import { analyseGroups } from "./analyse-groups";
import { analyseMeans } from "./analyse-means";
import { analysePair } from "./analyse-pair";
import { analyseProbe } from "./analyse-probe";
import { analyseTheory, type Stand } from "./analyse-theory";
import { jackknifeOf, limitsOf } from "./resampling";

const N = 150;
const stream = randomStream(71);
const draw = () => Array.from({ length: N }, () => stream.normal());
const [x, m, z, e] = [draw(), draw(), draw(), draw()];
const LEVELS = ["evening", "morning", "noon"];
const desk = deskOf({
  y: cells(N, (i) => 3 + 0.5 * x[i]! + 0.2 * m[i]! + 0.35 * x[i]! * m[i]! + (i % 3) * 0.4 * (1 + x[i]!) + e[i]!),
  x: cells(N, (i) => x[i]!),
  m: cells(N, (i) => 10 + 2 * m[i]!),
  z: cells(N, (i) => (i % 25 === 0 ? "" : z[i]!)),
  shift: cells(N, (i) => LEVELS[i % 3]!),
});
const LADDER = ladderOf(["shift"], ["x", "m"], ["x*m"]);
const of = (rests: object, own: object = {}) => Hypothesis.parse({ id: "h", ladder: "l", rests, ...own });
const on = (name: string) => [{ variable: name }];
const stood = (hypotheses: Hypothesis[], ladder: Ladder = LADDER, theory: object = {}): Stand[] =>
  analyseTheory({ theory: Theory.parse({ id: "theory", ...theory }), hypotheses, ladders: [ladder] }, desk).stands;
const told = <T extends { status: string }, S extends T["status"]>(result: T, status: S) => {
  if (result.status !== status) throw new Error(JSON.stringify(result));
  return result as Extract<T, { status: S }>;
};

describe.each([{}, { errors: "hc3" }])("what a hypothesis rests on is what the page beside it shows (%j)", (own) => {
  const ladder = Ladder.parse({ ...LADDER, ...own });
  test("a slope at a place, in both metrics", () => {
    const probe = Probe.parse({
      id: "p",
      ladder: "l",
      focal: "x",
      moderators: [{ variable: "m", values: { by: "own", values: [7, 13] } }],
    });
    const probed = told(analyseProbe({ probe, ladder }, desk), "probed");
    const [at7, at13] = probed.reading.found.map(([effect]) => effect!);
    const [low, high, beta] = stood([
      of({ on: "slope", focal: { variable: "x" }, moderator: "m", at: { value: 7 }, metric: "b" }),
      of({ on: "slope", focal: { variable: "x" }, moderator: "m", at: { value: 13 }, metric: "b" }),
      of({ on: "slope", focal: { variable: "x" }, moderator: "m", at: { value: 13 }, metric: "beta" }),
    ], ladder); // prettier-ignore
    expect([low!.estimate, high!.estimate]).toEqual([at7!.estimate, at13!.estimate]);
    expect(high!.p).toBeCloseTo(at13!.p!, 12);
    expect(low!.interval!.upper).toBeCloseTo(at7!.upper!, 10);
    expect(beta!.p).toBeCloseTo(high!.p!, 12);
  });
  test("a region holds where the band of the probe leaves zero: up to its bound, and no further", () => {
    const probe = Probe.parse({ id: "p", ladder: "l", focal: "x", moderators: [{ variable: "m" }] });
    const [along] = told(analyseProbe({ probe, ladder }, desk), "probed").reading.along[0]!.along;
    if (!along || "reason" in along) throw new Error("no bounds");
    expect(along.holds).toMatch(/outside|above/);
    const bound = along.bounds.at(-1)!;
    const over = (from: number | null) =>
      of({ on: "region", focal: { variable: "x" }, moderator: "m", from, metric: "b" }, { direction: "+" });
    const [inside, beyond, all] = stood([over(bound + 0.01), over(bound - 0.01), over(null)], ladder);
    expect([inside!.verdict, beyond!.verdict, all!.verdict]).toEqual(["supported", "not supported", "not supported"]);
    expect(inside!.p).toBeLessThan(0.05);
    expect(inside!.interval!.lower).toBeLessThanOrEqual(inside!.estimate!);
  });
  test("two predicted means, and two groups either way round, and all groups", () => {
    const means = Means.parse({ id: "m", ladder: "l", variable: "shift", compare: "pairs" });
    const { reading } = told(analyseMeans({ means, ladder }, desk), "told");
    const pair = reading.contrasts.find(({ first, second }) => reading.cells[first]!.key === "noon" && reading.cells[second!]!.key === "evening")!.found!; // prettier-ignore
    const groups = told(analyseGroups({ groups: Groups.parse({ id: "g", ladder: "l", variable: "shift" }), ladder }, desk), "compared");
    const d = groups.differences.all.find((one) => one.column === "x" && groups.groups[one.first]!.name === "evening" && groups.groups[one.second]!.name === "noon")!; // prettier-ignore
    const { alike } = groups.terms.find(({ term }) => term === "x")!;
    const rests = { on: "groups", variable: "shift", column: on("x") };
    const [mean, turned, straight, all] = stood([
      of({ on: "means", variable: "shift", first: "noon", second: "evening" }),
      of({ ...rests, first: "noon", second: "evening" }),
      of({ ...rests, first: "evening", second: "noon" }),
      of(rests),
    ], ladder); // prettier-ignore
    expect(mean!.estimate).toBeCloseTo(pair.estimate, 12);
    expect(mean!.p).toBeCloseTo(pair.p!, 12);
    expect([straight!.estimate, turned!.estimate]).toEqual([d.estimate, -d.estimate!]);
    expect(straight!.p).toBeCloseTo(d.p!, 12);
    expect([all!.estimate, all!.p, all!.interval]).toEqual([alike.chi2, alike.p, null]);
  });
});

test("a correlation is that of the look, among those who have both", () => {
  const pair = told(analysePair({ x: "x", y: "z", by: null, panels: [], respondents: null }, desk), "paired").whole.test!;
  const [stand] = stood([of({ on: "correlation", x: "x", y: "z" }, { ladder: null })]);
  expect(stand).toMatchObject({ estimate: pair.r, n: pair.n, step: null });
  expect(stand!.p).toBeCloseTo(pair.p!, 14);
  expect(stand!.interval!.lower).toBeCloseTo(pair.lower!, 12);
});

test.each(["bca", "percentile"] as const)("by bootstrap, interval and p are those of the ladder's own replicates (%s)", (by) => {
  const ladder = Ladder.parse({ ...LADDER, intervals: { by, replicates: 1000 }, seed: 9 });
  const models = modelsOn(ladder, ladderSample(ladder, desk.columns));
  const figures: Figure[] = [
    { kind: "beta", step: 2, column: "x" },
    { kind: "b", step: 2, column: "x*m" },
    { kind: "dR2", step: 2 },
    ...differencesOf(models, 2),
  ];
  const made = { ...ladderBootstrap(models, drawingOf(models.spec.errors), figures), names: figures };
  const drawn = replicatesOf(made, 9, { first: 0, count: 1000 });
  const { expected } = jackknifeOf(made, { step: null, accelerated: by === "bca" });
  const limits = limitsOf(drawn.values, figures.length, expected, null, { by, confidence: 0.95 });
  const pair = figures.findIndex((f) => f.kind === "difference" && f.first === "x" && f.second === "m");
  const stands = stood([
    of({ on: "coefficient", column: on("x") }),
    of({ on: "coefficient", column: [...on("x"), ...on("m")], metric: "b" }),
    of({ on: "difference", first: on("x"), second: on("m") }),
    of({ on: "difference", first: on("m"), second: on("x") }),
    of({ on: "coefficient", column: on("x") }, { direction: "+", before: true }),
  ], ladder); // prettier-ignore
  for (const [stand, at] of [[stands[0]!, 0], [stands[1]!, 1], [stands[2]!, pair]] as const) {
    expect(stand.estimate).toBeCloseTo(limits[at]!.interval.estimate, 11);
    expect(stand.interval!.lower).toBeCloseTo(limits[at]!.interval.lower, 11);
    expect(stand.interval!.upper).toBeCloseTo(limits[at]!.interval.upper, 11);
    expect(stand.p).toBe(limits[at]!.p);
    expect(stand.test).toEqual({ by: "replicates", replicates: 1000 });
  } // prettier-ignore
  // ΔR² is tested by F, and its limits are the replicates'
  const [change] = stood([of({ on: "change" })], ladder);
  expect(change!.test!.by).toBe("F");
  expect(change!.interval!.lower).toBeCloseTo(limits[2]!.interval.lower, 11);
  expect(change!.interval!.upper).toBeCloseTo(limits[2]!.interval.upper, 11);
  expect(stands[3]!.interval!.lower).toBeCloseTo(-stands[2]!.interval!.upper, 11);
  expect(stands[4]!.p).toBe(stands[0]!.p! / 2);
});

test("whatever else rests on a step, replicates are drawn once, and each hypothesis stands as it would alone", () => {
  const ladder = Ladder.parse({ ...LADDER, intervals: { by: "bca", replicates: 1000 } });
  const list = [
    of({ on: "coefficient", column: on("x") }),
    of({ on: "coefficient", column: on("x") }, { direction: "-" }),
    of({ on: "difference", first: on("x"), second: on("m") }),
    of({ on: "slope", focal: { variable: "x" }, moderator: "m", at: { place: "low" } }),
    of({ on: "change" }),
    of({ on: "coefficient", column: on("gone") }),
  ];
  const done: number[] = [];
  const watched = { ...desk, progress: (so: number) => void done.push(so) };
  const together = analyseTheory({ theory: Theory.parse({ id: "theory" }), hypotheses: list, ladders: [ladder] }, watched).stands;
  expect(done.filter((so) => so === 1000)).toHaveLength(1);
  expect(together).toEqual(list.flatMap((h) => stood([h], ladder)));
});

test("slopes, means and groups are drawn too; ΔR² keeps its F", () => {
  const ladder = Ladder.parse({ ...LADDER, intervals: { by: "percentile", replicates: 1000 } });
  const list = [
    of({ on: "slope", focal: { variable: "x" }, moderator: "m", at: { place: "high" } }),
    of({ on: "region", focal: { variable: "x" }, moderator: "m", from: 11 }),
    of({ on: "means", variable: "shift", first: "noon", second: "evening" }),
    of({ on: "groups", variable: "shift", column: on("x"), first: "noon", second: "evening" }),
    of({ on: "groups", variable: "shift", column: on("x"), first: "evening", second: "noon" }),
    of({ on: "change" }),
  ];
  const [drawn, normal] = [stood(list, ladder), stood(list)];
  expect(drawn.map(({ test: how }) => how!.by)).toEqual([...Array(5).fill("replicates"), "F"]);
  drawn.slice(0, 5).forEach((stand, k) => {
    const width = (s: Stand) => s.interval!.upper - s.interval!.lower;
    expect(stand.estimate).toBeCloseTo(normal[k]!.estimate!, 10);
    // another method for the same width: they may differ, not by half
    expect(width(stand) / width(normal[k]!)).toBeGreaterThan(0.67);
    expect(width(stand) / width(normal[k]!)).toBeLessThan(1.5);
  });
  expect(drawn[4]!.interval!.lower).toBeCloseTo(-drawn[3]!.interval!.upper, 11);
});

test("each thing that is not there has its own reason", () => {
  const switched = Ladder.parse({ ...LADDER, steps: [...LADDER.steps, { id: "s9", terms: [{ components: ["z"], off: true }] }] });
  const waits = stood([
    of({ on: "coefficient", column: on("z") }, { step: 3 }),
    of({ on: "coefficient", column: [...on("x"), ...on("m")] }, { step: 2 }),
    of({ on: "coefficient", column: on("gone") }),
    of({ on: "coefficient", column: [{ variable: "shift", level: "midnight" }] }),
    of({ on: "slope", focal: { variable: "m" }, moderator: "shift", at: { level: "noon" } }),
    of({ on: "means", variable: "shift", first: "noon", second: "midnight" }),
    of({ on: "groups", variable: "shift", column: on("x"), first: "noon", second: "midnight" }),
    of({ on: "difference", first: on("x"), second: on("gone") }),
    of({ on: "correlation", x: "x", y: "gone" }),
    of({ on: "indirect", from: "x", through: "m" }),
    of({ on: "correlation", x: "x", y: "m", respondents: "gone" }),
  ], switched).map(({ waits: why }) => why); // prettier-ignore
  expect(waits).toMatchObject([
    { for: "coefficient", why: "off" },
    { for: "coefficient", why: "later" },
    { for: "coefficient", why: "removed" },
    { for: "coefficient", why: "level" },
    { for: "product" },
    { for: "level", level: "midnight" },
    { for: "level", level: "midnight" },
    { for: "coefficient", why: "removed" },
    { for: "refused", refusal: { code: "missing-column" } },
    { for: "path" },
    { for: "filter" },
  ]);
});
