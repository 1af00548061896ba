import { holm } from "../distributions/holm";
import { expectClose, madeUpData, madeUpSpec } from "../test-support/made-up-data";
import type { Category } from "./categories";
import { type Covariance, covariance } from "./covariance";
import { type LadderModels, ladderModels } from "./ladder";
import { marginalMeans } from "./marginal-means";

const data = madeUpData(31);
const classical = (models: LadderModels, k: number) => covariance(models.fits[k]!, { kind: "classical" }) as Covariance;
const meansOf = (models: LadderModels, k: number, variable: string) => marginalMeans(models, k, variable, classical(models, k))!;

test("with the category alone they are the means of the groups, with the pooled error", () => {
  const models = ladderModels(madeUpSpec(["g"]), data);
  const [g, y] = [data.get("g") as Category, data.get("y") as Float64Array];
  const { means, contrasts } = meansOf(models, 0, "g");
  const s = Math.sqrt(models.fits[0]!.ssResidual / models.fits[0]!.dfResidual);
  means.forEach(({ level, prediction }, i) => {
    const own = y.filter((_, at) => g.codes[at] === i);
    expect(level).toBe(g.levels[i]);
    expectClose(
      prediction!.estimate,
      own.reduce((sum, v) => sum + v / own.length, 0),
    );
    expectClose(prediction!.se, s / Math.sqrt(own.length));
  });
  expect(contrasts.map((c) => [c.level, c.minus])).toEqual([
    ["mid", "low"],
    ["top", "low"],
    ["top", "mid"],
  ]);
  expect(contrasts.map((c) => c.pHolm)).toEqual(holm(contrasts.map((c) => c.difference!.p!)));
});

test("they depend neither on coding, reference and centring nor on where the products stand", () => {
  const base = madeUpSpec(["a", "b", "g", "h"], ["a*g", "g*h", "b*b"]);
  const specs = [
    base,
    { ...base, centring: "raw" as const },
    { ...base, centring: "z" as const },
    { ...base, categories: new Map([["g", { coding: "deviation" as const, reference: "mid" }]]) },
    madeUpSpec(["h", "g*h", "g", "b*b"], ["b", "a*g", "a"]),
  ];
  const all = specs.map((spec) => ladderModels(spec, data));
  for (const variable of ["g", "h", "a", "b"]) {
    const want = meansOf(all[0]!, 1, variable);
    for (const models of all.slice(1)) {
      const got = meansOf(models, 1, variable);
      got.means.forEach((m, i) => {
        expectClose(m.prediction!.estimate, want.means[i]!.prediction!.estimate, 1e-8);
        expectClose(m.prediction!.se, want.means[i]!.prediction!.se, 1e-8);
      });
      got.contrasts.forEach((c, i) => expectClose(c.difference!.t, want.contrasts[i]!.difference!.t, 1e-7));
    }
  }
});

test("a numeric variable is told at its mean and one SD to either side; the contrast is the slope times the distance", () => {
  const models = ladderModels(madeUpSpec(["a", "x"]), data);
  const { means, contrasts } = meansOf(models, 0, "x");
  expect(means.map((m) => m.level)).toEqual(["low", "mean", "high"]);
  const distance = means[2]!.at! - means[0]!.at!;
  expectClose(contrasts[1]!.difference!.estimate, models.fits[0]!.slopes[1]! * distance);
  expectClose(means[1]!.prediction!.se, Math.sqrt(models.fits[0]!.ssResidual / models.fits[0]!.dfResidual / 60));
});

test("a variable without a term in the step has none; with a chosen covariance the errors follow it", () => {
  const models = ladderModels(madeUpSpec(["a"], ["g"]), data);
  expect(marginalMeans(models, 0, "g", classical(models, 0))).toBeNull();
  const hc3 = covariance(models.fits[1]!, { kind: "hc3" }) as Covariance;
  const [robust, plain] = [marginalMeans(models, 1, "g", hc3)!, meansOf(models, 1, "g")];
  expectClose(robust.means[0]!.prediction!.estimate, plain.means[0]!.prediction!.estimate);
  expect(Math.abs(robust.means[0]!.prediction!.se! / plain.means[0]!.prediction!.se! - 1)).toBeGreaterThan(0.001);
});

test("a mean over a combination that nobody has is not made up", () => {
  const [g, h] = [Array.from({ length: 60 }, (_, i) => i % 3), Array.from({ length: 60 }, (_, i) => (i % 3 === 2 ? 0 : (i >> 2) % 2))];
  const holed = new Map([
    ...data,
    ["g", { levels: ["low", "mid", "top"], codes: Int32Array.from(g) }],
    ["h", { levels: ["no", "yes"], codes: Int32Array.from(h) }],
  ]);
  const models = ladderModels(madeUpSpec(["g", "h"], ["g*h"]), holed);
  const { means, contrasts } = meansOf(models, 1, "g");
  expect(means.map((m) => m.prediction === null)).toEqual([false, false, true]);
  expect(contrasts.map((c) => c.difference === null)).toEqual([false, true, true]);
  expectClose(contrasts[0]!.pHolm, contrasts[0]!.difference!.p); // the family is what could be tested
  expect(meansOf(models, 0, "g").means.every((m) => m.prediction !== null)).toBe(true);
});
