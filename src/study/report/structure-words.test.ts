import type { Titles } from "./level-title";
import { eigenvalueShares, varianceStages } from "@/core/factors/variance-explained";
import { randomStream } from "@/core/random/random-stream";
import { analyseStructure } from "../analyse/analyse-structure";
import { itemPlaces, scaleAgreement } from "../analyse/factor-places";
import { type Structure, structureParts } from "../model/structure";
import { plain } from "./words";
import { Study, titleOf } from "../model/study";
import { StudyColumns } from "../prepare/study-columns";
import { sourceOf } from "../test-support/columns";
import { formatShare } from "./format-number";
import { loadingsTable } from "./loadings-table";
import { agreementSentences, structureMethod, structureWatches, whatTheStructureSays } from "./structure-words";

const N = 150;
const ITEMS = ["a1", "a2", "a3", "b1", "b2", "b3"];
/** Two factors that go together; every number is a z-like continuous value, so that nothing depends on rounding to answers. */
function study(over: Partial<Structure> = {}, change: (row: Record<string, number>) => Record<string, number> = (row) => row) {
  const random = randomStream(9);
  const rows = Array.from({ length: N }, () => {
    const f = random.normal();
    const g = 0.6 * f + 0.8 * random.normal();
    return change(Object.fromEntries(ITEMS.map((name) => [name, (name.startsWith("a") ? f : g) + 0.6 * random.normal()])));
  });
  const names = Object.keys(rows[0]!);
  const source = sourceOf(Object.fromEntries(names.map((name) => [name, rows.map((row) => String(row[name]))])));
  const whole = Study.parse({
    format: "beta-step-study",
    version: 1,
    name: "s",
    codebook: names.map((name) => ({ name, kind: "item", range: { low: -9, high: 9 } })),
    scales: [
      { id: "a", name: "Ease", items: ["a1", "a2", "a3"].map((variable) => ({ variable })) },
      { id: "b", name: "Zest", items: ["b1", "b2", "b3"].map((variable) => ({ variable })) },
    ],
    structures: [{ id: "t", name: "All", items: names, sets: 100, ...over }],
  });
  const [structure] = whole.structures;
  const result = analyseStructure({ ...structure!, parts: structureParts(whole.scales, structure!) }, new StudyColumns(whole, source));
  if (result.status !== "explored") throw new Error(result.refusal.code);
  const { analysis } = result;
  const title: Titles = (name, level) => titleOf(whole, name, level);
  const watches = structureWatches(structure!, analysis, whole, title);
  return { whole, structure: structure!, analysis, title, watches, watch: (id: string) => watches.find((w) => w.id === id) };
}

test("what the numbers say: adequacy, Bartlett's test, how many factors and how much they explain", () => {
  const { analysis, title } = study({ rotation: "oblimin" });
  const said = whatTheStructureSays(analysis, title).join(" ");
  expect(said).toContain(`Sampling adequacy is ${formatShare(analysis.adequacy!.overall)}`);
  expect(said).toContain("χ²(15) = ");
  expect(said).toContain(
    "Parallel analysis suggests 2 factors: the first 2 eigenvalues are larger than in 95 % of 100 random data sets of 150 respondents.",
  );
  expect(said).toMatch(/The factors correlate up to \.\d\d \(1 with 2\)\. Read the pattern/);
  expect(said).toMatch(/The 2 factors together explain \d\d % of the items' variance\./);
});

test("factors held apart that would correlate come with the way to let them; left free, nothing is said", () => {
  expect(study().watch("apart")).toMatchObject({ fixes: [{ to: { rotation: "oblimin" } }] });
  expect(study({ rotation: "oblimin" }).watch("apart")).toBeUndefined();
});

test("a number of factors that is not the suggested one, and factors with too few items, are pointed out with a way back", () => {
  const three = study({ factors: 3 });
  expect(three.watch("count")).toMatchObject({
    words: "You chose 3 factors; parallel analysis suggests 2.",
    fixes: [{ to: { factors: null } }],
  });
  expect(three.watch("thin")).toMatchObject({ fixes: [{ to: { factors: 2 } }] });
  expect(study().watch("count")).toBeUndefined();
});

test("constant items, copies and sums, crossings and items without a factor are named", () => {
  const constant = study({}, (row) => ({ ...row, same: 3 }));
  expect(constant.watch("constant")).toMatchObject({
    words: "Everyone gave the same answer to same, so it is left out here.",
    fixes: [{ to: { items: ITEMS } }],
  });
  const copy = study({}, (row) => ({ ...row, again: row["a1"]! }));
  expect(copy.watch("singular")!.words).toMatch(/^again is determined by the items before it/);
  expect(copy.watch("singular")!.fixes![0]!.to.items).toEqual(ITEMS);
  const stray = study({ factors: 2 }, (row) => ({
    ...row,
    stray: Math.sin(1e4 * row["a1"]!),
    both: row["a1"]! + row["b1"]! + Math.sin(1e3 * row["b2"]!),
  }));
  expect(stray.watch("lonely") ?? stray.watch("inadequate")).toMatchObject({
    words: expect.stringMatching(/^stray /),
    fixes: [{ to: { items: [...ITEMS, "both"] } }],
  });
  expect(study().watch("lonely")).toBeUndefined();
  expect(stray.watch("homeless")!.words).toContain("stray loads on no factor");
  expect(stray.watch("cross")!.words).toMatch(/\bboth loads? at \.30 or more on several factors\./);
});

test("a Heywood case is not to be interpreted", () => {
  const heywood = study({ items: ["a1", "a2", "a3"], factors: 1, extraction: "minimum-residual" }, (row) => ({
    ...row,
    a2: row["a1"]! + 0.1 * row["a2"]!,
    a3: row["a1"]! - row["a2"]! + 0.01 * row["b1"]!,
  }));
  expect(heywood.analysis.solution!.heywood.length).toBeGreaterThan(0);
  expect(heywood.watch("heywood")!.words).toContain("(a Heywood case). Such a solution is not to be interpreted.");
});

test("loadings held against the scales: as keyed, against the key, with another factor", () => {
  const of = (change: (row: Record<string, number>) => Record<string, number>) => {
    const { analysis, whole, title } = study({ rotation: "oblimin", factors: 2 }, change);
    return agreementSentences(scaleAgreement(whole.scales, itemPlaces(analysis.items, analysis.solution!.rotated.pattern, 2, 0.3)), title);
  };
  expect(of((row) => row)).toEqual([
    expect.stringMatching(/^Ease: all 3 items on factor [12], as keyed\.$/),
    expect.stringMatching(/^Zest: all 3 items on factor [12], as keyed\.$/),
  ]);
  const [ease, zest] = of((row) => ({ ...row, a2: -row["a2"]!, b3: row["a1"]! + 0.2 * row["b3"]! }));
  expect(ease).toMatch(/^Ease: all 3 items on factor [12]; a2 runs against the others and b3 of other scales joins it\.$/);
  expect(zest).toMatch(/^Zest: 2 of 3 items on factor [12]; b3 goes with another factor\.$/);
});

test("the method section names items, respondents, extraction, rotation and what they explain", () => {
  const { structure, analysis } = study({ extraction: "maximum-likelihood", rotation: "promax" });
  const words = plain(structureMethod(structure, analysis));
  expect(words).toContain(
    "The 6 items were submitted to an exploratory factor analysis (maximum likelihood) on the 150 respondents complete on all of them",
  );
  expect(words).toContain("Parallel analysis (100 random data sets, 95th percentile) suggested 2 factors.");
  expect(words).toMatch(
    /2 factors were extracted and rotated by promax \(κ = 4\), explaining \d\d % of the variance; factor correlations were at most \.\d\d in size\./,
  );
});

test("the printed table has every item once, the loadings to read, what factors explain and how they correlate", () => {
  const { structure, analysis, title } = study({ rotation: "oblimin" });
  const table = loadingsTable(structure, analysis, analysis.solution!, title);
  expect(table.sections.map((s) => s.heading)).toEqual(["Pattern loadings", "Explained", "Factor correlations"]);
  expect(table.sections[0]!.rows.map((row) => row[0]).sort()).toEqual(ITEMS);
  const [item, first] = table.sections[0]!.rows[0]!.map(plain) as [string, string];
  expect(first).toBe(formatShare(analysis.solution!.rotated.pattern[2 * analysis.items.indexOf(item)]!));
  for (const section of table.sections) for (const row of section.rows) expect(row).toHaveLength(table.head.length);
});

test("law: what factors explain together is the sum of what each does, and turning at right angles moves none of it; all eigenvalues explain all", () => {
  for (const rotation of ["varimax", "oblimin"] as const) {
    const { analysis } = study({ rotation, factors: 2 });
    const [before, extracted, turned] = varianceStages(analysis.eigenvalues, analysis.solution!);
    for (const stage of [before!, extracted!, turned!]) {
      expect(stage.together.variance).toBeCloseTo(stage.factors[0]!.variance + stage.factors[1]!.variance, 12);
      expect(stage.together.percent).toBeCloseTo((100 * stage.together.variance) / ITEMS.length, 12);
    }
    expect(turned!.together.variance).toBeCloseTo(extracted!.together.variance, 9);
  }
  const { analysis } = study();
  expect(eigenvalueShares(analysis.eigenvalues).at(-1)!.upTo).toBeCloseTo(100, 9);
  const single = study({ factors: 1 }).analysis;
  expect(varianceStages(single.eigenvalues, single.solution!).map((s) => s.stage)).toEqual(["eigenvalue", "extracted"]);
});
