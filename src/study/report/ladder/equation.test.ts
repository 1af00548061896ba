import type { Titles } from "../level-title";
import { analyseLadder } from "../../analyse/analyse-ladder";
import { Ladder } from "../../model/ladder";
import { Study, titleOf } from "../../model/study";
import { sourceOf } from "../../test-support/columns";
import { coefficientSentence, type Told } from "./coefficient-words";
import { equationOf } from "./equation";

const cells = (f: (i: number) => number | string) => Array.from({ length: 12 }, (_, i) => String(f(i)));
const a = [2, 4, 6, 8, 10, 12, 3, 5, 7, 9, 11, 1];
const b = [1, 0, 3, 2, 5, 4, 2, 7, 1, 3, 0, 2];
const source = sourceOf({
  // exactly 3 + 2a − 0.5b, so that the equation is known without a fit
  y: cells((i) => 3 + 2 * a[i]! - 0.5 * b[i]!),
  noisy: cells((i) => 3 + 2 * a[i]! - 0.5 * b[i]! + (i % 3)),
  a: cells((i) => a[i]!),
  b: cells((i) => b[i]!),
  g: cells((i) => ["x", "z"][i % 2]!),
});
const study = Study.parse({
  format: "beta-step-study",
  version: 1,
  name: "s",
  codebook: [
    { name: "y", label: "Joy" },
    { name: "noisy", label: "Joy", unit: "smiles" },
    { name: "a", label: "Effort", unit: "hours" },
    { name: "b", label: "Help" },
    { name: "g", label: "Room", kind: "category", levels: [{ value: "x" }, { value: "z", label: "Blue" }] },
  ],
});
const title: Titles = (name, level) => titleOf(study, name, level);
const fitOf = (outcome: string, over: object, ...terms: string[]) => {
  const steps = [{ id: "s", terms: terms.map((t) => ({ components: t.split("*") })) }];
  const result = analyseLadder(study, Ladder.parse({ id: "l", name: "L", outcome, steps, ...over }), source);
  if (result.status !== "fitted") throw new Error(result.refusal.code);
  return result.fit;
};
const unit = (name: string) => study.codebook.find((v) => v.name === name)?.unit ?? "";

test("an equation in words and in symbols, signs before the numbers", () => {
  const fit = fitOf("y", {}, "a", "b");
  expect(equationOf(fit.steps[0]!, fit, title)).toEqual({
    words: "Predicted Joy = 3.00 + 2.00 · Effort − 0.50 · Help",
    symbols: "ŷ = 3.00 + 2.00x₁ − 0.50x₂",
    where: ["x₁ = Effort", "x₂ = Help"],
  });
});

test("what is centred, z-scored or a level says so, once, and products are of those", () => {
  const fit = fitOf("noisy", {}, "a", "b", "a*b", "g");
  const { words, where } = equationOf(fit.steps[0]!, fit, title);
  expect(where).toEqual(["x₁ = Effort − 6.50", "x₂ = Help − 2.50", "x₃ = [Room: Blue]"]);
  expect(words).toMatch(/· \(Effort − 6\.50\) · \(Help − 2\.50\)/);
  const z = fitOf("noisy", { centring: "z" }, "a", "a*a");
  expect(equationOf(z.steps[0]!, z, title).where).toEqual(["x₁ = (Effort − 6.50)/3.61"]);
});

test("a coefficient is read in the metric that is shown, with the units the codebook gives", () => {
  const fit = fitOf("noisy", { centring: "raw" }, "a", "b", "a*b");
  const [effort, , product] = fit.steps[0]!.coefficients;
  const read = (c: typeof effort, told: Told) => coefficientSentence(c!, fit, { title, unit }, told);
  const two = (v: number) => Math.abs(v).toFixed(2);
  expect(read(effort, "b")).toBe(
    `One more hour of Effort goes with ${two(effort!.b.estimate)} smiles higher Joy, where Help is 0, the others held constant.`,
  );
  expect(read(effort, "beta")).toMatch(
    /^One SD more of Effort goes with \d?\.\d\d SD higher Joy, at the mean of Help, the others held constant\.$/,
  );
  expect(read(product, "b")).toMatch(/^Effort × Help: the slope of Effort changes by −?0\.\d+ for each point of Help\.$/);
  const share = (effort!.part ** 2 * 100).toFixed(1);
  for (const told of ["part", "part2"] as const)
    expect(read(effort, told)).toMatch(`Effort by itself, beyond all the others, goes with ${share} % of the variance of Joy`);
});
