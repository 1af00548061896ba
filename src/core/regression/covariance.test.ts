import fc from "fast-check";
import { expectClose, madeUpData, madeUpSpec } from "../test-support/made-up-data";
import { caseStatistics } from "../diagnostics/case-statistics";
import { coefficientErrors, combination, type Covariance, covariance, type NoCovariance } from "./covariance";
import { fitLadder, ladderModels, ladderTables } from "./ladder";
import { waldTest } from "./wald-test";

const seeds = fc.integer({ min: 1, max: 1e6 });
const spec = madeUpSpec(["a", "g"], ["b", "a*g"]);
const available = (found: Covariance | NoCovariance): Covariance => {
  if ("reason" in found) throw new Error(found.reason);
  return found;
};

test("classical errors come out the same by the general route", () => {
  const models = ladderModels(spec, madeUpData(3));
  const fit = models.fits[1]!;
  const errors = coefficientErrors(fit, available(covariance(fit, { kind: "classical" })));
  expectClose(errors[0], fit.interceptError);
  fit.slopeErrors.forEach((se, i) => expectClose(errors[i + 1], se));
});

test("HC3 is the spread of the leave-one-out coefficients: Σ(b − b₍ᵢ₎)² for each", () => {
  fc.assert(
    fc.property(seeds, (seed) => {
      const models = ladderModels(spec, madeUpData(seed));
      const fit = models.fits[1]!;
      const errors = coefficientErrors(fit, available(covariance(fit, { kind: "hc3" })));
      const { dfbetas, deletedStudentized, studentized } = caseStatistics(fit, models.y);
      const s = Math.sqrt(fit.ssResidual / fit.dfResidual);
      const classical = [fit.interceptError, ...fit.slopeErrors];
      dfbetas.forEach(({ values }, j) => {
        // DFBETAS is in SEs with s₍ᵢ₎, and s₍ᵢ₎/s is the ratio of the two studentized residuals
        const jumps = values.map((v, i) => (v! * (s * studentized[i]!)) / deletedStudentized[i]! / s) as number[];
        expectClose(errors[j], classical[j]! * Math.sqrt(jumps.reduce((sum, v) => sum + v * v, 0)), 1e-8);
      });
    }),
    { numRuns: 10 },
  );
});

test("clusters of one are HC0 with the factor n/df; renaming the clusters changes nothing", () => {
  const data = madeUpData(7);
  const models = ladderModels(spec, data);
  const fit = models.fits[0]!;
  const alone = Int32Array.from({ length: fit.n }, (_, i) => i);
  const [one, renamed] = [alone, alone.map((c) => 1000 - c)].map((codes) =>
    coefficientErrors(fit, available(covariance(fit, { kind: "cluster", codes }))),
  );
  expect(renamed!.every((se, i) => Math.abs(se / one![i]! - 1) < 1e-12)).toBe(true);
  // HC0 in its textbook form, for the only slope of a one-predictor model
  const simple = ladderModels(madeUpSpec(["x"]), data).fits[0]!;
  const x = data.get("x") as Float64Array;
  const centre = x.reduce((s, v) => s + v / x.length, 0);
  const squares = x.reduce((s, v) => s + (v - centre) ** 2, 0);
  const meat = x.reduce((s, v, i) => s + ((v - centre) * simple.residuals[i]!) ** 2, 0);
  const got = coefficientErrors(simple, available(covariance(simple, { kind: "cluster", codes: alone })))[1];
  expectClose(got, Math.sqrt(((simple.n / simple.dfResidual) * meat) / squares ** 2));
});

test("Wald's F of one coefficient is t²; of all of them, with classical errors, the F of the model", () => {
  const fit = ladderModels(spec, madeUpData(9)).fits[1]!;
  const classical = available(covariance(fit, { kind: "classical" }));
  const slopes = fit.columns.map((_, i) => i + 1);
  const model = fit.ssRegression / slopes.length / (fit.ssResidual / fit.dfResidual);
  expectClose(waldTest(fit, slopes, classical).F, model);
  const hc3 = available(covariance(fit, { kind: "hc3" }));
  const errors = coefficientErrors(fit, hc3);
  for (const at of slopes) expectClose(waldTest(fit, [at], hc3).F, (fit.slopes[at - 1]! / errors[at]!) ** 2);
});

test("Wald's F does not depend on the coding of the category it tests", () => {
  const data = madeUpData(10);
  const F = (reference: string) => {
    const categories = new Map([["g", { coding: "indicator" as const, reference }]]);
    return fitLadder({ ...madeUpSpec(["a"], ["g"]), categories, errors: { kind: "hc3" } }, data).steps[1]!.change.F;
  };
  expectClose(F("top"), F("low"));
});

test("a combination of coefficients: the prediction at the means is the mean, with the error s/√n", () => {
  const data = madeUpData(11);
  const { fits, design } = ladderModels(madeUpSpec(["a", "b", "x"]), data);
  const weights = [1, ...design.columns.map((c) => c.values.reduce((s, v) => s + v / c.values.length, 0))];
  const found = combination(fits[0]!, available(covariance(fits[0]!, { kind: "classical" })), weights, 0.95);
  const y = data.get("y") as Float64Array;
  expectClose(
    found.estimate,
    y.reduce((s, v) => s + v / y.length, 0),
  );
  expectClose(found.se, Math.sqrt(fits[0]!.ssResidual / fits[0]!.dfResidual / y.length));
});

describe("what robust errors cannot say is said", () => {
  test("a case that has a coefficient of its own leaves no HC3, and the tables say which case", () => {
    const data = madeUpData(4);
    const alone = new Map([
      ...data,
      ["g", { levels: ["many", "one"], codes: Int32Array.from({ length: 60 }, (_, i) => (i === 17 ? 1 : 0)) }],
    ]);
    const step = fitLadder({ ...madeUpSpec(["a", "g"]), errors: { kind: "hc3" } }, alone).steps[0]!;
    expect(step.notes).toEqual([{ code: "robust-errors-unavailable", why: { reason: "full-leverage", cases: [18] } }]);
    expect(step.coefficients[0]!.b).toMatchObject({ se: null, t: null, p: null, lower: null });
    expect(step.change).toMatchObject({ F: null, p: null });
    expect(step.change.change).toBeGreaterThan(0);
  });

  test("one cluster has no errors; fewer clusters than tested columns no test of the step, but errors", () => {
    const data = madeUpData(4);
    const fit = (clusters: number) =>
      ladderTables(ladderModels(madeUpSpec(["a", "b", "x", "h"]), data), {
        kind: "cluster",
        codes: Int32Array.from({ length: 60 }, (_, i) => i % clusters),
      }).steps[0]!;
    expect(fit(1).notes).toEqual([{ code: "robust-errors-unavailable", why: { reason: "too-few-clusters" } }]);
    const three = fit(3);
    expect(three.clusters).toBe(3);
    expect(three.coefficients[0]!.b.se).toBeGreaterThan(0);
    expect(three.change).toMatchObject({ F: null, p: null, df: [4, 2] });
    expect(fit(12).change.F).toBeGreaterThan(0);
  });
});
