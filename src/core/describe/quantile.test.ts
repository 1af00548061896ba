import fc from "fast-check";
import { TooFewCasesError } from "../errors";
import { holm } from "../distributions/holm";
import { quantile } from "./quantile";

const shares = fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 1, maxLength: 12 });

test("Holm: never below p, never above Bonferroni, in the order of p, and the smallest is Bonferroni's", () => {
  fc.assert(
    fc.property(shares, (p) => {
      const adjusted = holm(p);
      p.forEach((v, i) => {
        expect(adjusted[i]!).toBeGreaterThanOrEqual(v);
        expect(adjusted[i]!).toBeLessThanOrEqual(Math.min(1, v * p.length) + 1e-15);
        p.forEach((w, j) => expect(v < w && adjusted[i]! > adjusted[j]!).toBe(false));
      });
      expect(Math.min(...adjusted)).toBeCloseTo(Math.min(1, Math.min(...p) * p.length), 12);
    }),
  );
});

test("Holm by hand: .01, .04, .03 of three", () => {
  expect(holm([0.01, 0.04, 0.03])).toEqual([0.03, 0.06, 0.06]);
  expect(holm([])).toEqual([]);
});

test("quantiles: the ends, the middle, straight in between, and along with another unit", () => {
  const sorted = Float64Array.of(1, 2, 4, 10);
  expect([0, 0.25, 0.5, 0.75, 1].map((share) => quantile(sorted, share))).toEqual([1, 1.75, 3, 5.5, 10]);
  fc.assert(
    fc.property(shares, fc.double({ min: 0, max: 1, noNaN: true }), (values, share) => {
      const ordered = Float64Array.from(values).sort();
      expect(
        quantile(
          ordered.map((v) => 3 * v + 2),
          share,
        ),
      ).toBeCloseTo(3 * quantile(ordered, share) + 2, 10);
    }),
  );
  expect(() => quantile(new Float64Array(0), 0.5)).toThrow(TooFewCasesError);
});
