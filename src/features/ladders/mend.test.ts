import { analyseLadder } from "@/study/analyse/analyse-ladder";
import { ladderDepth } from "@/study/analyse/ladder-depth";
import { applyEdits, type Edit } from "@/study/model/edit";
import { Ladder } from "@/study/model/ladder";
import { plain } from "@/study/report/words";
import { Study, titleOf } from "@/study/model/study";
import { StudyColumns } from "@/study/prepare/study-columns";
import { fixLabel, type LadderFix, type LadderWatch } from "@/study/report/ladder/ladder-fix";
import { ladderWatches } from "@/study/report/ladder/ladder-watches";
import { sourceOf } from "@/study/test-support/columns";
import { mend } from "./mend";

const N = 60;
const wave = (i: number, k: number) => Math.round(1000 * ((Math.sin((i + 1) * (k + 3) * 12.9898) * 43758.5453) % 1)) / 100;
const cells = (f: (i: number) => number | string) => Array.from({ length: N }, (_, i) => String(f(i)));
const m = (i: number) => 0.9 * wave(i, 1) + 0.3 * wave(i, 2);
const source = sourceOf({
  y: cells((i) => (i === 5 ? 300 : m(i) + 4 * wave(i, 9))),
  x: cells((i) => wave(i, 1)),
  m: cells((i) => (i % 5 === 0 ? "" : m(i))),
  near: cells((i) => wave(i, 1) + 0.01 * wave(i, 7)),
  id: cells((i) => 1000 + i),
  few: cells((i) => (i * 7) % 4),
  flat: cells(() => 3),
  xw: cells((i) => wave(i, 1)),
  q1: cells((i) => (i * 3) % 5),
  q2: cells((i) => (i * 11) % 5),
  group: cells((i) => (i < 4 ? "tiny" : i < 9 ? "small" : i % 2 ? "large" : "other")),
  alone: cells((i) => (i < 3 ? "rare" : i % 2 ? "large" : "other")),
});
const base = Study.parse({
  format: "beta-step-study",
  version: 1,
  name: "s",
  codebook: [
    ...["y", "x", "m", "near", "id", "few", "flat"].map((name) => ({ name })),
    ...["q1", "q2"].map((name) => ({ name, kind: "item", range: { low: 0, high: 4 } })),
    { name: "group", kind: "category", levels: ["tiny", "small", "large", "other", "nobody"].map((value) => ({ value })) },
    { name: "alone", kind: "category" },
    { name: "xw" },
  ],
  derived: [{ name: "xw", recipe: { kind: "formula", formula: "x * few" } }],
  scales: [{ id: "q", name: "Q", items: [{ variable: "q1" }, { variable: "q2" }] }],
});

const ladderOf = (over: object, ...steps: string[][]) =>
  Ladder.parse({
    id: "l",
    name: "L",
    outcome: "y",
    steps: steps.map((terms, k) => ({ id: `s${k}`, terms: terms.map((t) => ({ components: t.split("*") })) })),
    ...over,
  });
const within = (ladder: Ladder, study = base) => Study.parse({ ...study, ladders: [ladder] });

function watchesOf(study: Study, step?: number): LadderWatch[] {
  const ladder = study.ladders[0]!;
  const result = analyseLadder(study, ladder, source);
  if (result.status !== "fitted") throw new Error(result.refusal.code);
  const at = step ?? ladder.steps.length - 1;
  const depth = ladderDepth(ladder, at, new StudyColumns(study, source));
  return ladderWatches({ study, ladder, result, depth, step: at, title: (name, level) => titleOf(study, name, level) });
}
const watched = (study: Study, id: string) => watchesOf(study).find((w) => w.id.startsWith(id));

/** A caution, its first remedy that changes something, and the study after it. */
function mended(study: Study, id: string, kind?: LadderFix["do"]): Study {
  const watch = watched(study, id);
  if (!watch)
    throw new Error(
      `no watch ${id}: ${watchesOf(study)
        .map((w) => w.id)
        .join(", ")}`,
    );
  const fix = watch.fixes!.find((f) => kind === undefined || f.do === kind);
  if (!fix) throw new Error(`no remedy ${kind} for ${id}`);
  expect(fixLabel(fix, (name, level) => titleOf(study, name, level))).toMatch(/^[A-Z].*[^.]$/);
  const mending = mend(fix, study, study.ladders[0]!);
  if (!("edits" in mending)) throw new Error("a place to look at");
  return applyEdits(study, mending.edits).study;
}

test.each<[string, Study, string, LadderFix["do"]]>([
  ["a product without its part", within(ladderOf({}, ["x"], ["x*m"])), "marginality", "add-term"],
  ["products of what is not centred", within(ladderOf({ centring: "raw" }, ["x", "m"], ["x*m"])), "uncentred", "centre"],
  ["a product of a single item that a scale holds", within(ladderOf({}, ["x", "q1"], ["x*q1"])), "item product", "replace-name"],
  ["a constant", within(ladderOf({}, ["x", "flat"])), "dropped", "remove-term"],
  ["a number of the respondents", within(ladderOf({}, ["x", "id"])), "identifier", "kind"],
  ["the same, taken out", within(ladderOf({}, ["x", "id"])), "identifier", "remove-term"],
  ["codes of a category", within(ladderOf({}, ["x", "few"])), "codes", "kind"],
  ["a product made by a formula", within(ladderOf({}, ["x", "few"], ["xw"])), "multiplied", "replace-term"],
  ["several small groups", within(ladderOf({}, ["x", "group"])), "small", "combine-levels"],
  ["one small group", within(ladderOf({}, ["x", "alone"])), "small", "leave-out-level"],
  ["a level that nobody has", within(ladderOf({}, ["x", "group"])), "empty", "drop-level"],
  ["two predictors that are nearly one", within(ladderOf({}, ["x", "near"])), "tolerance", "switch-off"],
  ["a respondent far from the rest", within(ladderOf({}, ["x"])), "respondent", "leave-out-rows"],
  ["a variable that costs many respondents", within(ladderOf({}, ["x", "m"])), "lost", "remove-term"],
])("%s is watched, and its remedy ends it", (_, study, id, kind) => {
  const watch = watched(study, id)!;
  const after = mended(study, id, kind);
  expect(watchesOf(after).map((w) => w.id)).not.toContain(watch.id);
});

test("a moderator that takes over the other's coefficient is asked about; switched off, the product is asked about no more", () => {
  const study = within(ladderOf({}, ["x"], ["m"], ["x*m"]));
  const watch = watched(study, "mediator")!;
  expect(plain(watch.words)).toMatch(
    /^m goes with x \(r = \.\d\d\) and takes over \d+ % of its coefficient \(b −?\d\.\d\d before it enters, −?\d\.\d\d after\), while their product adds nothing sure/,
  );
  const after = mended(study, "mediator", "switch-off");
  expect(after.ladders[0]!.steps[2]!.terms).toEqual([{ components: ["x", "m"], off: true }]);
  expect(watched(after, "mediator")).toBeUndefined();
});

test("low tolerance beside a product is told to be no fault", () => {
  const study = within(ladderOf({ centring: "raw" }, ["few", "id"], ["few*id"]));
  const watch = watched(study, "tolerance of products")!;
  expect(plain(watch.words)).toMatch(/That is no fault/);
  expect(watched(study, "tolerance id")).toBeUndefined();
});

test("combined levels are one category with the respondents of both; the ladder goes by it", () => {
  const after = mended(within(ladderOf({}, ["x", "group"])), "small", "combine-levels");
  const result = analyseLadder(after, after.ladders[0]!, source);
  if (result.status !== "fitted") throw new Error(result.refusal.code);
  const [table] = result.fit.tables;
  expect(table!.variable).toBe("group_combined");
  expect(table!.levels.map((l) => [l.level, l.cases])).toEqual([
    ["large", 26],
    ["other", 25],
    ["tiny or small", 9],
  ]);
});

test("who is left out stays in the study: the ladder goes by a filter of its own, with what its sentence had chosen", () => {
  const chosen = { filter: { variable: "alone", equals: ["large"] } };
  const after = mended(within(ladderOf(chosen, ["x"])), "respondent", "leave-out-rows");
  const result = analyseLadder(after, after.ladders[0]!, source);
  const before = analyseLadder(base, ladderOf(chosen, ["x"]), source);
  if (result.status !== "fitted" || before.status !== "fitted") throw new Error("refused");
  expect(result.fit.n).toBe(before.fit.n - 1);
  expect(result.sample.rowsUsed).not.toContain(6);
  expect(after.filters[0]!.everywhere).toBe(false);
});

test("a filter that the ladder named goes on holding when another respondent is left out", () => {
  const grown = { id: "grown", name: "Grown", conditions: [{ kind: "between" as const, variable: "x", low: -1, high: 1 }] };
  const study = within(ladderOf({ respondents: "grown" }, ["x"]), Study.parse({ ...base, filters: [grown] }));
  const [ladder] = study.ladders;
  const { edits } = mend({ do: "leave-out-rows", rows: [4] }, study, ladder!) as { edits: Edit[] };
  const after = applyEdits(study, edits).study;
  const rowsOf = (of: Study) => {
    const result = analyseLadder(of, of.ladders[0]!, source);
    return result.status === "fitted" ? result.sample.rowsUsed : [];
  };
  expect(rowsOf(study).length).toBeGreaterThan(5);
  expect(rowsOf(after)).toEqual(rowsOf(study).filter((row) => row !== 4));
});

test("a remedy that is a look changes nothing: it leads to the respondent or to the gaps", () => {
  const study = within(ladderOf({}, ["x"]));
  expect(mend({ do: "see-row", row: 6 }, study, study.ladders[0]!)).toEqual({ row: 6 });
  expect(mend({ do: "see-missing" }, study, study.ladders[0]!)).toEqual({ missing: true });
});

test("a bend is told by a square in a further step, or by a logarithm in the place of the number, counted from its lowest where that is not above 0", () => {
  const study = within(ladderOf({}, ["x"], ["few"]));
  const ladder = study.ladders[0]!;
  const after = (fix: LadderFix) => {
    const mending = mend(fix, study, ladder);
    return "edits" in mending ? applyEdits(study, mending.edits).study : study;
  };
  const squared = after({ do: "square", variable: "x" });
  expect(squared.ladders[0]!.steps.map((step) => step.terms.map((t) => t.components))).toEqual([[["x"]], [["few"]], [["x", "x"]]]);
  const fitted = analyseLadder(squared, squared.ladders[0]!, source);
  expect(fitted.status === "fitted" && fitted.fit.steps[2]!.change.df[0]).toBe(1);
  const logged = after({ do: "logarithm", variable: "few", lowest: 0 });
  const { name, recipe } = logged.derived.at(-1)!;
  expect(recipe).toEqual({ kind: "formula", formula: "ln({few} + 1)" });
  expect(logged.ladders[0]!.steps[1]!.terms[0]!.components).toEqual([name]);
  const { values } = new StudyColumns(logged, source).numbers(name);
  expect(values[1]).toBeCloseTo(Math.log((7 % 4) + 1), 12);
  expect(after({ do: "logarithm", variable: "id", lowest: 1000 }).derived.at(-1)!.recipe).toEqual({ kind: "formula", formula: "ln({id})" });
});
