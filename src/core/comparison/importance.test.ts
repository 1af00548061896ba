import { randomStream } from "../random/random-stream";
import { leastSquares } from "../regression/least-squares";
import { orthonormalBasis } from "../regression/orthonormal-basis";
import { type NamedColumn, prepareDesign } from "../regression/prepared-design";
import { expectClose } from "../test-support/made-up-data";
import { searchGround } from "../search/search-ground";
import { importance, importanceResamples } from "./importance";

const N = 70;
const stream = randomStream(12);
const draw = (name: string, of: (i: number) => number = () => 0): NamedColumn => ({ name, values: Float64Array.from({ length: N }, (_, i) => stream.normal() + of(i)) }); // prettier-ignore
const a = draw("a");
const b = draw("b", (i) => 0.8 * a.values[i]!);
const g = [draw("g1", (i) => a.values[i]!), draw("g2")];
const ab = { name: "ab", values: a.values.map((v, i) => v * b.values[i]!) };
const control = draw("c", (i) => b.values[i]!);
const outcome = draw("y", (i) => a.values[i]! + 0.5 * b.values[i]! + 0.4 * ab.values[i]! + g[0]!.values[i]! + control.values[i]!);
const R2 = (columns: readonly NamedColumn[]) => {
  const fit = leastSquares(prepareDesign(columns, outcome), columns.length);
  return fit.ssRegression / fit.ssTotal;
};

function orders(left: readonly number[]): number[][] {
  return left.length === 0 ? [[]] : left.flatMap((one) => orders(left.filter((other) => other !== one)).map((rest) => [one, ...rest]));
}

test("law: shares are what each term adds to fitted models, averaged over every order that is allowed, the controls first", () => {
  const terms = [[a], [b], g, [ab]];
  const parents = [[], [], [], [0, 1]];
  const allowed = orders([0, 1, 2, 3]).filter((order) => order.indexOf(3) > order.indexOf(0) && order.indexOf(3) > order.indexOf(1));
  const wanted = [0, 0, 0, 0];
  for (const order of allowed) {
    const held: NamedColumn[] = [control];
    for (const at of order) {
      const before = R2(held);
      held.push(...terms[at]!);
      wanted[at]! += (R2(held) - before) / allowed.length;
    }
  }
  const ground = searchGround([control], terms.map((columns, at) => ({ name: String(at), columns })), outcome); // prettier-ignore
  const found = importance(ground, parents);
  expect(found.orders).toBe(allowed.length);
  found.shares.forEach((share, at) => expectClose(share, wanted[at]!));
  expectClose(found.R2, R2([control, ...terms.flat()]));
  expectClose(found.controlsR2, R2([control]));
});

test("law: of columns that have nothing in common the share is r², by subsets and by drawn orders alike; the same seed draws the same", () => {
  const drawn = Array.from({ length: 17 }, (_, k) => draw(`x${k}`));
  const basis = orthonormalBasis(leastSquares(prepareDesign(drawn, outcome), 17).basis.design);
  const column = (k: number) => ({ name: `q${k}`, values: basis.slice((k + 1) * N, (k + 2) * N) });
  for (const count of [6, 17]) {
    const columns = Array.from({ length: count }, (_, k) => column(k));
    const ground = searchGround([], columns.map((one) => ({ name: one.name, columns: [one] })), outcome); // prettier-ignore
    const found = importance(ground, columns.map(() => []), 4); // prettier-ignore
    expect(found.drawn).toBe(count > 15);
    columns.forEach((one, k) => expectClose(found.shares[k], R2([one]), 1e-8));
  }
});

test("drawn orders come close to all of them, add up to R², and keep a product behind its parts", () => {
  // sixteen terms, twelve of which have nothing to do with any other: the four others share as if these were not there
  const idle = Array.from({ length: 12 }, (_, k) => draw(`i${k}`));
  const own = [a, b, g[0]!, ab];
  const fit = leastSquares(prepareDesign([...own, outcome, ...idle], outcome), 0);
  const basis = orthonormalBasis(fit.basis.design);
  const apart = Array.from({ length: 12 }, (_, k) => ({ name: `o${k}`, values: basis.slice((6 + k) * N, (7 + k) * N) }));
  const ground = (columns: readonly NamedColumn[]) => searchGround([], columns.map((one) => ({ name: one.name, columns: [one] })), outcome); // prettier-ignore
  const exact = importance(ground(own), [[], [], [], [0, 1]]);
  const many = importance(ground([...own, ...apart]), [[], [], [], [0, 1], ...apart.map(() => [])], 9);
  expect(many.drawn).toBe(true);
  expectClose(many.shares.reduce((sum, share) => sum + share, 0), many.R2); // prettier-ignore
  own.forEach((_, at) => expect(Math.abs(many.shares[at]! - exact.shares[at]!)).toBeLessThan(0.01));
  expect(importance(ground([...own, ...apart]), [[], [], [], [0, 1], ...apart.map(() => [])], 9).shares).toEqual(many.shares);
});

test("law: shares of a resample are those of the cases drawn, each as often as drawn, the controls' R² theirs as well", () => {
  const terms = [[a], [b], g, [ab]];
  const parents = [[], [], [], [0, 1]];
  const groundOf = (cases: readonly number[]) => {
    const on = ({ name, values }: NamedColumn) => ({ name, values: Float64Array.from(cases, (i) => values[i]!) });
    return searchGround([on(control)], terms.map((columns, at) => ({ name: String(at), columns: columns.map(on) })), on(outcome)); // prettier-ignore
  };
  const whole = groundOf(Array.from({ length: N }, (_, i) => i));
  const [all, later] = [importanceResamples(whole, parents, { seed: 6, first: 0, count: 3 }), importanceResamples(whole, parents, { seed: 6, first: 2, count: 1 })]; // prettier-ignore
  expect([...later]).toEqual([...all.slice(8)]);
  const drawing = randomStream(6, 1);
  const found = importance(groundOf(Array.from({ length: N }, () => drawing.below(N))), parents);
  found.shares.forEach((share, k) => expectClose(all[4 + k]!, share, 1e-9));
});
