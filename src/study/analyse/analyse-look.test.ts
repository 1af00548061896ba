import { Study } from "../model/study";
import { sourceOf } from "../test-support/columns";
import { resultsOf } from "../test-support/results";
import { analyseLook } from "./analyse-look";
import { analysePair } from "./analyse-pair";
import { StudyColumns } from "../prepare/study-columns";
import { lookWatches, whatThePairSays } from "../report/look-words";
import { plain } from "../report/words";

const N = 240;
const wave = (i: number, k: number) => Math.sin((i + 1) * k * 1.7 + k * k);
const cells = (f: (i: number) => number | string) => Array.from({ length: N }, (_, i) => String(f(i)));
const LONG = "a_name_of_eighty_letters_".padEnd(80, "x");
const DATA: Record<string, string[]> = {
  x: cells((i) => 10 * wave(i, 1)),
  twin: cells((i) => 10 * wave(i, 1) + 0.1 * wave(i, 2)),
  bent: cells((i) => (10 * wave(i, 1)) ** 2 + wave(i, 3)),
  wider: cells((i) => wave(i, 5) * (12 + 10 * wave(i, 1))),
  pulled: cells((i) => (i === 7 ? 90 : 3 * wave(i, 4))),
  far: cells((i) => (i === 7 ? 400 : 10 * wave(i, 1))),
  same: cells(() => 4),
  top: cells((i) => (i % 3 === 0 ? 7 : 1 + (i % 7))),
  half: cells((i) => (i % 2 === 0 ? i : "")),
  huge: cells((i) => (i % 2 === 0 ? 1e300 : -1e300)),
  kind: cells((i) => (i % 2 === 0 ? "a" : "b")),
  school: cells((i) => `s${i % 200}`),
  yes: cells((i) => (wave(i, 1) > 0 ? 1 : 0)),
  [LONG]: cells((i) => wave(i, 6)),
};
const study = Study.parse({
  format: "beta-step-study",
  version: 1,
  name: "s",
  codebook: Object.keys(DATA).map((name) => ({
    name,
    kind: name === "kind" || name === "school" ? "category" : "number",
    range: name === "top" ? { low: 1, high: 7 } : name === "x" ? { low: -5, high: 10 } : null,
  })),
});
const source = sourceOf(DATA);
const deskOf = (data: Record<string, string[]>) => {
  const own = sourceOf(data);
  return { study, responses: own, columns: new StudyColumns(study, own), rows: Object.values(data)[0]!.length } as unknown as Parameters<typeof analyseLook>[1]; // prettier-ignore
};
const desk = deskOf(DATA);
const SPEC = {
  respondents: null,
  by: null,
  cases: "pairwise" as const,
  correlation: "pearson" as const,
  controls: [],
  diagonal: "alpha" as const,
};
const title = (name: string, level?: string | null) => (level == null ? name : `${name}: ${level}`);

function watched(variables: string[], own: object = {}, on = desk): string {
  const found = analyseLook({ ...SPEC, variables, ...own }, on);
  if (found.status === "refused") return found.refusal.code;
  return lookWatches(found, new Set(), title).map((w) => plain(w.words)).join(" "); // prettier-ignore
}

test.each<[string, string[], object, string]>([
  ["two that may be one", ["x", "twin"], {}, "x and twin correlate at 1.00: in one step neither can be told from the other."],
  ["values beyond what is possible", ["x"], {}, "x holds 78 values beyond what is possible (−5 to 10)."],
  ["a variable that does not vary", ["same", "x"], {}, "same is 4 for everyone: it goes with nothing."],
  ["a ceiling", ["top"], {}, "% have the highest possible value of top: differences above it are not seen."],
  ["two heaps", ["huge", "x"], {}, ""],
  ["a category of 200 levels as columns", ["school", "x"], {}, "school has 200 levels; at most 12 can stand as columns of a table."],
  ["told by 200 levels", ["x"], { by: "school" }, "school has 200 groups in the sample; at most 30 can be read beside each other."],
  ["all missing in a group", ["half", "x"], { by: "kind" }, ""],
  ["a long name", [LONG, "x"], {}, ""],
])("%s: said, and nothing breaks", async (_, variables, own, words) => {
  expect(watched(variables, own)).toContain(words);
  const looks = [{ id: "l", name: "L", variables, ...own }];
  const document = await resultsOf(Study.parse({ ...study, looks }), source);
  expect(JSON.parse(JSON.stringify(document.looks))).toEqual(document.looks);
  expect(JSON.stringify(document.looks)).not.toContain("NaN");
});

test("of a group in which all is missing nothing is told, of the other everything", () => {
  const found = analyseLook({ ...SPEC, variables: ["half", "x"], by: "kind" }, desk);
  if (found.status === "refused") throw new Error(found.refusal.code);
  const [a, b] = found.groups;
  expect([a!.columns[0]!.description.n, b!.columns[0]!.description.n]).toEqual([120, 0]);
  expect([Number.isNaN(a!.table.r[1]!), Number.isNaN(b!.table.r[1]!)]).toEqual([false, true]);
  expect(b!.columns[0]!.interval).toBeNull();
});

test("two respondents: a table without tests, a scatter that says what it lacks", () => {
  const two = Object.fromEntries(Object.entries(DATA).map(([name, all]) => [name, all.slice(0, 2)]));
  const small = deskOf(two);
  const found = analyseLook({ ...SPEC, variables: ["x", "bent"] }, small);
  expect(found).toMatchObject({ status: "looked", rows: 2 });
  if (found.status === "looked") expect(found.table.p[1]).toBeNaN();
  const pair = analysePair({ x: "x", y: "same", by: null, panels: [], respondents: null }, small);
  expect(pair).toMatchObject({ status: "paired", whole: { smooth: null } });
  const none = analysePair({ x: "same", y: "x", by: null, panels: [], respondents: null }, desk);
  if (none.status === "refused") throw new Error(none.refusal.code);
  expect(whatThePairSays({ x: "same", y: "x" }, none, title)).toEqual(["same or x does not vary here."]);
});

test("a 0/1 with a number is the point-biserial r, a level of a category likewise", async () => {
  const looks = [{ id: "l", name: "L", variables: ["kind", "yes", "x"] }];
  const { l } = (await resultsOf(Study.parse({ ...study, looks }), source)).looks;
  expect(l.correlations["kind[b] ~ x"].point_biserial).toBe(true);
  expect(l.correlations["yes ~ x"].point_biserial).toBe(true);
  expect(l.correlations["kind[b] ~ yes"].point_biserial).toBe(false);
});

test.each([
  ["bent", /^The smooth leaves the band of the line over \d+(\.\d)? % of the range of x: the relation is bent/],
  ["wider", /^wider spreads wider where x is high \(SD about the line/],
])("what the eye might miss: %s", (y, words) => {
  const found = analysePair({ x: "x", y, by: null, panels: [], respondents: null }, desk);
  if (found.status === "refused") throw new Error(found.refusal.code);
  expect(whatThePairSays({ x: "x", y }, found, title).map(plain)).toContainEqual(expect.stringMatching(words));
});

test("one respondent who carries a correlation is named, with r with and without", () => {
  const found = analysePair({ x: "far", y: "pulled", by: null, panels: [], respondents: null }, desk);
  if (found.status === "refused") throw new Error(found.refusal.code);
  const { carrying } = found.facts;
  expect(found.rows[carrying!.at]).toBe(8);
  const without = Object.fromEntries(Object.entries(DATA).map(([name, all]) => [name, all.filter((_, i) => i !== 7)]));
  const other = analysePair({ x: "far", y: "pulled", by: null, panels: [], respondents: null }, deskOf(without));
  if (other.status === "refused") throw new Error(other.refusal.code);
  expect(carrying!.without).toBeCloseTo(other.whole.test!.r, 9);
  expect(whatThePairSays({ x: "far", y: "pulled" }, found, title).map(plain).join()).toMatch(/Row 8 alone moves r from/);
});

test("panels: thirds of a number hold a third each, own edges as given, a category its levels", () => {
  const of = (panels: { variable: string; edges: number[] | null }[]) => {
    const found = analysePair({ x: "x", y: "bent", by: null, panels, respondents: null }, desk);
    if (found.status === "refused") throw new Error(found.refusal.code);
    return found;
  };
  expect(of([{ variable: "twin", edges: null }]).fits.map(({ fit }) => fit.n)).toEqual([80, 80, 80]);
  expect(of([{ variable: "top", edges: [2, 5] }]).panels[0]!.parts).toEqual([{ from: null, to: 2 }, { from: 2, to: 5 }, { from: 5, to: null }]); // prettier-ignore
  const both = of([{ variable: "top", edges: [3] }, { variable: "kind", edges: null }]); // prettier-ignore
  expect(both.fits.map(({ panel }) => panel)).toEqual([[0, 0], [0, 1], [1, 0], [1, 1]]); // prettier-ignore
  expect(both.fits.reduce((sum, { fit }) => sum + fit.n, 0)).toBe(N);
});
