import type { Desk } from "../kinds/kind";
import { type Ladder } from "../model/ladder";
import { Means } from "../model/means";
import { Probe } from "../model/probe";
import { cellName, whatTheMeansSay } from "../report/ladder/means-words";
import { whatTheProbeSays } from "../report/ladder/probe-words";
import { plain } from "../report/words";
import { cells, deskOf, ladderOf } from "../test-support/desk";
import { analyseMeans } from "./analyse-means";
import { analyseProbe } from "./analyse-probe";
import { cellKey } from "./cell-key";

const title = (name: string, level?: string | null) => level ?? name;

const wave = (i: number, k: number) => Math.sin((i + 1) * k * 1.7 + k * k);

function probed(desk: Desk, ladder: Ladder, focal: string, moderator: string) {
  const probe = Probe.parse({ id: "p", ladder: "l", focal, moderators: [{ variable: moderator }] });
  const result = analyseProbe({ probe, ladder }, desk);
  if (result.status === "refused") throw new Error(result.refusal.code);
  return { result, said: whatTheProbeSays(probe, result.reading, result, title).map(plain) };
}

test("respondents of each cell are counted; empty cells and thin ones are named", () => {
  const n = 120;
  const g = (i: number) => ["a", "b", "c"][i % 3]!;
  const h = (i: number) => (i % 3 === 2 ? "u" : i % 6 === 0 && i > 20 ? "u" : "v");
  const desk = deskOf({ g: cells(n, g), h: cells(n, h), y: cells(n, (i) => (i % 3) + wave(i, 3)) });
  const { result, said } = probed(desk, ladderOf(["g", "h", "g*h"]), "g", "h");
  const count = (level: string, place: string) => Array.from({ length: n }, (_, i) => i).filter((i) => g(i) === level && h(i) === place).length; // prettier-ignore
  for (const level of ["a", "b", "c"])
    for (const place of ["u", "v"]) expect(result.cells!.get(cellKey([level, place])) ?? 0).toBe(count(level, place));
  expect(said.join(" ")).toContain("Nobody is in b with u and c with v: nothing is predicted for it.");
  const thin = deskOf({ g: cells(n, g), h: cells(n, (i) => (i < 12 ? "u" : "v")), y: cells(n, (i) => (i % 3) + wave(i, 3)) });
  expect(probed(thin, ladderOf(["g", "h", "g*h"]), "g", "h").said.join(" ")).toContain(
    "Few respondents: a with u (4), b with u (4) and c with u (4).",
  );
});

test("up to five thousand respondents are points; of more, a grid holds everybody", () => {
  const of = (n: number) => {
    const desk = deskOf({ x: cells(n, (i) => i % 100), m: cells(n, (i) => wave(i, 2)), y: cells(n, (i) => (i % 100) / 10 + wave(i, 3)) });
    return probed(desk, ladderOf(["x", "m", "x*m"]), "x", "m").result.points!;
  };
  const few = of(5000);
  expect("counts" in few ? null : few.x.length).toBe(5000);
  const many = of(5001);
  if (!("counts" in many)) throw new Error("points");
  expect(many.counts.reduce((sum, count) => sum + count, 0)).toBe(5001);
  expect(many.x).toEqual([0, 99]);
  const columns = Array.from({ length: many.columns }, (_, c) => Array.from({ length: many.rows }, (__, r) => many.counts[r * many.columns + c]!).reduce((a, b) => a + b, 0)); // prettier-ignore
  // a hundred values in 46 columns: two or three of them each
  expect(Math.max(...columns) / Math.min(...columns)).toBeLessThan(2.1);
});

test("a moderator that looks like a mediator is told inside the probe, with the numbers that make it look so; one that does not is not", () => {
  const n = 160;
  const x = (i: number) => wave(i, 1);
  const m = (i: number) => 0.9 * x(i) + 0.4 * wave(i, 2);
  const through = deskOf({ x: cells(n, x), m: cells(n, m), y: cells(n, (i) => m(i) + 0.5 * wave(i, 5)) });
  const { result, said } = probed(through, ladderOf(["x"], ["m"], ["x*m"]), "x", "m");
  const [found] = result.mediations;
  expect(found).toMatchObject({ x: "x", m: "m" });
  expect(Math.abs(found!.after)).toBeLessThan(Math.abs(found!.before) * 0.67);
  expect(said.at(-1)).toMatch(
    /^m goes with x \(r = \.\d\d\) and takes over \d+ % of its coefficient \(b \d\.\d\d before it enters, −?\d\.\d+ after\)/,
  );
  // the same variables in one step: nothing was seen before and after
  expect(probed(through, ladderOf(["x", "m", "x*m"]), "x", "m").result.mediations).toEqual([]);
  const moderated = deskOf({
    x: cells(n, x),
    m: cells(n, (i) => wave(i, 2)),
    y: cells(n, (i) => x(i) * (1 + wave(i, 2)) + 0.3 * wave(i, 5)),
  });
  expect(probed(moderated, ladderOf(["x"], ["m"], ["x*m"]), "x", "m").result.mediations).toEqual([]);
});

describe("predicted means in words", () => {
  const n = 150;
  const desk = deskOf({
    g: cells(n, (i) => (i < 4 ? "rare" : ["a", "b", "c"][i % 3]!)),
    h: cells(n, (i) => (i % 2 === 0 ? "u" : "v")),
    x: cells(n, (i) => wave(i, 1)),
    y: cells(n, (i) => (i % 3 === 2 ? 3 : 0) + 0.4 * wave(i, 3)),
  });
  const said = (own: object) => {
    const means = Means.parse({ id: "m", ladder: "l", variable: "g", ...own });
    const told = analyseMeans({ means, ladder: ladderOf(["g", "h", "x", "g*h"]) }, desk);
    if (told.status === "refused") return { words: [told.refusal.code], told: null };
    return { words: whatTheMeansSay(means, told.reading, told, title).map(plain), told };
  };

  test("the lowest and the highest, which can be told from the mean of all by Holm, and levels with few respondents", () => {
    const { words } = said({});
    expect(words[0]).toMatch(/^y is predicted lowest for \w+ \(−?\d\.\d+\) and highest for \w+ \(\d\.\d\d\)\.$/);
    expect(words[1]).toMatch(/^Told apart: .* from the mean of all \(.*p < \.001\).*\.$/);
    expect(words.join(" ")).toMatch(/\d differences? of 4, by Holm over 4/);
    expect(words.at(-1)).toBe("Few respondents: rare (4).");
  });

  test("against one level, and each other", () => {
    expect(said({ compare: "one", against: "c" }).words.join(" ")).toMatch(/from c \(/);
    expect(said({ compare: "pairs" }).words.join(" ")).toMatch(/of 6, by Holm over 6/);
    // of three places evenly apart the middle one is the mean of all: no difference, and no test of one
    const { words, told } = said({ variable: "x" });
    expect(told!.reading.contrasts[1]!.found).toMatchObject({ estimate: 0, se: 0, t: null, p: null });
    expect(told!.reading.contrasts[0]!.pHolm).toBe(told!.reading.contrasts[2]!.pHolm);
    expect(words.join(" ")).toContain("None can be told from the mean of all, by Holm over 3.");
  });

  test("by a second variable a cell is named by both, the first of the sentence first", () => {
    const { told } = said({ by: "h" });
    expect(told!.reading.cells.map((cell) => cellName(cell, title)).slice(0, 3)).toEqual(["rare, u", "a, u", "b, u"].map((name) => expect.stringMatching(new RegExp(`^(rare|a|b|c), u$|^${name}$`)))); // prettier-ignore
    expect(told!.reading.cells).toHaveLength(8);
  });

  test("of a variable that the step does not hold nothing is predicted", () => {
    const means = Means.parse({ id: "m", ladder: "l", variable: "h" });
    expect(analyseMeans({ means, ladder: ladderOf(["g"]) }, desk)).toMatchObject({
      status: "refused",
      refusal: { code: "nothing-to-probe" },
    });
  });
});
