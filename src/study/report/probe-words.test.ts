import { effectAt } from "@/core/regression/simple-effects";
import { analyseProbe } from "../analyse/analyse-probe";
import { readProbe } from "../analyse/read-probe";
import { Ladder } from "../model/ladder";
import { Probe } from "../model/probe";
import { Study } from "../model/study";
import { StudyColumns } from "../prepare/study-columns";
import { sourceOf } from "../test-support/columns";
import { probeRows } from "./ladder/probe-rows";
import { probeTable } from "./ladder/probe-table";
import { whatTheProbeSays } from "./ladder/probe-words";
import { plain } from "./words";

const N = 120;
const wave = (i: number, k: number) => Math.round(1000 * Math.sin((i + 1) * k * 1.7 + k * k)) / 500;
const cells = (f: (i: number) => number | string) => Array.from({ length: N }, (_, i) => String(f(i)));
const xm = (i: number) => 0.4 * wave(i, 3);
const DATA = {
  x: cells((i) => wave(i, 1)),
  m: cells((i) => wave(i, 2)),
  up: cells((i) => wave(i, 1) * (1 + 0.4 * wave(i, 2)) + xm(i)),
  none: cells((i) => wave(i, 1) + 2 * wave(i, 5)),
  turn: cells((i) => wave(i, 1) * 1.5 * wave(i, 2) + xm(i)),
  g: cells((i) => ["a", "b", "c"][i % 3]!),
  h: cells((i) => (i % 2 === 0 ? "u" : "v")),
  by: cells((i) => (i % 3 === 1 ? 2 : 0) * wave(i, 1) + (i % 2) * (i % 3) + xm(i)),
};
const study = Study.parse({
  format: "beta-step-study",
  version: 1,
  name: "s",
  codebook: Object.keys(DATA).map((name) => ({ name, kind: name === "g" || name === "h" ? "category" : "number" })),
});

function probed(outcome: string, terms: string[][], focal: string, moderators: string[], of: object = {}) {
  const ladder = Ladder.parse({
    id: "l",
    name: "L",
    outcome,
    steps: [{ id: "s", terms: terms.map((components) => ({ components })) }],
  });
  const probe = Probe.parse({ id: "p", ladder: "l", focal, moderators: moderators.map((variable) => ({ variable, ...of })) });
  const responses = sourceOf(DATA);
  const desk = { study, responses, columns: new StudyColumns(study, responses) } as unknown as Parameters<typeof analyseProbe>[1];
  const result = analyseProbe({ probe, ladder }, desk);
  return { probe, result };
}

function said(...of: Parameters<typeof probed>): string[] {
  const { probe, result } = probed(...of);
  if (result.status === "refused") return [result.refusal.code];
  return whatTheProbeSays(probe, result.reading, result, (name, level) => level ?? name).map(plain);
}

const PRODUCT = [["x"], ["m"], ["x", "m"]];

test.each([
  [
    "up",
    PRODUCT,
    "x",
    ["m"],
    /^m strengthens the relation \(difference \d\.\d\d, p < \.001\)\.$/,
    /^The slope can be told from zero where m is .*above −\d\.\d\d/,
  ],
  [
    "none",
    PRODUCT,
    "x",
    ["m"],
    /^Whether m changes how x goes with none cannot be told from these respondents/,
    /The slope (of x )?can be told from zero/,
  ],
  ["turn", PRODUCT, "x", ["m"], /^m reverses the relation/, /is below −0\.\d\d \(\d+ of 120 respondents\) and where it is above −?0\.\d\d/],
  [
    "by",
    [["x"], ["g"], ["x", "g"]],
    "x",
    ["g"],
    /^How x goes with by differs most between \w and \w \(difference .*by Holm over 3 pairs\)/,
    /^For one more of x, by /,
  ],
  [
    "by",
    [["g"], ["h"], ["g", "h"]],
    "g",
    ["h"],
    /^by with b rather than a: .* where h is u and .* where h is v\.$/,
    /^(The difference is not the same everywhere|Whether the difference changes)/,
  ],
  ["turn", [["x"], ["x", "x"]], "x", ["x"], /^(Whether the line of x bends|The line of x bends)/, /slope/],
  ["up", [["x"], ["m"]], "x", ["m"], /^nothing-to-probe$/, null],
] as const)("%s ~ %p asked of %s by %p", (outcome, terms, focal, moderators, first, last) => {
  const sentences = said(outcome, terms as unknown as string[][], focal, [...moderators]);
  expect(sentences[0]).toMatch(first);
  if (last) expect(sentences.at(-1)).toMatch(last);
  for (const sentence of sentences) expect(sentence).not.toMatch(/undefined|NaN|null|cause|effect of|leads to|: \d+\.$/);
});

test("rows and the printed table tell each place and the later minus the earlier", () => {
  const { probe, result } = probed("up", PRODUCT, "x", ["m"]);
  if (result.status === "refused") throw new Error("refused");
  const rows = probeRows(result.reading, result, (name) => name);
  expect(rows.map((r) => r.place.replace(/, .*/, ""))).toEqual(["low", "mean", "high", "mean − low", "high − low", "high − mean"]);
  expect(rows[4]!.found!.estimate).toBeCloseTo(rows[2]!.found!.estimate - rows[0]!.found!.estimate, 10);
  const near = DATA.m
    .map(Number)
    .filter((v) => Math.abs(v - result.reading.places[0]!.at[0]!.value!) <= result.ground.spreads.get("m")!.sd / 2);
  expect(rows[0]!.near).toBe(near.length);
  const table = probeTable(probe, result.reading, result, "L", (name) => name);
  expect(table.sections.map((s) => [plain(s.heading), s.rows.length])).toEqual([
    ["m", 3],
    ["Differences", 3],
  ]);
});

test("what a moderator does is told from its lowest value to its highest, in whatever order they are put", () => {
  const up = said("up", PRODUCT, "x", ["m"], { values: { by: "own", values: [-1, 0, 1] } });
  const down = said("up", PRODUCT, "x", ["m"], { values: { by: "own", values: [1, 0, -1] } });
  expect(up[0]).toMatch(/^m strengthens/);
  expect(down[0]).toBe(up[0]);
  const crossed = said("up", PRODUCT, "x", ["m"], { values: { by: "own", values: [0, 1, -1] } });
  expect(crossed[0]).toBe(up[0]);
});

test("a place where nobody is is pointed out, as mean ± SD of a number with two values", () => {
  const [, , , outside] = said("up", PRODUCT, "x", ["m"], { values: { by: "own", values: [0, 9] } });
  expect(outside).toMatch(/^Nobody has m at 9: it was observed from −2 to 2\.$/);
});

test("slopes along a moderator are told in the metric of the table, and its bounds stay where they are", () => {
  const of = (metric: "raw" | "z") => {
    const { probe, result } = probed("up", PRODUCT, "x", ["m"]);
    if (result.status === "refused") throw new Error("refused");
    const { found, along } = readProbe(probe, result.ground, metric);
    const one = along[0]!.along[0]!;
    if ("reason" in one) throw new Error(one.reason);
    return { slope: found[2]![0]!, on: effectAt(one, one.centre + one.sd), bounds: one.bounds };
  };
  const [raw, z] = [of("raw"), of("z")];
  for (const { slope, on } of [raw, z]) {
    expect(on.y).toBeCloseTo(slope.estimate, 9);
    expect([on.lower, on.upper]).toEqual([expect.closeTo(slope.lower!, 8), expect.closeTo(slope.upper!, 8)]);
  }
  expect(z.slope.estimate).not.toBeCloseTo(raw.slope.estimate, 3);
  z.bounds.forEach((bound, i) => expect(bound).toBeCloseTo(raw.bounds[i]!, 9));
});
