import { type Folds, seededFolds } from "../comparison/cross-validation";
import { randomStream } from "../random/random-stream";
import type { NamedColumn } from "../regression/prepared-design";
import { FoldWithoutControlsError, lassoFolds } from "./lasso-folds";
import { leastAnglePath, pathAt } from "./lasso-path";
import { rawCoefficients, type SearchGround, searchGround } from "./search-ground";
import { foldProducts, wholeProducts } from "./training-ground";

const N = 90;
const stream = randomStream(8);
const draw = (name: string, of: (i: number) => number = () => 0): NamedColumn => ({ name, values: Float64Array.from({ length: N }, (_, i) => stream.normal() + of(i)) }); // prettier-ignore
const control = draw("c");
const first = draw("a");
const candidates = [first, draw("b", (i) => first.values[i]!), draw("d"), draw("e", (i) => 3 * control.values[i]!)];
const outcome = draw("y", (i) => 5 + first.values[i]! - 0.5 * candidates[2]!.values[i]! + control.values[i]!);
const on = ({ name, values }: NamedColumn, cases: readonly number[]) => ({ name, values: Float64Array.from(cases, (i) => values[i]!) });
const groundOf = (cases: readonly number[], columns = candidates, controls = [control]) =>
  searchGround(controls.map((one) => on(one, cases)), columns.map((one) => ({ name: one.name, columns: [on(one, cases)] })), on(outcome, cases)); // prettier-ignore
const foldsOf = (ground: SearchGround, folds: Folds) => lassoFolds(ground, ground.r, wholeProducts(ground), foldProducts(ground, folds));
const everyone = Array.from({ length: N }, (_, i) => i);

/** Held-out error at some λ, everything formed anew on the training cases alone, predicted in raw units. */
function error(held: readonly number[], lambda: number, columns = candidates): number {
  const training = everyone.filter((i) => !held.includes(i));
  const ground = groundOf(training, columns);
  const b = rawCoefficients(ground, pathAt(leastAnglePath(ground, training.length - 2, true), lambda));
  const predicted = (i: number) => [control, ...columns].reduce((sum, one) => sum + (b[one.name] ?? 0) * one.values[i]!, b["(Intercept)"]!);
  return held.reduce((sum, i) => sum + (outcome.values[i]! - predicted(i)) ** 2, 0);
}

test("law: errors of held-out cases are those of lassos made on the training cases alone", () => {
  const folds = seededFolds(N, 7, 3);
  const found = foldsOf(groundOf(everyone), folds);
  const members = Array.from({ length: 7 }, (_, f) => everyone.filter((i) => folds.of[i] === f));
  for (const at of [0, 20, 45, 99]) {
    const errors = members.map((held) => error(held, found.lambda[at]!));
    errors.forEach((sum, f) => expect(found.folds[f * 100 + at]).toBeCloseTo(sum / members[f]!.length, 9));
    expect(found.mse[at]).toBeCloseTo(errors.reduce((a, b) => a + b, 0) / N, 9);
  }
  expect(found.mse[found.oneSe]!).toBeLessThanOrEqual(found.mse[found.minimum]! + found.se[found.minimum]!);
  expect(found.mse.slice(0, found.oneSe).every((one) => one > found.mse[found.minimum]! + found.se[found.minimum]!)).toBe(true);
});

test("a column that varies in one fold only is left out without it, and nothing else moves there", () => {
  const folds = { of: Int32Array.from(everyone, (i) => Math.floor(i / 30)), count: 3 };
  const rare = { name: "rare", values: Float64Array.from(everyone, (i) => (i >= 60 && i % 3 === 0 ? 1 : 0)) };
  const found = foldsOf(groundOf(everyone, [...candidates, rare]), folds);
  expect(found.leftOut).toEqual([[], [], [4]]);
  const held = everyone.slice(60);
  expect(found.folds[2 * 100 + 60]).toBeCloseTo(error(held, found.lambda[60]!) / 30, 9);
});

test("a fold that holds all of a control's level is told by its place", () => {
  const only = { name: "only", values: Float64Array.from(everyone, (i) => (i >= 60 ? 1 : 0)) };
  const folds = { of: Int32Array.from(everyone, (i) => (i >= 60 ? 1 : 0)), count: 2 };
  expect(() => foldsOf(groundOf(everyone, candidates, [control, only]), folds)).toThrow(FoldWithoutControlsError);
  expect(() => foldsOf(groundOf(everyone, candidates, [control, only]), folds)).toThrow(/fold (1|2)/);
});
