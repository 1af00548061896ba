import { randomStream } from "@/core/random/random-stream";
import { analyseStructure } from "@/study/analyse/analyse-structure";
import { applyEdits } from "@/study/model/edit";
import { type Structure, structureParts } from "@/study/model/structure";
import { Study } from "@/study/model/study";
import { StudyColumns } from "@/study/prepare/study-columns";
import { sourceOf } from "@/study/test-support/columns";
import { type FactorScoring, scalesFromFactors } from "./scales-from-factors";

const N = 140;
const random = randomStream(14);
const [f, g] = [0, 1].map(() => Array.from({ length: N }, () => random.normal())) as [number[], number[]];
const answer = (x: number, turn: boolean) => {
  const a = Math.max(1, Math.min(7, Math.round(4 + 1.3 * x + 0.6 * random.normal())));
  return String(turn ? 8 - a : a);
};
// q3 is reverse-keyed in its scale already, q6 should be and is not
const cells = Object.fromEntries(
  ["q1", "q2", "q3", "q4", "q5", "q6"].map((name, i) => [name, (i < 3 ? f : g).map((x) => answer(x, name === "q3" || name === "q6"))]),
);
const source = sourceOf(cells);
const study = Study.parse({
  format: "beta-step-study",
  version: 1,
  name: "s",
  codebook: Object.keys(cells).map((name) => ({ name, kind: "item", range: { low: 1, high: 7 } })),
  scales: [{ id: "ease", name: "Ease", items: [{ variable: "q1" }, { variable: "q2" }, { variable: "q3", reversed: true }] }],
  structures: [
    {
      id: "t",
      name: "Six",
      items: Object.keys(cells),
      sets: 100,
      rotation: "oblimin",
      extraction: "maximum-likelihood",
    } satisfies Partial<Structure>,
  ],
});
const [structure] = study.structures;
const result = analyseStructure({ ...structure!, parts: structureParts(study.scales, structure!) }, new StudyColumns(study, source));
const analysis = (result.status === "explored" ? result.analysis : null)!;
const made = (scoring: FactorScoring) => {
  const after = applyEdits(study, scalesFromFactors(study, structure!, analysis, scoring)).study;
  return { study: after, scales: after.scales.slice(1), columns: new StudyColumns(after, source) };
};

test("each item goes to the factor it loads on, turned so that it runs with it; a factor of one scale bears its name", () => {
  const { scales } = made("mean");
  expect(scales.map((s) => s.rule)).toEqual(["mean", "mean"]);
  const ease = scales.find((s) => s.name.startsWith("Ease, factor"))!;
  expect(ease.items).toEqual([
    { variable: "q1", reversed: false, weight: 1 },
    { variable: "q2", reversed: false, weight: 1 },
    { variable: "q3", reversed: true, weight: 1 },
  ]);
  const other = scales.find((s) => s !== ease)!;
  expect(other.name).toMatch(/^Six, factor \d$/);
  const turned = Object.fromEntries(other.items.map((i) => [i.variable, i.reversed]));
  expect(turned["q4"]).toBe(turned["q5"]);
  expect(turned["q6"]).toBe(!turned["q4"]);
});

test("weighted scores are the sizes of the loadings on z-scores, and say where they come from", () => {
  const { scales } = made("weighted");
  for (const scale of scales) {
    expect(scale).toMatchObject({ rule: "weighted", weigh: "z" });
    expect(scale.weightsFrom).toMatch(/^factor \d of 2 of “Six” \(maximum likelihood, direct oblimin \(γ = 0\), 140 respondents\)$/);
    const factor = Number(/^factor (\d)/.exec(scale.weightsFrom)![1]) - 1;
    for (const item of scale.items) {
      const loading = analysis.solution!.rotated.pattern[2 * analysis.items.indexOf(item.variable) + factor]!;
      expect(item.weight).toBeCloseTo(Math.abs(loading), 11);
    }
  }
});

test.each(["regression", "bartlett"] as const)("law: %s scores of the made scales have the solution's factors behind them", (scoring) => {
  const { scales, columns } = made(scoring);
  const scores = scales.map((scale) => columns.scale(scale).scores.values);
  expect(scales.map((s) => s.items.length)).toEqual([6, 6]);
  const r = (x: Float64Array, y: ArrayLike<number>) => {
    const [mx, my] = [x.reduce((a, b) => a + b, 0) / N, Array.from(y).reduce((a, b) => a + b, 0) / N];
    const cross = x.reduce((sum, v, i) => sum + (v - mx) * (y[i]! - my), 0);
    return cross / Math.sqrt(x.reduce((s, v) => s + (v - mx) ** 2, 0) * Array.from(y).reduce((s, v) => s + (v - my) ** 2, 0));
  };
  // each true factor is found again by one of the two scores, up to its sign
  for (const truth of [f, g]) expect(Math.max(...scores.map((score) => Math.abs(r(score, truth))))).toBeGreaterThan(0.93);
});

test("without a solution no scale is made", () => {
  expect(scalesFromFactors(study, structure!, { ...analysis, solution: null }, "mean")).toEqual([]);
});
