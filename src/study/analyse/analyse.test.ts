import { Ladder } from "../model/ladder";
import { Scale } from "../model/scale";
import { Study } from "../model/study";
import { sourceOf } from "../test-support/columns";
import { analyseLadder } from "./analyse-ladder";
import { analyseScale } from "./analyse-scale";
import { resultsDocument } from "./results-document";

const n = 24;
const cells = (f: (i: number) => number | string) => Array.from({ length: n }, (_, i) => String(f(i)));
const answer = (i: number, k: number) => 1 + (Math.floor(Math.abs(Math.sin(i * 7.1 + k)) * 40 + i) % 5);
const source = sourceOf({
  q1: cells((i) => answer(i, 0)),
  q2: cells((i) => (i === 5 ? 55 : answer(i, 1))),
  q3: cells((i) => (i < 2 ? "" : answer(i, 2))),
  x: cells((i) => i * i),
  y: cells((i) => answer(i, 0) + i),
  group: cells((i) => (i % 2 ? "odd" : "even")),
});
const item = (name: string) => ({ name, kind: "item", range: { low: 1, high: 5 } });
const study = Study.parse({
  format: "beta-step-study",
  version: 1,
  name: "s",
  codebook: [item("q1"), item("q2"), item("q3"), { name: "x" }, { name: "y" }, { name: "group", kind: "category" }],
  scales: [{ id: "q", name: "Q", answeredShare: 0.6, items: [{ variable: "q1" }, { variable: "q2" }, { variable: "q3", reversed: true }] }],
});
const ladder = (over: object) =>
  Ladder.parse({
    id: "l",
    name: "L",
    outcome: "y",
    steps: [
      { id: "a", terms: [{ components: ["x"] }] },
      { id: "b", terms: [{ components: ["q"] }] },
    ],
    ...over,
  });

test("a scale's score enters a ladder by its id; who has no score is lost by that name", () => {
  const strict = { ...study, scales: [{ ...study.scales[0]!, answeredShare: 1 }] };
  const result = analyseLadder(strict, ladder({}), source);
  expect(result.status).toBe("fitted");
  expect(result.sample).toMatchObject({ rows: n, used: n - 2, missingByVariable: { q: 2, x: 0, y: 0 } });
  expect(result.sample!.rowsUsed[0]).toBe(3);
});

test("a filter keeps respondents by what the file says", () => {
  const result = analyseLadder(study, ladder({ filter: { variable: "group", equals: ["odd"] } }), source);
  expect(result.sample).toMatchObject({ keptByFilter: n / 2, used: n / 2 });
});

test.each([
  [{ outcome: null }, "no-outcome"],
  [{ steps: [{ id: "a" }] }, "no-terms"],
  [{ outcome: "x" }, "outcome-among-predictors"],
  [{ filter: { variable: "group", equals: ["neither"] } }, "too-few-cases"],
  [{ outcome: "gone" }, "missing-column"],
])("%p is refused as %s, as data", (over, code) => {
  expect(analyseLadder(study, ladder(over), source)).toMatchObject({ status: "refused", refusal: { code } });
});

test("a scale's sheet: counts add up, answers out of range are told apart, strips show answers as asked", () => {
  const result = analyseScale(study, study.scales[0]!, source);
  if (result.status !== "scored") throw new Error("refused");
  const { analysis } = result;
  expect([analysis.complete, analysis.prorated, analysis.unscored]).toEqual([n - 2, 2, 0]);
  expect(analysis.histogram!.counts.reduce((a, b) => a + b)).toBe(n);
  expect(analysis.strips[1]!.outside).toEqual([{ value: 55, count: 1 }]);
  expect(analysis.strips[2]).toMatchObject({ missing: 2, outside: [] });
  expect(analysis.reliability!.n).toBe(n - 2);
});

test("a scale that reverses an item without a range is refused and still shows its answers", () => {
  const bare = { ...study, codebook: study.codebook.map((v) => ({ ...v, range: null })) };
  const result = analyseScale(bare, study.scales[0]!, source);
  expect(result).toMatchObject({ status: "refused", refusal: { code: "undeclared-range", details: { items: ["q3"] } } });
  expect(result.status === "refused" && result.strips).toHaveLength(3);
});

test("a scale of one item has scores and no reliability", () => {
  const result = analyseScale(study, Scale.parse({ id: "one", name: "One", items: [{ variable: "q1" }] }), source);
  expect(result.status === "scored" && result.analysis.reliability).toBeNull();
});

test("the results document holds no NaN and survives JSON as it is", () => {
  const document = resultsDocument({ ...study, ladders: [ladder({}), ladder({ id: "empty", outcome: null })] }, source);
  expect(JSON.parse(JSON.stringify(document))).toEqual(document);
  expect(document.ladders.empty).toMatchObject({ status: "refused", refusal: { code: "no-outcome" } });
  expect(document.scales.q!.status).toBe("scored");
});
