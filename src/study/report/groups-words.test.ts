import { analyseGroups } from "../analyse/analyse-groups";
import { Groups } from "../model/groups";
import { Ladder } from "../model/ladder";
import { Study } from "../model/study";
import { StudyColumns } from "../prepare/study-columns";
import { sourceOf } from "../test-support/columns";
import { groupsRows, toldDifferences } from "./ladder/groups-rows";
import { groupsTable } from "./ladder/groups-table";
import { whatTheGroupsSay } from "./ladder/groups-words";
import { plain } from "./words";

const N = 160;
const wave = (i: number, k: number) => Math.round(1000 * Math.sin((i + 1) * k * 1.7 + k * k)) / 500;
const site = (i: number) => (i < 4 ? "tiny" : i === 4 ? "" : ["north", "south", "west"][i % 3]!);
const cells = (f: (i: number) => number | string) => Array.from({ length: N }, (_, i) => String(f(i)));
const DATA = {
  site: cells(site),
  x: cells((i) => wave(i, 1)),
  flat: cells((i) => (site(i) === "west" ? 2 : wave(i, 2))),
  same: cells((i) => wave(i, 1) + wave(i, 5)),
  apart: cells((i) => (site(i) === "north" ? 3 : 0.2) * wave(i, 1) + wave(i, 5) * (site(i) === "south" ? 2 : 0.8)),
};
const study = Study.parse({
  format: "beta-step-study",
  version: 1,
  name: "s",
  codebook: [
    { name: "site", kind: "category", levels: ["north", "south", "west", "tiny", "closed"].map((value) => ({ value, label: value === "north" ? "Northern" : "" })) },
    ...["x", "flat", "same", "apart"].map((name) => ({ name, kind: "number" })),
  ],
}); // prettier-ignore
const title = (name: string, level?: string | null) => (level == null ? name : `${name}: ${level === "north" ? "Northern" : level}`);
const NONE = { boot: null, shuffled: null };

function compared(outcome: string, terms: string[][], own: object = {}) {
  const ladder = Ladder.parse({ id: "l", name: "L", outcome, steps: [{ id: "s", terms: terms.map((components) => ({ components })) }] });
  const groups = Groups.parse({ id: "g", ladder: "l", variable: "site", ...own });
  const responses = sourceOf(DATA);
  const desk = { study, responses, columns: new StudyColumns(study, responses) } as unknown as Parameters<typeof analyseGroups>[1];
  return { groups, result: analyseGroups({ groups, ladder }, desk) };
}

function said(...of: Parameters<typeof compared>): string[] {
  const { groups, result } = compared(...of);
  if (result.status === "refused") return [result.refusal.code];
  return whatTheGroupsSay(groups, result, NONE, title).map(plain);
}

test("groups that differ: the surest difference, that slopes differ together, and why one model would say otherwise", () => {
  const words = said("apart", [["x"]], { leftOut: ["tiny"] });
  expect(words[0]).toMatch(
    /^The slope of x on apart is higher for Northern \(β 1\.\d\d\) than for (south|west) \(−?\.\d\d\): more apart than chance/,
  );
  expect(words[0]).toMatch(/z = \d+\.\d\d, p < \.001 by Holm over 3\)\.$/);
  expect(words.join(" ")).toMatch(/All slopes together: they differ between groups.*χ²\(2\)/);
  expect(words.join(" ")).toContain("A single model with products assumes one for all");
  expect(words.join(" ")).toContain("Not compared: tiny.");
});

test("groups that do not differ: that cannot be told from chance, with its numbers", () => {
  const words = said("same", [["x"]], { leftOut: ["tiny"] });
  expect(words[0]).toMatch(/^No difference between groups can be told from chance\. The surest is of x: β \.\d\d for \w+/);
  expect(words[1]).toContain("that they differ cannot be told");
});

test("who is in no group, what a group cannot tell, and groups that cannot be fitted are told", () => {
  const words = said("same", [["x"], ["flat"], ["x", "flat"], ["site"]]).join(" ");
  expect(words).toContain("tiny cannot be fitted: A model with 3 columns needs at least 5 complete respondents; there are 4.");
  expect(words).toContain("flat does not vary for west, so it has no slope there.");
  expect(words).toContain("For west x × flat is a combination of the other terms");
  expect(words).toContain("1 respondent without an answer to site is in no group.");
  expect(words).toContain("Nobody in the sample has closed.");
  expect(words).toContain("Within a group site does not vary: site is left out of the step here.");
});

test("levels put together are one group with all their respondents; what nobody has does no harm", () => {
  const size = (level: string) => DATA.site.filter((cell) => cell === level).length;
  const { result } = compared("same", [["x"]], { together: [["south", "tiny"], ["closed", "gone"]] }); // prettier-ignore
  if (result.status === "refused") throw new Error(result.refusal.code);
  expect(result.groups.map((g) => [g.name, g.cases])).toEqual([["north", size("north")], ["south + tiny", size("south") + size("tiny")], ["west", size("west")]]); // prettier-ignore
});

test.each([
  [[["site"]], {}, "nothing-within-groups"],
  [[["x"]], { leftOut: ["north", "south", "tiny"] }, "one-group"],
  [[["x"]], { variable: "same" }, "too-many-groups"],
] as const)("what cannot be compared is refused: %j %j", (terms, own, code) => {
  expect(said("same", terms as unknown as string[][], own)).toEqual([code]);
});

test("differences stand the way round in which they are positive, with their intervals and shuffles turned alike", () => {
  const { result, groups } = compared("apart", [["x"]], { leftOut: ["tiny"] });
  if (result.status === "refused") throw new Error(result.refusal.code);
  const interval = { estimate: -1, lower: -3, upper: -0.5, method: "bca" as const, clamped: false, needed: null };
  const spread = { edges: [0, 1], counts: [1] };
  const figure = { kind: "difference" as const, of: "b" as const, column: "x", first: 1, second: 2 };
  const beside = {
    boot: { replicates: 1, redrawn: 0, units: 1, intervals: [{ figure, interval, spread }], differences: [] },
    shuffled: { of: 99, found: [{ column: "x", first: 1, second: 2, difference: 0, beyond: 4 }] },
  };
  const told = toldDifferences(result, "raw", beside);
  const raw = result.differences.raw.find((d) => d.first === 1 && d.second === 2)!;
  const own = told.find((d) => d.first + d.second === 3)!;
  const way = Math.sign(raw.estimate!);
  expect(own).toMatchObject({ first: way > 0 ? 1 : 2, estimate: Math.abs(raw.estimate!), pShuffled: 0.05 });
  expect([own.lower, own.upper]).toEqual(way > 0 ? [-3, -0.5] : [0.5, 3]);
  expect(told.map((d) => d.z!)).toEqual(told.map((d) => d.z!).toSorted((a, b) => b - a));
  expect(told.every((d) => d.estimate >= 0)).toBe(true);
  // an interval that was not drawn is not made up from theory
  expect(told.find((d) => d !== own)!.lower).toBeNull();
  expect(groupsRows(result, "raw", NONE, title)[0]!.found[0]!.lower).not.toBeNull();
  const { head, sections } = groupsTable(groups, result, beside, "L", title);
  for (const { rows } of sections) for (const row of rows) expect(row).toHaveLength(head.length);
});
