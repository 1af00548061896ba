import fc from "fast-check";
import { randomStream } from "@/core/random/random-stream";
import { type Structure, structureParts } from "../model/structure";
import { Study } from "../model/study";
import { StudyColumns } from "../prepare/study-columns";
import { sourceOf } from "../test-support/columns";
import { analyseStructure, type RandomEigenvalueShelf } from "./analyse-structure";
import { itemPlaces, scaleAgreement, sortedPlaces } from "./factor-places";
import { denialIn } from "./denial";
import { structureResults } from "./structure-results";

const N = 120;
/** Six items of two factors, a constant, a sum of two, a category for filters; q3 runs the other way. */
const data = (() => {
  const random = randomStream(2);
  const [f, g] = [0, 1].map(() => Array.from({ length: N }, () => random.normal())) as [number[], number[]];
  const answer = (x: number) => Math.max(1, Math.min(7, Math.round(4 + 1.2 * x + 0.6 * random.normal())));
  const items = {
    q1: f.map(answer),
    q2: f.map(answer),
    q3: f.map((x) => 8 - answer(x)),
    q4: g.map(answer),
    q5: g.map(answer),
    q6: g.map(answer),
  };
  const more = {
    flat: items.q1.map(() => 4),
    sum: items.q1.map((x, i) => x + items.q2[i]!),
    town: f.map((_, i) => (i % 3 === 0 ? "A" : "B")),
  };
  const cells = Object.fromEntries(Object.entries({ ...items, ...more }).map(([name, values]) => [name, values.map(String)]));
  cells["q6"]![5] = "";
  return cells;
})();
const source = sourceOf(data);
const SIX = ["q1", "q2", "q3", "q4", "q5", "q6"];

function explored(over: Partial<Structure> = {}, study: object = {}) {
  const whole = Study.parse({
    format: "beta-step-study",
    version: 1,
    name: "s",
    codebook: [...SIX, "flat", "sum"]
      .map((name) => ({ name, kind: "item", range: { low: 1, high: 7 } }))
      .concat([{ name: "town", kind: "category" } as never]),
    scales: [
      { id: "first", name: "First", items: [{ variable: "q1" }, { variable: "q2" }, { variable: "q3", reversed: true }] },
      { id: "second", name: "Second", items: ["q4", "q5", "q6"].map((variable) => ({ variable })) },
    ],
    structures: [{ id: "t", name: "T", items: SIX, sets: 100, ...over }],
    ...study,
  });
  const [structure] = whole.structures;
  const parts = structureParts(whole.scales, structure!);
  return { study: whole, structure: structure!, result: analyseStructure({ ...structure!, parts }, new StudyColumns(whole, source)) };
}
const analysed = (over: Partial<Structure> = {}, study: object = {}) => {
  const { result, ...rest } = explored(over, study);
  if (result.status !== "explored") throw new Error(result.refusal.code);
  return { ...rest, result, analysis: result.analysis };
};

test("items are keyed as in their scales or left as asked; both factors are found, on complete respondents", () => {
  const { analysis, study } = analysed();
  expect([analysis.rows, analysis.n, analysis.parallel.retained, analysis.factors]).toEqual([N, N - 1, 2, 2]);
  expect(analysis.reversed).toEqual(["q3"]);
  const places = itemPlaces(analysis.items, analysis.solution!.rotated.pattern, 2, 0.3);
  expect(scaleAgreement(study.scales, places)).toMatchObject([
    { scale: "first", elsewhere: [], nowhere: [], against: [], guests: [] },
    { scale: "second", elsewhere: [], nowhere: [], against: [], guests: [] },
  ]);
  const asked = analysed({ keying: "asked" });
  const raw = itemPlaces(asked.analysis.items, asked.analysis.solution!.rotated.pattern, 2, 0.3);
  expect(asked.analysis.reversed).toEqual([]);
  expect(scaleAgreement(asked.study.scales, raw)[0]).toMatchObject({ against: ["q3"] });
});

test("law: turning an item round only changes the signs of its loadings, whatever the method", () => {
  fc.assert(
    fc.property(
      fc.constantFrom("principal-axis", "maximum-likelihood", "minimum-residual", "principal-components"),
      fc.constantFrom("varimax", "promax", "oblimin", "none"),
      (extraction, rotation) => {
        const loadings = (keying: "scales" | "asked") => {
          const { analysis } = analysed({ keying, extraction, rotation } as Partial<Structure>);
          return Array.from(analysis.solution!.rotated.pattern, Math.abs);
        };
        const [a, b] = [loadings("scales"), loadings("asked")];
        a.forEach((x, at) => expect(Math.abs(x - b[at]!)).toBeLessThan(1e-6));
      },
    ),
    { numRuns: 16 },
  );
});

test("law: a filter gives the numbers of a file without the others", () => {
  const filters = [{ id: "town_b", name: "B", conditions: [{ kind: "values", variable: "town", equals: ["B"] }] }];
  const filtered = analysed({ respondents: "town_b" }, { filters }).analysis;
  const kept = data["town"]!.map((town, i) => (town === "B" ? i : -1)).filter((i) => i >= 0);
  const without = sourceOf(Object.fromEntries(Object.entries(data).map(([name, cells]) => [name, kept.map((i) => cells[i]!)])));
  const { study, structure } = analysed();
  const alone = analyseStructure({ ...structure, parts: structureParts(study.scales, structure) }, new StudyColumns(study, without));
  expect(filtered.leftOut).toBe(N - kept.length);
  expect(alone.status === "explored" && { ...alone.analysis, leftOut: filtered.leftOut }).toEqual(filtered);
});

test("what cannot be had is said, and the rest is there", () => {
  const constant = analysed({ items: [...SIX, "flat"] }).analysis;
  expect([constant.constant, constant.items]).toEqual([["flat"], SIX]);
  const singular = analysed({ items: [...SIX, "sum"], extraction: "maximum-likelihood" }).analysis;
  expect(singular).toMatchObject({ adequacy: null, sphericity: null, solution: null, refusal: { code: "singular-correlations" } });
  expect(singular.singular).toMatchObject({ details: { item: "sum" } });
  expect(singular.eigenvalues).toHaveLength(7);
  expect(analysed({ items: [...SIX, "sum"] }).analysis.solution).toMatchObject({ initialFrom: "largest-correlation" });
  expect(analysed({ factors: 5 }).analysis).toMatchObject({ solution: null, refusal: { code: "too-many-factors", details: { most: 3 } } });
  expect(explored({ items: ["q1", "q2", "flat"] }).result).toMatchObject({
    status: "refused",
    refusal: { code: "too-few-items", details: { items: 2, constant: ["flat"] } },
  });
  const undeclared = { codebook: SIX.map((name) => ({ name, kind: "item" })) };
  expect(explored({}, undeclared).result).toMatchObject({ status: "refused", refusal: { code: "undeclared-range" } });
  expect(explored({ items: ["q1", "q2", "q4"] }, { filters: [{ id: "no", name: "No", everywhere: true, conditions: [{ kind: "values", variable: "town", equals: ["C"] }] }] }).result).toMatchObject({ refusal: { code: "too-few-cases" } }); // prettier-ignore
});

test("factors held apart tell how far they would correlate; oblique ones need not", () => {
  expect(analysed({ rotation: "varimax" }).analysis.ifOblique).toHaveLength(4);
  expect(analysed({ rotation: "oblimin" }).analysis.ifOblique).toBeNull();
  expect(analysed({ factors: 1 }).analysis.ifOblique).toBeNull();
});

test("the shelf of random eigenvalues never changes a number, and spares the work", () => {
  const { study, structure } = analysed();
  const shelf: RandomEigenvalueShelf = new Map();
  const run = (on: RandomEigenvalueShelf, told: number[] = []) => {
    const spec = { ...structure, parts: structureParts(study.scales, structure) };
    return { told, result: analyseStructure(spec, new StudyColumns(study, source), (done) => told.push(done), on) };
  };
  const [first, second] = [run(shelf), run(shelf)];
  expect(first.told).toEqual([10, 20, 30, 40, 50, 60, 70, 80, 90, 100]);
  expect(second.told).toEqual([]);
  expect(second.result).toEqual(first.result);
  expect(run(new Map()).result).toEqual(first.result);
});

test("the results document holds no NaN, whatever the structure", () => {
  for (const over of [{ factors: 5 }, { items: [...SIX, "sum"] }, { items: [...SIX, "flat"] }, { rotation: "promax" as const }]) {
    const { structure, result } = explored(over);
    const document = structureResults(structure, result);
    expect(JSON.parse(JSON.stringify(document))).toEqual(document);
    expect(JSON.stringify(document)).not.toMatch(/NaN|Infinity/);
  }
});

test("items stand by factor and strength; crossings and homeless ones are marked", () => {
  const loadings = Float64Array.from([0.2, 0.8, 0.5, -0.4, 0.9, 0.1, 0.1, 0.2, 0.3, -0.7]);
  const places = itemPlaces(["a", "b", "c", "d", "e"], loadings, 2, 0.3);
  expect(places[1]).toEqual({ item: "b", factor: 0, loading: 0.5, cross: [1] });
  expect(places[3]).toMatchObject({ factor: null, cross: [] });
  expect(sortedPlaces(places).map((p) => p.item)).toEqual(["c", "b", "a", "e", "d"]);
});

test.each([
  ["I do not like it", "not"],
  ["I don’t mind", "don’t"],
  ["I say little unless I am asked", "little"],
  ["Ich fühle mich nie allein", "nie"],
  ["I can knot a tie", null],
  ["", null],
])("%p denies by %p", (wording, word) => expect(denialIn(wording)).toBe(word));
