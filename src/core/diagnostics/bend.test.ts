import fc from "fast-check";
import { ladderModels } from "../regression/ladder";
import { rSquaredChange } from "../regression/r-squared-change";
import { expectClose, madeUpData, madeUpSpec } from "../test-support/made-up-data";
import { bendOf } from "./bend";

test("law: F of a square is that of the step that enters it", () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
      const data = madeUpData(seed);
      const { fits } = ladderModels(madeUpSpec(["a", "g", "x"], ["a*a"]), data);
      const { F, p, df } = rSquaredChange(fits[0]!, fits[1]!);
      const found = bendOf(fits[0]!, data.get("a") as Float64Array);
      if ("reason" in found) throw new Error(found.reason);
      expectClose(found.F, F!, 1e-7);
      expectClose(found.p, p!, 1e-7);
      expect(found.df).toEqual(df);
      expect(found.upwards).toBe(fits[1]!.slopes.at(-1)! > 0);
    }),
    { numRuns: 20 },
  );
});

test("a column of two values has no square of its own", () => {
  const data = madeUpData(2);
  const two = Float64Array.from({ length: 60 }, (_, i) => i % 2);
  const { fits } = ladderModels(madeUpSpec(["a", "two"]), new Map([...data, ["two", two]]));
  expect(bendOf(fits[0]!, two)).toEqual({ reason: "nothing-to-add" });
});
