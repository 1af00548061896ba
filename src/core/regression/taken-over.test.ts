import fc from "fast-check";
import { expectClose, madeUpData, madeUpSpec } from "../test-support/made-up-data";
import { ladderModels } from "./ladder";
import { takenOver } from "./taken-over";

const spec = madeUpSpec(["a", "b"], ["g", "x"]);

test("law: what newcomers take adds up to the change; a newcomer left out alone is the step without it", () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
      const data = madeUpData(seed);
      const models = ladderModels(spec, data);
      const [before, after] = [models.fits[0]!, models.fits[1]!];
      const news = after.columns.filter((name) => !before.columns.includes(name));
      const byTerm = [news.filter((name) => name !== "x"), ["x"]];
      for (const column of before.columns) {
        const found = takenOver(before, after, column, byTerm);
        const [b0, b1] = [before, after].map((fit) => fit.slopes[fit.columns.indexOf(column)]!);
        expectClose(found[0]!.taken + found[1]!.taken, b0! - b1!, 1e-7);
        [["x"], ["g"]].forEach((stays, k) => {
          const rest = ladderModels(madeUpSpec(["a", "b"], stays), data).fits[1]!;
          expectClose(found[k]!.without, rest.slopes[rest.columns.indexOf(column)]!, 1e-8);
        });
      }
    }),
    { numRuns: 12 },
  );
});

test("a single newcomer takes all of the change, and the order of newcomers changes nothing", () => {
  const data = madeUpData(5);
  const one = ladderModels(madeUpSpec(["a", "b"], ["x"]), data);
  const [alone] = takenOver(one.fits[0]!, one.fits[1]!, "a", [["x"]]);
  expectClose(alone!.taken, one.fits[0]!.slopes[0]! - one.fits[1]!.slopes[0]!);
  expectClose(alone!.without, one.fits[0]!.slopes[0]!);
  const orders = [
    ["g", "x"],
    ["x", "g"],
  ].map((terms) => {
    const { fits } = ladderModels(madeUpSpec(["a", "b"], terms), data);
    return takenOver(fits[0]!, fits[1]!, "a", [["x"]])[0]!.taken;
  });
  expectClose(orders[0]!, orders[1]!, 1e-9);
});
