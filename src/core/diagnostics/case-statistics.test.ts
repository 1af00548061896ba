import fc from "fast-check";
import { expectClose, madeUpData, madeUpSpec, withoutCases } from "../test-support/made-up-data";
import { addedVariables, caseStatistics, studentizedAt } from "./case-statistics";
import { ladderModels } from "../regression/ladder";

const seeds = fc.integer({ min: 1, max: 1e6 });
const spec = madeUpSpec(["a", "b"], ["g", "x"]);
const statistics = (data: ReturnType<typeof madeUpData>, of = spec) => {
  const models = ladderModels(of, data);
  const fit = models.fits.at(-1)!;
  return { fit, ...caseStatistics(fit, models.y) };
};

test("leverages lie between 1/n and 1 and add up to p + 1; fitted and residual add up to the outcome", () => {
  fc.assert(
    fc.property(seeds, (seed) => {
      const data = madeUpData(seed);
      const { leverage, fitted, residual, fit } = statistics(data);
      expectClose(
        leverage.reduce((s, h) => s + h, 0),
        fit.columns.length + 1,
      );
      expect(leverage.every((h) => h > 1 / 60 - 1e-12 && h < 1)).toBe(true);
      const y = data.get("y") as Float64Array;
      y.forEach((v, i) => expectClose(fitted[i]! + residual[i]!, v));
    }),
    { numRuns: 15 },
  );
});

test("what a case does to the fit is what refitting without it shows", () => {
  const data = madeUpData(21);
  const { fit, deletedStudentized, cooksD, dffits, dfbetas, leverage, fitted, residual } = statistics(data);
  const s = Math.sqrt(fit.ssResidual / fit.dfResidual);
  for (const gone of [0, 7, 33]) {
    const left = ladderModels(spec, withoutCases(data, new Set([gone]))).fits.at(-1)!;
    const sLeft = Math.sqrt(left.ssResidual / left.dfResidual);
    expectClose(deletedStudentized[gone], residual[gone]! / sLeft / Math.sqrt(1 - leverage[gone]!), 1e-8);
    const before = [fit.intercept, ...fit.slopes];
    const errors = [fit.interceptError, ...fit.slopeErrors];
    [left.intercept, ...left.slopes].forEach((b, j) =>
      expectClose(dfbetas[j]!.values[gone], (before[j]! - b) / (errors[j]! * (sLeft / s)), 1e-7),
    );
    const moved = fitted.map((v, i) =>
      i === gone ? 0 : v - ((data.get("y") as Float64Array)[i]! - left.residuals[i < gone ? i : i - 1]!),
    );
    const own = residual[gone]! / (1 - leverage[gone]!) - residual[gone]!; // fitted with − fitted without the case
    expectClose(cooksD[gone], (moved.reduce((sum, v) => sum + v * v, 0) + own * own) / ((fit.columns.length + 1) * s * s), 1e-7);
    expectClose(dffits[gone], own / (sLeft * Math.sqrt(leverage[gone]!)), 1e-7);
  }
});

test("law: a case lies on the contour of its own Cook's distance", () => {
  const { fit, cooksD, leverage, studentized } = statistics(madeUpData(4));
  cooksD.forEach((d, i) => expectClose(Math.abs(studentized[i]!), studentizedAt(d!, leverage[i]!, fit.columns.length)));
});

test("in the added-variable picture the line through the cloud has the slope b and the residuals of the fit", () => {
  fc.assert(
    fc.property(seeds, (seed) => {
      const { fit } = statistics(madeUpData(seed));
      addedVariables(fit).forEach(({ column, x, y }, i) => {
        expect(column).toBe(fit.columns[i]);
        const squares = x.reduce((s, v) => s + v * v, 0);
        expectClose(y.reduce((s, v, j) => s + v * x[j]!, 0) / squares, fit.slopes[i]);
        expectClose(y[5]! - fit.slopes[i]! * x[5]!, fit.residuals[5]);
        expect(Math.abs(x.reduce((s, v) => s + v, 0))).toBeLessThan(1e-9 * Math.sqrt(squares * 60)); // freed of the intercept too
      });
    }),
    { numRuns: 10 },
  );
});

test("with leverage 1 only leverage and raw residual are told of a case, and which case it is", () => {
  const data = new Map([
    ...madeUpData(2),
    ["h", { levels: ["no", "yes"], codes: Int32Array.from({ length: 60 }, (_, i) => (i === 40 ? 1 : 0)) }],
  ]);
  const found = statistics(data, madeUpSpec(["a", "h"]));
  expect(found.fullLeverage).toEqual([41]);
  for (const list of [found.studentized, found.deletedStudentized, found.cooksD, found.dffits, found.dfbetas[1]!.values]) {
    expect(list.map((v, i) => (v === null ? i : -1)).filter((i) => i >= 0)).toEqual([40]);
  }
});

test("a perfect fit has leverages and no residual statistics", () => {
  const data = madeUpData(2);
  const perfect = new Map([...data, ["y", (data.get("a") as Float64Array).map((v) => 3 - 2 * v)]]);
  const { studentized, standardized, cooksD, leverage } = statistics(perfect, madeUpSpec(["a"]));
  for (const list of [studentized, standardized, cooksD]) expect(list.every((v) => v === null)).toBe(true);
  expect(leverage.every((h) => h > 0)).toBe(true);
});

test("with a single degree of freedom there is no residual SD without the case", () => {
  const data = new Map([...withoutCases(madeUpData(2), new Set(Array.from({ length: 56 }, (_, i) => i + 4)))]);
  const { deletedStudentized, studentized, dffits } = statistics(data, madeUpSpec(["a", "x"]));
  expect(studentized.some((v) => v !== null)).toBe(true);
  for (const list of [deletedStudentized, dffits]) expect(list).toEqual([null, null, null, null]);
});
