import fc from "fast-check";
import { randomStream } from "../random/random-stream";
import { covariance, type ErrorChoice } from "./covariance";
import type { Centring } from "./design-matrix";
import { type LadderModels, ladderModels, ladderTables } from "./ladder";
import { probeGround } from "./probe-ground";
import { effectAlong, type EffectAlong, effectAt, effectDifference, predictedAt, simpleEffect } from "./simple-effects";

const N = 90;
const LEVELS = ["p", "q", "r"];

function sample(seed: number) {
  const random = randomStream(seed, 0);
  const draw = (mean: number, sd: number) => Float64Array.from({ length: N }, () => mean + sd * random.normal());
  const [x, m, w, e] = [draw(5, 2), draw(-3, 0.7), draw(100, 15), draw(0, 1)];
  const codes = Int32Array.from({ length: N }, (_, i) => i % 3);
  const y = Float64Array.from(x, (v, i) => 0.3 * v + 0.2 * v * m[i]! + 0.02 * w[i]! * (codes[i] === 1 ? v : 1) + e[i]!);
  return new Map<string, Float64Array | { levels: string[]; codes: Int32Array }>([
    ["x", x],
    ["m", m],
    ["w", w],
    ["y", y],
    ["g", { levels: LEVELS, codes }],
  ]);
}

function models(
  seed: number,
  terms: string[][],
  over: { centring?: Centring; reference?: string; errors?: ErrorChoice } = {},
): LadderModels {
  const categories = new Map([["g", { variable: "g", coding: "indicator" as const, reference: over.reference ?? "p" }]]);
  const { centring = "mean", errors = { kind: "classical" as const } } = over;
  return ladderModels(
    { outcome: "y", steps: [terms.map((components) => ({ components }))], centring, confidence: 0.95, categories, errors },
    sample(seed),
  );
}

function ground(fitted: LadderModels) {
  const of = covariance(fitted.fits[0]!, fitted.spec.errors ?? { kind: "classical" });
  if ("reason" in of) throw new Error(of.reason);
  return probeGround(fitted, 0, of);
}

const PRODUCT = [["x"], ["m"], ["x", "m"]];
const close = (a: number | null | undefined, b: number | null | undefined) =>
  expect(Math.abs(a! - b!)).toBeLessThan(1e-8 * Math.max(1, Math.abs(b!)));
const seeds = fc.integer({ min: 1, max: 100_000 });

test("law: slopes and predictions do not change with centring, nor with which of two is called the moderator", () => {
  fc.assert(
    fc.property(seeds, fc.double({ min: -5, max: -1, noNaN: true }), fc.double({ min: 0, max: 10, noNaN: true }), (seed, m, x) => {
      const [mean, z, raw] = (["mean", "z", "raw"] as const).map((centring) => ground(models(seed, PRODUCT, { centring })));
      const slope = (of: typeof mean) => simpleEffect(of!, { variable: "x" }, [{ variable: "m", value: m }])!;
      const predicted = (of: typeof mean) => predictedAt(of!, [{ variable: "m", value: m }, { variable: "x", value: x }])!; // prettier-ignore
      for (const other of [z, raw]) {
        close(slope(other).estimate, slope(mean).estimate);
        close(slope(other).se, slope(mean).se);
        close(predicted(other).estimate, predicted(mean).estimate);
        close(predicted(other).se, predicted(mean).se);
      }
    }),
    { numRuns: 25 },
  );
});

test("law: the slope at a level is the coefficient when that level is the reference", () => {
  fc.assert(
    fc.property(
      seeds,
      fc.constantFrom(...LEVELS),
      fc.constantFrom<ErrorChoice>({ kind: "classical" }, { kind: "hc3" }),
      (seed, level, errors) => {
        const terms = [["x"], ["g"], ["x", "g"]];
        const slope = simpleEffect(ground(models(seed, terms, { errors })), { variable: "x" }, [{ variable: "g", level }])!;
        const table = ladderTables(models(seed, terms, { errors, reference: level }));
        const { b } = table.steps[0]!.coefficients.find((c) => c.column === "x")!;
        for (const what of ["estimate", "se", "t", "p", "lower", "upper"] as const) close(slope[what], b[what]);
      },
    ),
    { numRuns: 20 },
  );
});

test("law: slopes differ by the product's coefficient times the distance, with its very t and p", () => {
  fc.assert(
    fc.property(seeds, fc.double({ min: 0.01, max: 5, noNaN: true }), (seed, distance) => {
      const fitted = models(seed, PRODUCT);
      const { b } = ladderTables(fitted).steps[0]!.coefficients.find((c) => c.column === "x*m")!;
      const difference = effectDifference(
        ground(fitted),
        { variable: "x" },
        [{ variable: "m", value: distance }],
        [{ variable: "m", value: 0 }],
      )!;
      close(difference.estimate, b.estimate * distance);
      close(difference.t, b.t);
      close(difference.p, b.p);
    }),
    { numRuns: 25 },
  );
});

test("law: at a region's bounds the band touches zero, found by bisection too, and it holds on the sides that are told", () => {
  const told = new Set<string>();
  fc.assert(
    fc.property(
      seeds,
      fc.constantFrom<string[][]>([["x"], ["m"], ["x", "m"]], [["x"], ["w"], ["x", "w"]], [["x"], ["x", "x"]]),
      (seed, terms) => {
        const moderator = terms.flat().find((name) => name !== "x") ?? "x";
        const of = ground(models(seed, terms));
        const along = effectAlong(of, { variable: "x" }, moderator, []) as EffectAlong;
        told.add(along.holds);
        const away = (value: number) => {
          const { lower, upper } = effectAt(along, value);
          return Math.max(lower, -upper); // above 0 where zero is left out
        };
        for (const bound of along.bounds) {
          let [low, high] = [bound - 1e-3 * along.sd, bound + 1e-3 * along.sd];
          if (Math.sign(away(low)) === Math.sign(away(high))) continue; // two bounds closer than that
          for (let k = 0; k < 80; k++) {
            const middle = (low + high) / 2;
            if (Math.sign(away(middle)) === Math.sign(away(low))) low = middle;
            else high = middle;
          }
          expect(Math.abs(low - bound) / along.sd).toBeLessThan(1e-7);
        }
        const inside = (value: number) => along.bounds.length === 2 && value > along.bounds[0]! && value < along.bounds[1]!;
        for (let t = -6; t <= 6; t += 0.37) {
          const value = along.centre + t * along.sd;
          const holds =
            along.holds === "everywhere" || (along.holds === "between" ? inside(value) : along.holds === "outside" && !inside(value));
          if (Math.abs(away(value)) > 1e-9) expect(away(value) > 0).toBe(holds);
          const direct = simpleEffect(of, { variable: "x" }, [{ variable: moderator, value }])!;
          close(effectAt(along, value).y, direct.estimate);
          close(effectAt(along, value).lower, direct.lower);
        }
      },
    ),
    { numRuns: 60 },
  );
  expect([...told]).toEqual(expect.arrayContaining(["between", "outside"]));
});

test("what cannot be told is said: a slope that is no line, a level nobody has in a product, a perfect fit", () => {
  const bent = ground(models(3, [["x"], ["m"], ["x", "m"], ["x", "m", "m"]]));
  expect(effectAlong(bent, { variable: "x" }, "m", [])).toEqual({ reason: "not-a-line" });
  // nobody of level q has another x than 5: its slope is not in the sample
  const variables = sample(5);
  const { codes } = variables.get("g") as { codes: Int32Array };
  variables.set(
    "x",
    (variables.get("x") as Float64Array).map((v, i) => (codes[i] === 1 ? 5 : v)),
  );
  const steps = [[["x"], ["g"], ["x", "g"]].map((components) => ({ components }))];
  const lost = ground(ladderModels({ outcome: "y", steps, centring: "raw", confidence: 0.95 }, variables));
  expect(simpleEffect(lost, { variable: "x" }, [{ variable: "g", level: "q" }])).toBeNull();
  expect(simpleEffect(lost, { variable: "x" }, [{ variable: "g", level: "p" }])).not.toBeNull();
});
