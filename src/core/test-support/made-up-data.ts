import { randomStream } from "../random/random-stream";
import type { Category } from "../regression/categories";
import type { Predictor } from "../regression/design-matrix";
import type { LadderSpec } from "../regression/ladder";

/** Data with numbers a, b, x, categories g (three levels) and h (two), and an outcome y in which all have a part. */
export function madeUpData(seed: number, n = 60): Map<string, Predictor> {
  const random = randomStream(seed);
  const normal = () => Float64Array.from({ length: n }, () => random.normal());
  const [a, x] = [normal(), normal()];
  const b = a.map((v) => 4 + 0.6 * v + random.normal());
  const category = (levels: string[]): Category => ({
    levels,
    codes: Int32Array.from({ length: n }, (_, i) => (i < levels.length ? i : random.below(levels.length))),
  });
  const [g, h] = [category(["low", "mid", "top"]), category(["no", "yes"])];
  const y = a.map(
    (v, i) => 2 + v - 0.5 * b[i]! + 0.8 * g.codes[i]! + (0.4 + 0.7 * v) * h.codes[i]! + random.normal() * (1 + 0.5 * Math.abs(v)),
  );
  return new Map<string, Predictor>(Object.entries({ a, b, x, g, h, y }));
}

/** A ladder of y from steps written as `a`, `g*h`. */
export function madeUpSpec(...steps: string[][]): LadderSpec {
  return {
    outcome: "y",
    centring: "mean",
    confidence: 0.95,
    steps: steps.map((names) => names.map((name) => ({ components: name.split("*") }))),
  };
}

/** The same data without some cases, given by their places from 0. */
export function withoutCases(data: ReadonlyMap<string, Predictor>, gone: ReadonlySet<number>): Map<string, Predictor> {
  return new Map(
    [...data].map(([name, column]): [string, Predictor] => [
      name,
      "codes" in column
        ? { levels: column.levels, codes: column.codes.filter((_, i) => !gone.has(i)) }
        : column.filter((_, i) => !gone.has(i)),
    ]),
  );
}

/** Fails unless |got − expected| stays below 1e-9 of the larger of 1e-3 and |expected|. */
export function expectClose(got: number | null | undefined, expected: number | null | undefined, tolerance = 1e-9): void {
  expect(typeof got).toBe("number");
  expect(typeof expected).toBe("number");
  expect(Math.abs(got! - expected!)).toBeLessThan(tolerance * Math.max(1e-3, Math.abs(expected!)));
}
