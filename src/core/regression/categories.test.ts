import fc from "fast-check";
import { UnknownLevelError } from "../errors";
import { expectClose, madeUpData, madeUpSpec } from "../test-support/made-up-data";
import { type Category, codingTable } from "./categories";
import { fitLadder, type LadderSpec } from "./ladder";

const seeds = fc.integer({ min: 1, max: 1e6 });
const categories = (coding: "indicator" | "deviation", reference: string | null): LadderSpec["categories"] =>
  new Map([["g", { coding, reference }]]);
const spec = madeUpSpec(["a", "g"], ["h", "a*g", "g*h"]);

test("another reference level or another coding describes the same model: fit, changes and highest-order terms stay", () => {
  fc.assert(
    fc.property(
      seeds,
      fc.constantFrom("low", "mid", "top"),
      fc.constantFrom("indicator" as const, "deviation" as const),
      (seed, level, coding) => {
        const data = madeUpData(seed);
        const [one, other] = [fitLadder(spec, data), fitLadder({ ...spec, categories: categories(coding, level) }, data)];
        one.steps.forEach((step, k) => {
          const same = other.steps[k]!;
          expectClose(same.model.R2, step.model.R2);
          expectClose(same.change.F, step.change.F);
          for (const term of ["a*g", "g*h"]) {
            const [before, after] = [step, same].map((s) => s.terms.find((t) => t.term === term));
            if (before) expectClose(after!.F, before.F, 1e-8);
          }
        });
        const b = (fit: typeof one, column: string) => fit.steps[0]!.coefficients.find((c) => c.column === column)!.b.estimate;
        expectClose(b(other, "a"), b(one, "a"));
        if (coding === "indicator" && level === "top") expectClose(b(other, "g[low]"), -b(one, "g[top]"));
      },
    ),
    { numRuns: 25 },
  );
});

test("with nothing but a category, indicators are differences of means and deviations leave the mean of the means as intercept", () => {
  const data = madeUpData(5);
  const g = data.get("g") as Category;
  const y = data.get("y") as Float64Array;
  const means = g.levels.map((_, level) => {
    const own = y.filter((_, i) => g.codes[i] === level);
    return own.reduce((s, v) => s + v, 0) / own.length;
  });
  const indicator = fitLadder(madeUpSpec(["g"]), data).steps[0]!;
  expectClose(indicator.intercept.estimate, means[0]);
  indicator.coefficients.forEach((c, i) => expectClose(c.b.estimate, means[i + 1]! - means[0]!));
  const deviation = fitLadder({ ...madeUpSpec(["g"]), categories: categories("deviation", "mid") }, data).steps[0]!;
  const middle = (means[0]! + means[1]! + means[2]!) / 3;
  expectClose(deviation.intercept.estimate, middle);
  expect(deviation.coefficients.map((c) => c.column)).toEqual(["g[low]", "g[top]"]);
  expectClose(deviation.coefficients[1]!.b.estimate, means[2]! - middle);
});

test("a product of categories has a column for every pair, of a category and a number one for every level", () => {
  const columns = fitLadder(madeUpSpec(["g*h"], ["a*g"], ["a*g*h"]), madeUpData(3)).steps[2]!.coefficients.map((c) => c.column);
  expect(columns).toEqual(["g[mid]*h[yes]", "g[top]*h[yes]", "a*g[mid]", "a*g[top]", "a*g[mid]*h[yes]", "a*g[top]*h[yes]"]);
});

test("the term test of a single column is its t squared, of the term added last the change of the step", () => {
  const fit = fitLadder(madeUpSpec(["a", "h"], ["g"]), madeUpData(8));
  const [first, last] = fit.steps;
  first!.terms.forEach((t, i) => expectClose(t.F, first!.coefficients[i]!.b.t! ** 2));
  const g = last!.terms.find((t) => t.term === "g")!;
  expectClose(g.F, last!.change.F);
  expectClose(g.p, last!.change.p);
  expectClose(g.ss, last!.change.change * last!.model.ssTotal);
});

test("a lower-order term beside a product is marked as conditional, the product is not", () => {
  const { terms } = fitLadder(madeUpSpec(["a", "b", "x"], ["a*b"]), madeUpData(2)).steps[1]!;
  expect(terms.map((t) => [t.term, t.conditional])).toEqual([
    ["a", true],
    ["b", true],
    ["x", false],
    ["a*b", false],
  ]);
});

describe("levels that the sample hardly has", () => {
  const category = (levels: string[], codes: number[]): Category => ({ levels, codes: Int32Array.from(codes) });

  test("an empty level takes no column and is named; a single case counts as one", () => {
    const table = codingTable("g", category(["a", "b", "c", "d"], [0, 0, 1, 3, 3]), null);
    expect(table).toMatchObject({ reference: "a", columns: ["b", "d"], empty: ["c"] });
    expect(table.levels.map((l) => [l.level, l.cases, ...l.values])).toEqual([
      ["a", 2, 0, 0],
      ["b", 1, 1, 0],
      ["d", 2, 0, 1],
    ]);
  });

  test("a chosen reference without cases gives way to the first level that has some", () => {
    const table = codingTable("g", category(["a", "b", "c"], [1, 2, 2]), { coding: "deviation", reference: "a" });
    expect(table).toMatchObject({ reference: "b", columns: ["c"], empty: ["a"] });
    expect(table.levels[0]!.values).toEqual([-1]);
    expect(table.replacedReference).toBe("a");
    expect(() => codingTable("g", category(["a"], [0]), { coding: "indicator", reference: "z" })).toThrow(UnknownLevelError);
  });

  test("a category with one level left has no column, its term no test, and the rest is fitted", () => {
    const data = new Map([...madeUpData(4), ["g", category(["low", "mid"], new Array(60).fill(1))]]);
    const { steps, tables } = fitLadder(madeUpSpec(["a", "g"], ["a*g"]), data);
    expect(steps[1]!.coefficients.map((c) => c.column)).toEqual(["a"]);
    expect(steps[1]!.terms[1]).toMatchObject({ term: "g", F: null, ss: null, reason: "no-columns" });
    expect(steps[1]!.change).toMatchObject({ change: 0, F: null });
    expect(tables[0]).toMatchObject({ reference: "mid", empty: ["low"] });
  });

  test("a cell of two categories without cases has no column, and says that it does not vary", () => {
    const [g, h] = [Array.from({ length: 60 }, (_, i) => i % 3), Array.from({ length: 60 }, (_, i) => (i % 3 === 2 ? 0 : (i >> 2) % 2))];
    const data = new Map([...madeUpData(4), ["g", category(["low", "mid", "top"], g)], ["h", category(["no", "yes"], h)]]);
    const step = fitLadder(madeUpSpec(["g", "h", "g*h"]), data).steps[0]!;
    expect(step.notes).toEqual([{ code: "dropped", column: { column: "g[top]*h[yes]", reason: "constant", combinationOf: [] } }]);
    expect(step.terms.find((t) => t.term === "g*h")!.df[0]).toBe(1);
  });

  test("a category that follows from another is dropped column by column, each named with what it follows from", () => {
    const g = Array.from({ length: 60 }, (_, i) => i % 3);
    const data = new Map([
      ...madeUpData(4),
      ["g", category(["low", "mid", "top"], g)],
      [
        "h",
        category(
          ["no", "yes"],
          g.map((level) => (level > 0 ? 1 : 0)),
        ),
      ],
    ]);
    const step = fitLadder(madeUpSpec(["g"], ["h"]), data).steps[1]!;
    expect(step.notes).toEqual([
      { code: "dropped", column: { column: "h[yes]", reason: "combination", combinationOf: ["g[mid]", "g[top]"] } },
    ]);
  });
});

describe("standardized coefficients with categories", () => {
  test("a multiple of b where the columns are, the fit in the z metric where they are not: both say the same", () => {
    // with raw centring the z metric is fitted; its columns span the same space, so β must be what mean centring gives
    const data = madeUpData(12);
    const steps = madeUpSpec(["a", "b", "g"], ["a*b", "a*g"]);
    const [rescaled, fitted] = [fitLadder(steps, data), fitLadder({ ...steps, centring: "raw" }, data)];
    rescaled.steps[1]!.coefficients.forEach((c, i) => {
      expectClose(fitted.steps[1]!.coefficients[i]!.beta!.estimate, c.beta!.estimate);
      expectClose(fitted.steps[1]!.coefficients[i]!.beta!.se, c.beta!.se);
    });
  });

  test("an indicator's β is in outcome SDs; standardized as well, it is times the indicator's SD", () => {
    const data = madeUpData(12);
    const plain = fitLadder(madeUpSpec(["a", "h"]), data).steps[0]!.coefficients[1]!;
    const scaled = fitLadder({ ...madeUpSpec(["a", "h"]), standardizeIndicators: true }, data).steps[0]!.coefficients[1]!;
    const h = (data.get("h") as Category).codes;
    const share = h.reduce((s, v) => s + v, 0) / h.length;
    expectClose(scaled.beta!.estimate, plain.beta!.estimate * Math.sqrt((share * (1 - share) * h.length) / (h.length - 1)));
    expectClose(scaled.beta!.t, plain.beta!.t);
  });

  test("what the z metric does not hold has no β rather than 0", () => {
    const data = new Map([...madeUpData(1), ["b", Float64Array.from({ length: 60 }, (_, i) => 1 + 2 * (i % 2))]]);
    const { coefficients } = fitLadder({ ...madeUpSpec(["b*b"]), centring: "raw" }, data).steps[0]!;
    expect(coefficients[0]!.b.estimate).not.toBe(0);
    expect(coefficients[0]!.beta).toBeNull(); // z² of a two-valued variable is the same for all
  });
});
