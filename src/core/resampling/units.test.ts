import { acceleration, JackknifeMoments } from "./jackknife-moments";
import { unitsOf } from "./units";

const all = (drawing: Parameters<typeof unitsOf>[0], n: number) => {
  const units = unitsOf(drawing, n);
  return { ...units, unitOf: Array.from({ length: n }, (_, i) => units.unitOf(i)) };
};

test("cases are units; clusters are units that hold several; within groups the cases stand group by group", () => {
  const codes = Int32Array.from([7, 2, 7, 5, 2, 7]);
  expect(all({ by: "cases" }, 3)).toEqual({ count: 3, strata: [3], together: false, unitOf: [0, 1, 2] });
  expect(all({ by: "clusters", codes }, 6)).toEqual({ count: 3, strata: [3], together: true, unitOf: [0, 1, 0, 2, 1, 0] });
  expect(all({ by: "within", codes }, 6)).toEqual({ count: 6, strata: [3, 2, 1], together: false, unitOf: [0, 3, 1, 5, 4, 2] });
});

const moments = (values: number[], reference: number) => {
  const of = new JackknifeMoments(reference);
  const half = values.length >> 1;
  of.add(Float64Array.from(values), 0, half); // in two goes
  of.add(Float64Array.from(values), half, values.length);
  return of;
};
const direct = (values: number[]) => {
  const mean = values.reduce((sum, v) => sum + v, 0) / values.length;
  const sum = (power: number) => values.reduce((all_, v) => all_ + (mean - v) ** power, 0);
  return sum(3) / (6 * sum(2) ** 1.5);
};

test("law: the acceleration is that of the plain formula, whatever number the values are taken from", () => {
  const values = [0.31, 0.305, 0.322, 0.29, 0.3071, 0.35, 0.3];
  for (const reference of [0.31, 0.3, 0, 1]) expect(acceleration([moments(values, reference)])).toBeCloseTo(direct(values), 10);
  expect(acceleration([moments(values, 0.31)])).toBeCloseTo(-acceleration([moments(values.map((v) => -v), -0.31)]), 12); // prettier-ignore
});

test("values that differ by rounding alone have no acceleration; beside others they add nothing", () => {
  const flat = [5, 5 * (1 + 1e-15), 5, 5 * (1 - 1e-15)];
  const some = [1, 2, 4, 9];
  expect(acceleration([moments(flat, 5)])).toBe(0);
  expect(acceleration([moments(flat, 5), moments(some, 2)])).toBe(acceleration([moments(some, 2)]));
});
