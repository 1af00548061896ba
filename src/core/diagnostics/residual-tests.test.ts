import { randomStream } from "../random/random-stream";
import { expectClose, madeUpData, madeUpSpec } from "../test-support/made-up-data";
import { ladderModels } from "../regression/ladder";
import type { Fit } from "../regression/least-squares";
import { breuschPagan, durbinWatson, reset } from "./residual-tests";

const fitOf = (data = madeUpData(5), ...steps: string[][]): Fit => ladderModels(madeUpSpec(...steps), data).fits.at(-1)!;
const fittedOf = (fit: Fit, y: Float64Array) => y.map((v, i) => v - fit.residuals[i]!);
const testOf = (fit: Fit, ...rest: [Int32Array, { seed: number; permutations: number }]) => durbinWatson([fit], ...rest)[0]!;
const inOrder = (n: number) => Int32Array.from({ length: n }, (_, i) => i);

test("Breusch–Pagan is n·R² of the squared residuals on the same columns", () => {
  const data = madeUpData(5);
  const fit = fitOf(data, ["a", "g"]);
  const squared = new Map([...data, ["y", fit.residuals.map((e) => e * e)]]);
  const again = fitOf(squared, ["a", "g"]);
  const found = breuschPagan(fit);
  if ("reason" in found) throw new Error(found.reason);
  expectClose(found.chi2, (60 * again.ssRegression) / again.ssTotal);
  expect(found.df).toBe(3);
});

test("Breusch–Pagan sees residuals that spread with a predictor", () => {
  const random = randomStream(4);
  const a = Float64Array.from({ length: 300 }, () => random.normal());
  const y = (spread: (v: number) => number) => a.map((v) => v + spread(v) * random.normal());
  const p = (values: Float64Array) => {
    const found = breuschPagan(
      fitOf(
        new Map([
          ["a", a],
          ["y", values],
        ]),
        ["a"],
      ),
    );
    return "p" in found ? found.p : 1;
  };
  expect(p(y((v) => Math.exp(0.8 * v)))).toBeLessThan(1e-6);
  expect(p(y(() => 1))).toBeGreaterThan(0.01);
});

test("RESET is the F of entering two powers of the fitted values, in any unit of the outcome", () => {
  const data = madeUpData(9);
  const y = data.get("y") as Float64Array;
  const fit = fitOf(data, ["a", "g"]);
  const fitted = fittedOf(fit, y);
  const powers = ladderModels(
    madeUpSpec(["a", "g"], ["f2", "f3"]),
    new Map([...data, ["f2", fitted.map((v) => v ** 2)], ["f3", fitted.map((v) => v ** 3)]]),
  );
  const [before, after] = powers.fits;
  const found = reset(fit, fitted);
  if ("reason" in found) throw new Error(found.reason);
  expectClose(found.F, (before!.ssResidual - after!.ssResidual) / 2 / (after!.ssResidual / after!.dfResidual), 1e-7);
  expect(found.df).toEqual([2, 60 - 4 - 2]);
  const cents = y.map((v) => 100 * v - 7);
  const other = fitOf(new Map([...data, ["y", cents]]), ["a", "g"]);
  const again = reset(other, fittedOf(other, cents));
  expectClose("F" in again ? again.F : null, found.F, 1e-8);
});

test("Durbin–Watson: d counts neighbours, p shuffled orders; the seed decides which", () => {
  const data = new Map([
    ...madeUpData(6),
    ["y", Float64Array.from({ length: 60 }, (_, i) => Math.sin(i / 6) + 0.2 * Math.sin(i * 12.9898))],
  ]);
  const fit = fitOf(data, ["x"]);
  const found = testOf(fit, inOrder(60), { seed: 3, permutations: 199 });
  if ("reason" in found) throw new Error(found.reason);
  const e = fit.residuals;
  const steps = e.slice(1).reduce((s, v, i) => s + (v - e[i]!) ** 2, 0);
  expectClose(found.d, steps / e.reduce((s, v) => s + v * v, 0));
  expect(found).toMatchObject({ p: 2 / 200, permutations: 199, seed: 3 }); // no shuffle is as smooth
  expect(testOf(fit, inOrder(60), { seed: 3, permutations: 199 })).toEqual(found);
  // in an order that means nothing the same residuals are unremarkable
  const random = randomStream(8);
  const order = inOrder(60).sort(() => random.uniform() - 0.5);
  const shuffled = testOf(fit, order, { seed: 3, permutations: 199 });
  expect("p" in shuffled && shuffled.p).toBeGreaterThan(0.05);
  // beside other fits, one that is perfect among them, a fit has the same test
  const perfect = fitOf(new Map([...data, ["y", (data.get("a") as Float64Array).map((v) => 2 * v)]]), ["a"]);
  expect(durbinWatson([perfect, fit], inOrder(60), { seed: 3, permutations: 199 })).toEqual([{ reason: "perfect-fit" }, found]);
  const backwards = testOf(fit, inOrder(60).reverse(), { seed: 3, permutations: 9 });
  expectClose("d" in backwards ? backwards.d : null, found.d);
});

test("what cannot be tested is said with its reason", () => {
  const data = madeUpData(7);
  const a = data.get("a") as Float64Array;
  const perfect = fitOf(new Map([...data, ["y", a.map((v) => 2 * v)]]), ["a"]);
  for (const found of [breuschPagan(perfect), reset(perfect, a), testOf(perfect, inOrder(60), { seed: 1, permutations: 9 })]) {
    expect(found).toEqual({ reason: "perfect-fit" });
  }
  const empty = fitOf(data, []);
  expect([breuschPagan(empty), reset(empty, fittedOf(empty, data.get("y") as Float64Array))]).toEqual([
    { reason: "no-columns" },
    { reason: "no-columns" },
  ]);
  // two groups have two fitted values, whose powers follow from the indicator
  const groups = fitOf(data, ["h"]);
  expect(reset(groups, fittedOf(groups, data.get("y") as Float64Array))).toEqual({ reason: "nothing-to-add" });
});
