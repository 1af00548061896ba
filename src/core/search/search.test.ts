import fc from "fast-check";
import { referenceSet, relativeError } from "../test-support/reference-set";
import { randomStream } from "../random/random-stream";
import { leastSquares } from "../regression/least-squares";
import { type NamedColumn, prepareDesign } from "../regression/prepared-design";
import { leastAnglePath, pathAt } from "./lasso-path";
import { adjusted, pathR2, rawCoefficients, searchGround, type SearchGround, type SearchTerm } from "./search-ground";
import { LimitsCrossError, searchTerms } from "./term-search";

const set = referenceSet("harvest_search");
const { json, expected } = set;
const candidates: string[] = json.spec.candidates;
const everything = [json.spec.outcome, ...json.spec.controls, ...candidates] as string[];
const complete = [...set.cells.values()][0]!
  .map((_, i) => i)
  .filter((i) => everything.every((name) => set.cells.get(name)![i] !== "" && !set.missing.get(name)!.includes(set.cells.get(name)![i]!)));
const numbers = (name: string): NamedColumn => ({ name, values: Float64Array.from(complete, (i) => Number(set.cells.get(name)![i])) });
const term = (name: string): SearchTerm => {
  const category = json.spec.categorical[name];
  if (!category) return { name, columns: [numbers(name)] };
  const levels = (category.levels as string[]).filter((level) => level !== category.reference);
  const indicator = (level: string) => Float64Array.from(complete, (i) => (set.cells.get(name)![i] === level ? 1 : 0));
  return { name, columns: levels.map((level) => ({ name: `${name}[${level}]`, values: indicator(level) })) };
};
const ground = searchGround(json.spec.controls.map(numbers), candidates.map(term), numbers(json.spec.outcome));

/** Leaves that differ by more than a relative 1e-9; sizes below the floor count as it. */
function differences(wanted: unknown, got: unknown, floor = 1e-6, path = ""): string[] {
  if (wanted !== null && typeof wanted === "object")
    return Object.entries(wanted).flatMap(([key, value]) =>
      differences(value, (got as Record<string, unknown> | undefined)?.[key], floor, `${path}/${key}`),
    );
  if (typeof wanted !== "number" || typeof got !== "number") return wanted === got ? [] : [`${path}: ${String(got)} for ${String(wanted)}`];
  const error = Math.abs(got - wanted) / Math.max(floor, Math.abs(wanted));
  return error <= 1e-9 ? [] : [`${path}: ${got} for ${wanted}`];
}
test("the lasso at given λ, with raw coefficients, against a separate program (all else of the set is in the results document)", () => {
  const path = leastAnglePath(ground, ground.n - 1 - ground.controls, true);
  const { values, tolerance } = expected.lasso_at_lambda!;
  const got = Object.fromEntries(
    Object.keys(values).map((lambda) => {
      const beta = pathAt(path, Number(lambda));
      const R2 = pathR2(ground, beta);
      const size = beta.filter((value) => value !== 0).length;
      const named = Object.fromEntries(ground.names.flatMap((name, j) => (beta[j] === 0 ? [] : [[name, beta[j]!]])));
      return [lambda, { size, beta: named, b: rawCoefficients(ground, beta), R2, adjR2: adjusted(ground, R2, size) }];
    }),
  );
  expect(differences(values, got, tolerance.floor)).toEqual([]);
});

/** Made-up columns, some of them close to one another. */
function made(seed: number, n: number, q: number): SearchGround {
  const stream = randomStream(seed);
  const draw = () => Float64Array.from({ length: n }, () => stream.normal());
  const shared = draw();
  const columns = Array.from({ length: q }, (_, j) => ({
    name: `x${j}`,
    values: draw().map((v, i) => v + (j % 3 === 0 ? 1.2 * shared[i]! : 0)),
  }));
  const control = { name: "c", values: draw() };
  const y = draw().map((v, i) => v + 0.8 * columns[0]!.values[i]! - 0.6 * columns[1]!.values[i]! + control.values[i]! + 0.3 * shared[i]!);
  return searchGround([control], columns.map((column) => ({ name: column.name, columns: [column] })), { name: "y", values: y }); // prettier-ignore
}

test("law: at every λ the lasso meets its optimality conditions; least-angle columns have the same correlation with what is left", () =>
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 1e6 }),
      fc.integer({ min: 12, max: 80 }),
      fc.integer({ min: 2, max: 15 }),
      fc.double({ min: 0.01, max: 0.99, noNaN: true }),
      (seed, n, q, share) => {
        const own = made(seed, n, q);
        const cap = own.n - 1 - own.controls;
        const left = (beta: Float64Array) => own.r.map((r, j) => r - beta.reduce((sum, b, k) => sum + own.G[j * q + k]! * b, 0));
        const path = leastAnglePath(own, cap, true);
        const lambda = share * path[0]!.lambda;
        if (q < cap) {
          const beta = pathAt(path, lambda);
          left(beta).forEach((c, j) => {
            if (beta[j] === 0) expect(Math.abs(c)).toBeLessThanOrEqual(lambda * (1 + 1e-7) + 1e-9);
            else expect(Math.abs(c - lambda * Math.sign(beta[j]!))).toBeLessThanOrEqual(1e-8);
          });
        }
        for (const { lambda: at, beta } of leastAnglePath(own, cap, false)) {
          left(beta).forEach((c, j) => {
            if (beta[j] !== 0) expect(Math.abs(Math.abs(c) - at)).toBeLessThanOrEqual(1e-8);
          });
        }
      },
    ),
    { numRuns: 60 },
  ));

test("law: the end of either path is least squares, and each move's AIC and F are those of fits", () => {
  const own = made(11, 60, 6);
  const fit = leastSquares(prepareDesign([...own.raw.controls, ...own.raw.columns], own.raw.outcome), 7);
  for (const lasso of [true, false]) {
    const b = rawCoefficients(own, leastAnglePath(own, 58, lasso).at(-1)!.beta);
    fit.columns.forEach((name, k) => expect(relativeError(b[name]!, fit.slopes[k]!)).toBeLessThan(1e-9));
  }
  for (const move of searchTerms(own, { by: "aic" }, true).moves) {
    const columns = [...own.raw.controls, ...own.raw.columns.filter((column) => move.terms.includes(column.name))];
    const refit = leastSquares(prepareDesign(columns, own.raw.outcome), columns.length);
    expect(relativeError(move.R2, refit.ssRegression / refit.ssTotal)).toBeLessThan(1e-10);
  }
});

test("a column that the controls determine is left out and named; limits that cross are refused; duplicates come in once", () => {
  const own = made(5, 40, 3);
  const [a, b] = own.raw.columns as [NamedColumn, NamedColumn];
  const twice = searchGround(own.raw.controls, [{ name: "a", columns: [a] }, { name: "again", columns: [{ ...a, name: "again" }] }, { name: "c2", columns: [{ name: "c2", values: own.raw.controls[0]!.values.map((v) => 2 * v + 1) }] }, { name: "b", columns: [b] }], own.raw.outcome); // prettier-ignore
  expect(twice.leftOut).toEqual(["c2"]);
  expect(leastAnglePath(twice, 30, true).filter((knot) => knot.event === "enters").length).toBe(2);
  expect(searchTerms(twice, { by: "aic" }, false).moves.map((move) => move.term)).not.toContain("again");
  expect(() => searchTerms(own, { by: "p", enter: 0.1, leave: 0.05 }, true)).toThrow(LimitsCrossError);
});
