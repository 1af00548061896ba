import fc from "fast-check";
import { UnlikeModelsError } from "../errors";
import { expectClose, madeUpData, madeUpSpec, withoutCases } from "../test-support/made-up-data";
import { caseStatistics } from "../diagnostics/case-statistics";
import { type Candidate, compareModels } from "./compare-models";
import { crossValidation, seededFolds } from "./cross-validation";
import { fitLadder, ladderModels } from "../regression/ladder";

const seeds = fc.integer({ min: 1, max: 1e6 });
const cases = Array.from({ length: 60 }, (_, i) => i + 1);
const data = madeUpData(14);
const candidate = (name: string, ...terms: string[]): Candidate => ({ name, fit: ladderModels(madeUpSpec(terms), data).fits[0]!, cases });

test("weights add up to 1, the Bayes factor turns round, predictions differ by as much either way", () => {
  const [a, b] = [candidate("A", "a", "g"), candidate("B", "b", "x")];
  const [one, other] = [compareModels([a, b], null), compareModels([b, a], null)];
  for (const weight of ["aicWeight", "bicWeight"] as const) {
    expectClose(
      one.models.reduce((s, m) => s + m[weight]!, 0),
      1,
    );
  }
  expectClose(one.pairs[0]!.bayesFactor! * other.pairs[0]!.bayesFactor!, 1);
  expectClose(one.pairs[0]!.signed.max, -other.pairs[0]!.signed.min);
  expectClose(one.pairs[0]!.absolute.mean, other.pairs[0]!.absolute.mean);
  expectClose(one.pairs[0]!.absolute.max, Math.max(one.pairs[0]!.signed.max, -one.pairs[0]!.signed.min));
  expect(one.pairs[0]!.nested).toBeNull();
});

test("nesting is seen by what the columns span, not by their names, and tested as a step is", () => {
  const steps = fitLadder(madeUpSpec(["a", "b"], ["g", "a*b"]), data).steps[1]!;
  // the small model enters a and b raw, in another order and from a ladder of its own
  const [small, large] = [candidate("small", "b", "a"), candidate("large", "a", "b", "g", "a*b")];
  for (const pair of [compareModels([small, large], null), compareModels([large, small], null)]) {
    const nested = pair.pairs[0]!.nested!;
    expect(nested).toMatchObject({ larger: "large", df: steps.change.df });
    expectClose(nested.change, steps.change.change, 1e-8);
    expectClose(nested.p, steps.change.p, 1e-8);
  }
});

test("what each of two rivals adds to the other is the step that enters its own columns; who differs most stands first", () => {
  const [one, other] = [candidate("A", "a", "g"), candidate("B", "b", "a")];
  const { together, farthest, signed, histogram } = compareModels([one, other], null).pairs[0]!;
  const { steps } = fitLadder(madeUpSpec(["b", "a"], ["g"]), data);
  const turned = fitLadder(madeUpSpec(["a", "g"], ["b"]), data).steps[1]!;
  for (const [found, wanted] of [
    [together!.first, steps[1]!.change],
    [together!.second, turned.change],
  ] as const) {
    // prettier-ignore
    expectClose(found.change, wanted.change, 1e-8);
    expectClose(found.p, wanted.p, 1e-8);
    expect(found.df).toEqual(wanted.df);
  }
  expectClose(together!.R2, steps[1]!.model.R2);
  expectClose(Math.abs(farthest[0]!.difference), Math.max(signed.max, -signed.min));
  const at = cases.indexOf(farthest[0]!.case);
  const sd = Math.sqrt(one.fit.ssTotal / 59);
  expectClose(farthest[0]!.difference, (other.fit.residuals[at]! - one.fit.residuals[at]!) / sd);
  expect(histogram.counts.reduce((sum, count) => sum + count, 0)).toBe(60);
});

test("unlike outcomes and unlike samples are refused, with what differs", () => {
  const full = candidate("full", "a");
  const fewer = ladderModels(madeUpSpec(["a"]), withoutCases(data, new Set([4]))).fits[0]!;
  const other = ladderModels({ ...madeUpSpec(["a"]), outcome: "x" }, data).fits[0]!;
  const refusal = (second: Candidate) => {
    try {
      compareModels([full, second], null);
    } catch (error) {
      if (error instanceof UnlikeModelsError) return error.details;
    }
    return null;
  };
  expect(refusal({ name: "fewer", fit: fewer, cases: cases.filter((c) => c !== 5) })).toMatchObject({ differ: "sample", values: [60, 59] });
  expect(refusal({ name: "moved", fit: full.fit, cases: cases.map((c) => c + 1) })).toMatchObject({ differ: "sample" });
  expect(refusal({ name: "other", fit: other, cases })).toMatchObject({ differ: "outcome", values: ["y", "x"] });
});

test("a perfect model has no weight and no Bayes factor, and is still compared by its predictions", () => {
  const perfect = new Map([...data, ["y", (data.get("a") as Float64Array).map((v) => 1 + v)]]);
  const fits = ladderModels(madeUpSpec(["x"], ["a"]), perfect).fits;
  const { models, pairs } = compareModels(
    fits.map((fit, k) => ({ name: `${k}`, fit, cases })),
    null,
  );
  expect(models.map((m) => [m.aicWeight, m.bicWeight])).toEqual([
    [null, null],
    [null, null],
  ]);
  expect(pairs[0]).toMatchObject({ bayesFactor: null, log10BayesFactor: null, nested: { larger: "1", F: null, p: null } });
  expect(pairs[0]!.absolute.mean).toBeGreaterThan(0);
});

test("a Bayes factor too large for a double is told by its logarithm alone", () => {
  const n = 4000;
  const large = madeUpData(3, n);
  const a = large.get("a") as Float64Array;
  const y = (large.get("x") as Float64Array).map((v, i) => a[i]! + 1e-3 * v);
  const fits = ladderModels(madeUpSpec(["a"], ["b"]), new Map([...large, ["y", y]])).fits;
  const bad = ladderModels(madeUpSpec(["b"]), new Map([...large, ["y", y]])).fits[0]!;
  const all = Array.from({ length: n }, (_, i) => i);
  const { pairs } = compareModels(
    [
      { name: "good", fit: fits[0]!, cases: all },
      { name: "bad", fit: bad, cases: all },
    ],
    null,
  );
  expect(pairs[0]!.bayesFactor).toBeNull();
  expect(pairs[0]!.log10BayesFactor).toBeGreaterThan(308);
});

describe("cross-validation", () => {
  const spec = madeUpSpec(["a", "g"], ["b", "a*g"]);

  test("equals refitting without each fold and predicting it", () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const sample = madeUpData(seed);
        const y = sample.get("y") as Float64Array;
        const models = ladderModels(spec, sample);
        const folds = seededFolds(60, 10, seed);
        let sum = 0;
        for (let f = 0; f < folds.count; f++) {
          const out = new Set([...folds.of.keys()].filter((i) => folds.of[i] === f));
          const { columns } = models.design;
          const kept = new Map([...columns.map((c): [string, Float64Array] => [c.name, c.values]), ["y", y]]);
          const raw = { ...madeUpSpec([]), steps: [columns.map((c) => ({ components: [c.name] }))] };
          const fit = ladderModels(raw, withoutCases(kept, out)).fits[0]!;
          for (const i of out) sum += (y[i]! - columns.reduce((s, c, j) => s + c.values[i]! * fit.slopes[j]!, fit.intercept)) ** 2;
        }
        expectClose(crossValidation(models.fits[1]!, folds).rmse, Math.sqrt(sum / 60), 1e-8);
      }),
      { numRuns: 6 },
    );
  });

  test("with every case a fold of its own it is √(Σ(e/(1 − h))²/n)", () => {
    const models = ladderModels(spec, data);
    const { leverage, residual } = caseStatistics(models.fits[0]!, models.y);
    const expected = Math.sqrt(residual.reduce((s, e, i) => s + (e / (1 - leverage[i]!)) ** 2, 0) / 60);
    const found = crossValidation(models.fits[0]!, seededFolds(60, 100, 1));
    expect(found.folds).toBe(60);
    expectClose(found.rmse, expected);
  });

  test("folds are of equal size, the same for a seed, other for another", () => {
    const sizes = (of: Int32Array) => of.reduce((s, f) => s.with(f, s[f]! + 1), new Array<number>(10).fill(0));
    const [one, again, other] = [seededFolds(57, 10, 4), seededFolds(57, 10, 4), seededFolds(57, 10, 5)];
    expect(sizes(one.of).sort()).toEqual([5, 5, 5, 6, 6, 6, 6, 6, 6, 6]);
    expect(again).toEqual(one);
    expect(other.of).not.toEqual(one.of);
  });

  test("errors of the folds, weighed by their cases, make up the whole", () => {
    const folds = seededFolds(60, 7, 2);
    const { rmse, byFold } = crossValidation(ladderModels(spec, data).fits[1]!, folds);
    const sizes = byFold.map((_, f) => folds.of.filter((of) => of === f).length);
    expectClose(byFold.reduce((sum, own, f) => sum + own ** 2 * sizes[f]!, 0) / 60, rmse! ** 2); // prettier-ignore
  });

  test("a fold that holds all cases of a level cannot be predicted: no figure, and the fold is named", () => {
    const codes = Int32Array.from({ length: 60 }, (_, i) => (i < 2 ? 1 : 0));
    const rare = new Map([...data, ["h", { levels: ["often", "rare"], codes }]]);
    const folds = { of: Int32Array.from({ length: 60 }, (_, i) => (i < 2 ? 3 : i % 3)), count: 4 };
    const { fits } = ladderModels(madeUpSpec(["a"], ["h"]), rare);
    expect(crossValidation(fits[1]!, folds)).toEqual({ rmse: null, byFold: new Float64Array(0), folds: 4, inestimable: [4] });
    expect(crossValidation(fits[0]!, folds).rmse).toBeGreaterThan(0);
  });
});
