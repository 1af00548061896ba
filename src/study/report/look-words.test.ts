import { analyseLook } from "../analyse/analyse-look";
import { analysePair, type Parting } from "../analyse/analyse-pair";
import type { Desk } from "../kinds/kind";
import { Look } from "../model/look";
import { Study } from "../model/study";
import { StudyColumns } from "../prepare/study-columns";
import { sourceOf } from "../test-support/columns";
import { cellWords, lookTable, tablesOf } from "./look-table";
import { partName, whatTheLookSays, whatThePairSays } from "./look-words";
import { stars } from "./stars";
import { plain } from "./words";

const N = 90;
const wave = (i: number, k: number) => Math.sin((i + 1) * k * 1.7 + k * k);
const cells = (f: (i: number) => number | string) => Array.from({ length: N }, (_, i) => String(f(i)));
const source = sourceOf({
  x: cells((i) => (i === 3 ? "" : 2 * wave(i, 1))),
  y: cells((i) => wave(i, 1) + wave(i, 2)),
  z: cells((i) => -wave(i, 2) + 0.5 * wave(i, 5)),
  q1: cells((i) => 3 + Math.round(wave(i, 2) + wave(i, 7))),
  q2: cells((i) => 3 + Math.round(wave(i, 2) + wave(i, 8))),
  q3: cells((i) => 3 + Math.round(wave(i, 2) + wave(i, 9))),
  who: cells((i) => (i % 3 === 0 ? "new" : "back")),
});
const study = Study.parse({
  format: "beta-step-study",
  version: 1,
  name: "s",
  codebook: [
    ...["x", "y", "z"].map((name) => ({ name, kind: "number" })),
    ...["q1", "q2", "q3"].map((name) => ({ name, kind: "item", range: { low: 1, high: 5 } })),
    { name: "who", label: "Learner", kind: "category", levels: [{ value: "new", label: "beginner" }, { value: "back" }] },
  ],
  scales: [{ id: "calm", name: "Calm", items: ["q1", "q2", "q3"].map((variable) => ({ variable })) }],
});
const desk = { study, responses: source, columns: new StudyColumns(study, source), rows: N } as unknown as Desk;
const NAMES: Record<string, string> = { calm: "Calm", who: "Learner" };
const title = (name: string, level?: string | null) => (level == null ? (NAMES[name] ?? name) : `${NAMES[name] ?? name}: ${level === "new" ? "beginner" : level}`); // prettier-ignore

function looked(own: object) {
  const look = Look.parse({ id: "l", name: "Before the model", variables: ["x", "y", "calm"], ...own });
  const found = analyseLook(look, desk);
  if (found.status === "refused") throw new Error(found.refusal.code);
  return { look, found };
}

test.each([[0.0009, "***"], [0.001, "**"], [0.0099, "**"], [0.01, "*"], [0.0499, "*"], [0.05, ""], [null, ""]] as const)("stars of p = %s: %s", (p, wanted) => expect(stars(p)).toBe(wanted)); // prettier-ignore

test("the strongest pair is named, and where half of the others lie", () => {
  const { found } = looked({ variables: ["x", "y", "z", "calm"] });
  expect(whatTheLookSays(found, title).map(plain)).toEqual([
    expect.stringMatching(/^\w+ and \w+ go together most \(r = −?\.\d\d\); half of the 6 correlations are below \.\d\d in size\.$/),
  ]);
  expect(
    whatTheLookSays(looked({ correlation: "spearman" }).found, title)
      .map(plain)
      .join(),
  ).toContain("(ρ = ");
  expect(whatTheLookSays(looked({ variables: ["x"] }).found, title).map(plain)).toEqual(["90 respondents."]);
});

test("a cell tells r with stars, an exact p or an interval", () => {
  const { found } = looked({});
  const at = (told: "stars" | "exact" | "interval") => cellWords(found.table, 1, 0, told)!;
  expect(at("stars")).toMatchObject({ more: "***", n: 89 });
  expect(at("exact").more).toBe("p < .001");
  expect(at("interval").more).toMatch(/^\[\.\d\d, \.\d\d\]$/);
  expect(cellWords(null, 1, 0, "stars")).toBeNull();
});

test("as a journal prints it: α in the diagonal, correlations below, one row a variable with as many cells as heads, and what stands where in the note", () => {
  const { look, found } = looked({});
  const table = lookTable(look, found, title);
  const [everybody] = table.sections;
  expect(table.sections).toHaveLength(1);
  for (const row of everybody!.rows) expect(row).toHaveLength(table.head.length);
  const calm = everybody!.rows[2]!.map(plain);
  expect(calm[0]).toBe("3 Calm");
  expect(calm.at(-1)).toMatch(/^\(\.\d\d\)$/);
  expect(everybody!.rows[0]!.map(plain).slice(6)).toEqual(["–", "", ""]);
  expect(calm[4]).toBe("1–5");
  expect(plain(table.note)).toBe("Pearson's r below the diagonal, α in the diagonal. Each pair over the respondents who have both. *\u00a0p < .05, **\u00a0p < .01, ***\u00a0p < .001."); // prettier-ignore
});

test("groups have a section each; above the diagonal stands what was chosen, and the note says so", () => {
  const { look, found } = looked({
    by: "who",
    above: { by: "partial" },
    controls: ["z"],
    told: "interval",
    diagonal: "omega",
    cases: "complete",
  });
  const table = lookTable(look, found, title);
  expect(table.title).toBe("Before the model, by Learner");
  expect(table.sections.map((s) => plain(s.heading))).toEqual(["All respondents", "beginner", "back"]);
  const above = plain(table.sections[0]!.rows[0]![7]!);
  const { above: partial } = tablesOf(look, found);
  expect(above).toContain(cellWords(partial, 0, 1, "interval", 1)!.r);
  expect(table.sections[1]!.rows[0]!.map(plain).slice(7)).toEqual(["", ""]); // of groups nothing stands above
  expect(plain(table.note)).toContain("partial correlations given z above it. 89 respondents who have all. 95 % intervals in brackets.");
  expect(plain(table.note)).toContain("ω in the diagonal");
});

test("one level below and another above: each half is that level's", () => {
  const { look, found } = looked({ by: "who", below: "new", above: { by: "level", level: "back" } });
  const { below, above } = tablesOf(look, found);
  expect(below.rows).toBe(30);
  expect(above).toBe(found.groups[1]!.table);
  expect(lookTable(look, found, title).sections.map((s) => plain(s.heading))).toEqual(["beginner"]);
  // a level that nobody has any more: everybody stands there again
  expect(tablesOf({ ...look, below: "gone", above: { by: "level", level: "gone" } }, found)).toMatchObject({
    below: { rows: N },
    above: null,
  });
});

test("parts of a variable as they are named", () => {
  const number: Parting = { variable: "x", parts: [{ from: null, to: 1 }, { from: 1, to: 2.5 }, { from: 2.5, to: null }], codes: new Int32Array(0) }; // prettier-ignore
  expect([0, 1, 2].map((part) => partName(number, part, title))).toEqual(["x up to 1", "x 1 to 2.50", "x above 2.50"]);
  expect(partName({ variable: "x", parts: [{ from: null, to: null }], codes: new Int32Array(0) }, 0, title)).toBe("all x");
  expect(partName({ variable: "who", parts: [{ level: "new" }], codes: new Int32Array(0) }, 0, title)).toBe("beginner");
});

test("a scatter says slope, r with its interval, equation, and that slopes of parts are not tested here", () => {
  const found = analysePair({ x: "x", y: "y", by: "who", panels: [], respondents: null }, desk);
  if (found.status === "refused") throw new Error(found.refusal.code);
  const said = whatThePairSays({ x: "x", y: "y" }, found, title).map(plain);
  expect(said[0]).toMatch(/^For one more of x, y is higher by 0\.\d\d \(r = \.\d\d \[\.\d\d, \.\d\d\], p < \.001, N = 89\); the line is −?\d\.\d\d \+ 0\.\d\d · x\.$/); // prettier-ignore
  expect(said.join(" ")).toMatch(/Slopes go from 0\.\d\d to 0\.\d\d; whether they differ is asked of a ladder\./);
  const falling = analysePair({ x: "y", y: "z", by: null, panels: [], respondents: null }, desk);
  if (falling.status === "refused") throw new Error(falling.refusal.code);
  expect(plain(whatThePairSays({ x: "y", y: "z" }, falling, title)[0]!)).toMatch(/z is lower by 0\.\d\d .* − 0\.\d\d · y\.$/);
});
