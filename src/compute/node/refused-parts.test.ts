import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { computeFile } from "./compute-file";

/** One part that cannot be worked out is refused where it stands; every other part has the numbers that it has without it. */
const folder = mkdtempSync(path.join(tmpdir(), "beta-step-refused-"));
afterAll(() => rmSync(folder, { recursive: true }));

/** A day of its own for each respondent, not in the order of the rows, the day before the month. */
function day(i: number): string {
  const at = new Date(Date.UTC(1999, 0, 1 + 31 * ((i * 19) % 48)));
  return `${at.getUTCDate()}.${at.getUTCMonth() + 1}.${at.getUTCFullYear()}`;
}
const rows = Array.from({ length: 48 }, (_, i) => {
  const [a, b] = [Math.sin(i * 1.7), Math.cos(i * 2.3)];
  const items = [1, 2, 3].map((k) => 3 + Math.round(1.8 * Math.sin(i * 0.9 + 0.25 * k)));
  return [i + 1, a, b, a + b * b + Math.sin(i * 5.1), ...items, i % 4, 7, `day ${i}`, (i * 19) % 48, day(i)];
});
const CSV = `id,a,b,y,q1,q2,q3,g,k,words,rank,born\n${rows.map((row) => row.join(",")).join("\n")}\n`;
const ladder = (id: string, more: object = {}) => ({
  id,
  name: id,
  outcome: "y",
  steps: [
    { id: "s1", terms: [{ components: ["a"] }] },
    { id: "s2", terms: [{ components: ["b"] }, { components: ["a", "b"] }] },
  ],
  ...more,
});
const item = (variable: string, more: object = {}) => ({ variable, ...more });
const WHOLE = {
  codebook: [{ name: "a" }, { name: "born", kind: "date" }, { name: "gone" }, { name: "odd" }, { name: "fine" }],
  derived: [
    { name: "fine", recipe: { kind: "formula", formula: "a * 2" } },
    { name: "odd", recipe: { kind: "centre", from: "a" } },
  ],
  scales: [{ id: "s", name: "S", items: [item("q1"), item("q2"), item("q3")] }],
  structures: [{ id: "all", name: "All", items: ["q1", "q2", "q3"], factors: 1, sets: 100 }],
  filters: [{ id: "f", name: "F", conditions: [{ kind: "between", variable: "b", low: 0, high: null }] }],
  ladders: [ladder("main"), ladder("some", { respondents: "f", order: { by: "rows" } })],
  comparisons: [
    {
      id: "c",
      name: "C",
      models: [
        { name: "A", ladder: "main", step: 1 },
        { name: "B", ladder: "main" },
      ],
    },
  ],
};

async function results(study: object): Promise<any> {
  const [studyFile, dataFile] = [path.join(folder, "study.json"), path.join(folder, "data.csv")];
  writeFileSync(studyFile, JSON.stringify({ format: "beta-step-study", version: 1, name: "x", ...study }));
  writeFileSync(dataFile, CSV);
  return JSON.parse(JSON.stringify(await computeFile(studyFile, dataFile)));
}

const recipe = (name: string, made: object) => ({ derived: [...WHOLE.derived.filter((d) => d.name !== name), { name, recipe: made }] });
const broken: [string, object, (all: any) => unknown, unknown][] = [
  [
    "a z-score of what does not vary",
    recipe("odd", { kind: "z", from: "k" }),
    (all) => all.variables.odd.refusal.code,
    "nothing-to-standardize",
  ],
  [
    "a formula that cannot be read",
    recipe("odd", { kind: "formula", formula: "a + (" }),
    (all) => all.variables.odd.refusal.code,
    "formula-fault",
  ],
  [
    "a variable worked out from a column that is gone",
    recipe("odd", { kind: "centre", from: "gone" }),
    (all) => all.variables.odd.refusal.code,
    "missing-column",
  ],
  [
    "folds that are gone",
    { ladders: [...WHOLE.ladders, ladder("odd", { folds: "gone" })] },
    (all) => [all.ladders.odd.status, all.ladders.odd.comparison.cross_validation_folds.reason],
    ["fitted", "folds-refused"],
  ],
  [
    "an order that is gone",
    { ladders: [...WHOLE.ladders, ladder("odd", { order: { by: "variable", variable: "gone" } })] },
    (all) => [all.ladders.odd.status, all.ladders.odd.durbin_watson_permutation.reason],
    ["fitted", "order-refused"],
  ],
  [
    "words as order",
    { ladders: [...WHOLE.ladders, ladder("odd", { order: { by: "variable", variable: "words" } })] },
    (all) => all.ladders.odd.durbin_watson_permutation.reason,
    "order-is-no-number",
  ],
  [
    "a filter whose formula cannot be read",
    {
      filters: [...WHOLE.filters, { id: "odd", name: "O", conditions: [{ kind: "formula", formula: "a >" }] }],
      ladders: [...WHOLE.ladders, ladder("odd", { respondents: "odd" })],
    },
    (all) => all.ladders.odd.refusal.code,
    "formula-fault",
  ],
  [
    "a reversed item without a range",
    { scales: [...WHOLE.scales, { id: "turned", name: "O", items: [item("q1"), item("a", { reversed: true })] }] },
    (all) => all.scales.turned.refusal.code,
    "undeclared-range",
  ],
  [
    "items that do not vary",
    { structures: [...WHOLE.structures, { id: "odd", name: "O", items: ["k", "gone", "q1"], factors: 1, sets: 100 }] },
    (all) => all.structures.odd.status,
    "refused",
  ],
];

let without: any = null;
beforeAll(async () => (without = await results(WHOLE)));

test.each(broken)("%s", async (_, part, told, wanted) => {
  const all = await results({ ...WHOLE, ...part });
  expect(told(all)).toEqual(wanted);
  for (const section of ["variables", "scales", "structures", "ladders", "comparisons"]) {
    const others = Object.fromEntries(Object.entries<unknown>(all[section]).filter(([id]) => id in without[section] && id !== "odd"));
    const before = Object.fromEntries(Object.entries<unknown>(without[section]).filter(([id]) => id !== "odd"));
    expect(others).toEqual(before);
  }
});

test("dates order respondents by their day; ties are told", async () => {
  const by = async (variable: string) =>
    (await results({ ...WHOLE, ladders: [...WHOLE.ladders, ladder("odd", { order: { by: "variable", variable } })] })).ladders.odd;
  const [days, ranks, ties] = [await by("born"), await by("rank"), await by("g")];
  expect(days.durbin_watson).toEqual(ranks.durbin_watson);
  expect(days.durbin_watson["2"]).not.toBe((await by("id")).durbin_watson["2"]);
  expect([ties.durbin_watson, ties.durbin_watson_permutation.reason]).toEqual([null, "order-has-ties"]);
});

test("the interval of a change follows the ladder's errors: clusters count, and one cluster gives none", async () => {
  const of = async (cluster: string | null) => {
    const { ladders } = await results({ ...WHOLE, ladders: [...WHOLE.ladders, ladder("odd", { cluster })] });
    return ladders.odd.steps["2"].change.large_sample_interval;
  };
  const [alone, within] = [await of(null), await of("g")];
  expect(within.upper - within.lower).not.toBeCloseTo(alone.upper - alone.lower, 3);
  expect(await of("k")).toBeNull();
});

test("a product that stands without its parts: groups are compared, replicates and shuffles are told as refused, everything else is there", async () => {
  const odd = ladder("odd", {
    steps: [{ id: "s1", terms: [{ components: ["a", "b"] }] }],
    intervals: { by: "bca", replicates: 1000 },
  });
  const groups = [{ id: "g1", ladder: "odd", variable: "g", shuffles: 1000 }];
  const all = await results({ ...WHOLE, ladders: [...WHOLE.ladders, odd], groups });
  const { status, permutation, bootstrap, differences } = all.groups.g1;
  expect([status, permutation.refusal.code, bootstrap]).toEqual(["compared", "not-closed", null]);
  expect(Object.values<any>(differences)[0]["0 - 1"].p).toBeGreaterThan(0);
  expect(all.ladders.main).toEqual(without.ladders.main);
});

test("a variable the study works out may not have the name of a column", async () => {
  await expect(
    results({ ...WHOLE, ...recipe("words", { kind: "centre", from: "a" }), codebook: [...WHOLE.codebook, { name: "words" }] }),
  ).rejects.toThrow(/"words" is worked out by the study and is a column of the data as well/);
});
