import { fitMoments, momentsOf } from "@/core/regression/moments";
import { randomStream } from "@/core/random/random-stream";
import { Ladder } from "../model/ladder";
import { Study } from "../model/study";
import { cells, deskOf } from "../test-support/desk";
import { refitted, type RefittableResults } from "./ladder-moments";
import { loadAnalyses, resultsDocument } from "./results-document";

const N = 200;
const stream = randomStream(11);
const draw = () => Array.from({ length: N }, () => stream.normal());
const [x, m, e] = [draw(), draw(), draw()];
const desk = deskOf({
  y: cells(N, (i) => 1000 + 3 * x[i]! + 2 * m[i]! * x[i]! + (i % 3) + e[i]!),
  x: cells(N, (i) => 50 + x[i]!),
  m: cells(N, (i) => 1e-4 * m[i]!),
  site: cells(N, (i) => ["park", "yard", "hall"][i % 3]!),
});
const steps = [
  { id: "a", terms: [{ components: ["x"] }, { components: ["site"] }] },
  { id: "b", terms: [{ components: ["m"] }] },
  { id: "c", terms: [{ components: ["x", "m"] }, { components: ["x", "site"] }] },
];
const ladders = (["mean", "z", "raw"] as const).map((centring) => Ladder.parse({ id: centring, name: centring, outcome: "y", centring, steps })); // prettier-ignore
const study = Study.parse({ ...desk.study, ladders, codebook: desk.study.codebook.map((v) => (v.name === "site" ? { ...v, kind: "category" } : v)) }); // prettier-ignore

test("b, SE, β, R² and ΔR² of every step come again from n, means, SDs and correlations, whatever the centring", async () => {
  const results = resultsDocument(study, desk.responses, await loadAnalyses());
  for (const { id } of ladders) {
    const found = refitted(results.ladders[id] as RefittableResults);
    expect(found.differ).toEqual([]);
    // 3 + 4 + 7 columns, three numbers each, and two a step
    expect(found.compared).toBe(3 * (3 + 4 + 7) + 6);
  }
  // what was changed afterwards is found
  const forged = JSON.parse(JSON.stringify(results.ladders["mean"])) as { steps: Record<string, { coef: Record<string, { b: number }> }> };
  forged.steps["2"]!.coef["m"]!.b *= 1 + 1e-6;
  expect(refitted(forged as unknown as RefittableResults).differ.map(({ of }) => of)).toEqual(["steps.2.coef.m.b"]);
});

test("from exact moments the line is exact, and columns that determine one another are refused", () => {
  const a = Float64Array.from([1, 2, 3, 4]);
  const made = momentsOf([{ name: "y", values: a.map((v) => 2 * v + 1) }, { name: "a", values: a }, { name: "a2", values: a.map((v) => 3 * v) }]); // prettier-ignore
  const { R2, b, intercept } = fitMoments(made, "y", ["a"]);
  expect(R2).toBeCloseTo(1, 12);
  expect(b[0]).toBeCloseTo(2, 12);
  expect(intercept).toBeCloseTo(1, 12);
  expect(() => fitMoments(made, "y", ["a", "a2"])).toThrow(RangeError);
});
