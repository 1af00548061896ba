import fc from "fast-check";
import { ladderModels } from "../regression/ladder";
import { rSquaredChange } from "../regression/r-squared-change";
import { expectClose, madeUpData, madeUpSpec, withoutCases } from "../test-support/made-up-data";
import { changeWithoutEach } from "./change-without-each";

const spec = madeUpSpec(["a", "b"], ["g", "x"], ["a*x"]);

test("law: ΔR² without each case is that of the ladder fitted without it", () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 0, max: 59 }), fc.integer({ min: 0, max: 2 }), (seed, gone, step) => {
      const data = madeUpData(seed);
      const { fits, y } = ladderModels(spec, data);
      const found = changeWithoutEach(fits[step - 1] ?? null, fits[step]!, y);
      const left = ladderModels(spec, withoutCases(data, new Set([gone]))).fits;
      const change = (of: typeof fits) =>
        step === 0 ? of[0]!.ssRegression / of[0]!.ssTotal : rSquaredChange(of[step - 1]!, of[step]!).change;
      expectClose(found[gone]!, change(fits) - change(left), 1e-7);
    }),
    { numRuns: 25 },
  );
});
