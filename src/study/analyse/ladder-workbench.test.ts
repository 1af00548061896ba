import fc from "fast-check";
import { applyEdits, EditRefusedError } from "../model/edit";
import { Ladder } from "../model/ladder";
import { Study } from "../model/study";
import { touchedBy } from "../kinds/standing";
import { StudyColumns } from "../prepare/study-columns";
import { sourceOf } from "../test-support/columns";
import { analyseComparison } from "./analyse-comparison";
import { analyseLadder } from "./analyse-ladder";
import { ladderDepth } from "./ladder-depth";

const wave = (i: number, k: number) => (Math.sin((i + 1) * (k + 3) * 12.9898) * 43758.5453) % 1;
const N = 60;
const cells = (f: (i: number) => number, gaps: readonly number[] = []) =>
  Array.from({ length: N }, (_, i) => (gaps.includes(i) ? "" : String(f(i))));
const source = sourceOf({
  y: cells((i) => 2 * wave(i, 1) + wave(i, 2) + wave(i, 9), [7]),
  a: cells((i) => wave(i, 1)),
  b: cells((i) => wave(i, 2), [3, 4]),
  c: cells((i) => wave(i, 5), [50, 51, 52]),
  g: Array.from({ length: N }, (_, i) => ["x", "z"][i % 2]!),
});
const step = (id: string, ...terms: string[]) => ({ id, terms: terms.map((t) => ({ components: t.split("*") })) });
const ladder = (id: string, ...steps: string[][]) =>
  Ladder.parse({ id, name: id, outcome: "y", steps: steps.map((terms, k) => step(`s${k}`, ...terms)) });
const study = (over: object = {}) =>
  Study.parse({
    format: "beta-step-study",
    version: 1,
    name: "s",
    codebook: [...["y", "a", "b", "c"].map((name) => ({ name })), { name: "g", kind: "category" }],
    ...over,
  });
const fitted = (of: Ladder, within = study()) => {
  const result = analyseLadder(within, of, source);
  if (result.status !== "fitted") throw new Error(result.refusal.code);
  return result;
};

test("law: a term that is switched off leaves the model and keeps the respondents", () => {
  const whole = ladder("l", ["a", "g"], ["b", "a*b"]);
  fc.assert(
    fc.property(fc.subarray(["a", "g", "b", "a*b"]), fc.boolean(), fc.boolean(), (off, firstOff, secondOff) => {
      const steps = whole.steps.map((s, k) => ({
        ...s,
        off: [firstOff, secondOff][k]!,
        terms: s.terms.map((t) => ({ ...t, off: off.includes(t.components.join("*")) })),
      }));
      const result = analyseLadder(study(), { ...whole, steps }, source);
      const bare = steps.map((s) => ({ ...s, off: false, terms: s.off ? [] : s.terms.filter((t) => !t.off) }));
      if (bare.every((s) => s.terms.length === 0)) {
        expect(result).toMatchObject({ status: "refused", refusal: { code: "no-terms" } });
        return;
      }
      const without = analyseLadder(study(), { ...whole, steps: bare, alsoComplete: ["a", "g", "b"] }, source);
      if (result.status !== "fitted" || without.status !== "fitted") throw new Error("refused");
      expect(result.fit).toEqual(without.fit);
      expect(result.sample.rowsUsed).toEqual(fitted(whole).sample.rowsUsed);
    }),
  );
});

describe("ladders side by side", () => {
  const [one, two] = [ladder("one", ["a"], ["b"]), ladder("two", ["a"], ["c"])];
  const models = [
    { name: "One", ladder: "one", step: null },
    { name: "Two", ladder: "two", step: null },
  ];
  const beside = (sample: "own" | "common", ladders: Ladder[] = [one, two]) =>
    analyseComparison(study(), { id: "c", name: "C", models, sample, folds: null, seed: 1 }, ladders, source);

  test("different respondents are refused with the size of each sample", () => {
    expect(beside("own")).toMatchObject({
      status: "refused",
      refusal: { code: "unlike-models", details: { differ: "sample" } },
      samples: [
        { name: "One", used: N - 3 },
        { name: "Two", used: N - 4 },
      ],
    });
  });

  test("law: the common sample is that of ladders which ask for each other's answers", () => {
    const common = beside("common");
    const asking = beside("own", [
      { ...one, alsoComplete: ["c"] },
      { ...two, alsoComplete: ["b"] },
    ]);
    if (common.status !== "compared" || asking.status !== "compared") throw new Error("refused");
    expect(common.sample.rowsUsed).toEqual(asking.sample.rowsUsed);
    expect(common.models).toEqual(asking.models);
    expect(common.pairs).toEqual(asking.pairs);
    expect(common.models.reduce((sum, m) => sum + m.aicWeight!, 0)).toBeCloseTo(1, 12);
  });

  test("a ladder that cannot be fitted says which, and another outcome is refused", () => {
    expect(beside("common", [one, { ...two, outcome: null }])).toMatchObject({
      refusal: { code: "model-refused", details: { model: "Two" } },
    });
    const other = { ...two, outcome: "c", steps: one.steps };
    expect(beside("common", [one, other])).toMatchObject({ refusal: { code: "unlike-models", details: { differ: "outcome" } } });
  });
});

describe("values of a model as variables", () => {
  const of = ladder("l", ["a"], ["b"]);
  const variable = (name: string, statistic: string, over: object = {}) => ({
    codebook: [{ name }],
    derived: [{ name, recipe: { kind: "case", statistic, ladder: { ...of, ...over }, step: 2 } }],
  });
  const all = ["predicted", "residual", "standardized", "studentized", "deleted", "leverage", "cooks-d", "dffits"];
  const saved = study({
    codebook: [...study().codebook, ...all.map((name) => ({ name }))],
    derived: all.flatMap((name) => variable(name, name).derived),
  });
  const columns = new StudyColumns(saved, source);
  const at = (name: string, row: number) => columns.numbers(name).values[row]!;

  test("law: predicted and residual add up to the outcome, and explain what the step explains; who is not in it has none", () => {
    const { fit, sample } = fitted(of);
    for (const row of sample.rowsUsed) expect(at("predicted", row - 1) + at("residual", row - 1)).toBeCloseTo(at("y", row - 1), 12);
    const again = fitted(ladder("again", ["predicted"]), saved);
    expect(again.fit.steps[0]!.model.R2).toBeCloseTo(fit.steps[1]!.model.R2, 12);
    expect(again.fit.steps[0]!.coefficients[0]!.b.estimate).toBeCloseTo(1, 12);
    const { missing } = columns.numbers("predicted");
    expect([3, 4, 7].map((row) => missing[row])).toEqual([1, 1, 1]);
    expect(missing.reduce((sum, gone) => sum + gone, 0)).toBe(3);
    expect(columns.facts("predicted")).toMatchObject({ rows: N, valid: N - 3, missingInputs: 3 });
  });

  test("leverages add up to the number of coefficients; residuals keep their order and relations", () => {
    const { fit, sample } = fitted(of);
    const rows = sample.rowsUsed.map((row) => row - 1);
    expect(rows.reduce((sum, row) => sum + at("leverage", row), 0)).toBeCloseTo(3, 10);
    const s = fit.steps[1]!.model.residualSd;
    for (const row of rows) {
      const h = at("leverage", row);
      expect(at("standardized", row)).toBeCloseTo(at("residual", row) / s, 10);
      expect(at("studentized", row)).toBeCloseTo(at("residual", row) / (s * Math.sqrt(1 - h)), 10);
      expect(at("dffits", row)).toBeCloseTo(at("deleted", row) * Math.sqrt(h / (1 - h)), 10);
      expect(at("cooks-d", row)).toBeCloseTo((at("studentized", row) ** 2 * h) / (1 - h) / 3, 10);
    }
  });

  test("they keep to the ladder as it stood, and to its filter, which then cannot go", () => {
    const filter = { id: "f", name: "F", conditions: [{ kind: "values", variable: "g", equals: ["x"] }] };
    const filtered = variable("p", "predicted", { respondents: "f" });
    const own = study({ ...filtered, codebook: [...study().codebook, { name: "p" }], filters: [filter], ladders: [of] });
    const before = Array.from(new StudyColumns(own, source).numbers("p").values);
    const changed = applyEdits(own, [{ subject: "ladder", id: "l", to: null }]).study;
    expect(Array.from(new StudyColumns(changed, source).numbers("p").values)).toEqual(before);
    expect(new StudyColumns(own, source).facts("p").valid).toBeLessThan(N / 2 + 1);
    expect(() => applyEdits(own, [{ subject: "filter", id: "f", to: null }])).toThrow(EditRefusedError);
    // a change of the filter, or of an answer, moves them
    const on = { ...own, ladders: [ladder("on", ["p"])] };
    const moved = (change: { subject: "filter" | "correction"; id: string }) =>
      touchedBy(on, [{ ...change, from: null }]).map((one) => one.name);
    expect(moved({ subject: "filter", id: "f" })).toEqual(["on"]);
    expect(moved({ subject: "correction", id: "3:b" })).toEqual(["on"]);
  });

  test("a variable cannot stand on a model of itself", () => {
    const round = variable("p", "predicted", { steps: [step("s0", "p"), step("s1", "b")] });
    expect(() => study({ ...round, codebook: [...study().codebook, { name: "p" }] })).toThrow(/circle/);
  });
});

test("behind the tables: part intervals of every step and the rows to look at", () => {
  const odd = (name: string) => {
    const column = source(name)!;
    return name === "y" ? { ...column, values: column.values.map((v, i) => (i === 20 ? 40 : v)) } : column;
  };
  const of = ladder("l", ["a"], ["b"]);
  const depth = ladderDepth(of, 1, new StudyColumns(study(), odd))!;
  expect(depth.parts.map((step) => Object.keys(step))).toEqual([["a"], ["a", "b"]]);
  expect(depth.notable[0]).toMatchObject({ row: 21 });
  expect(ladderDepth({ ...of, outcome: null }, 0, new StudyColumns(study(), source))).toBeNull();
});
