import { readFileSync } from "node:fs";
import {
  changeAfter,
  changeWithin,
  detectableEffect,
  effectOf,
  expectedHalfWidth,
  type PlannedTest,
  powerOf,
  productReliability,
  respondentsFor,
} from "./power";
import { judge, normalTheory, replicateP } from "./verdict";
import fc from "fast-check";

const { expected } = JSON.parse(readFileSync("reference/planning/planning.json", "utf8"));
const close = (got: number, wanted: number, within = 1e-9) =>
  expect(Math.abs(got - wanted) / Math.max(Math.abs(wanted), 1e-12)).toBeLessThan(within);
/** `u 1, p 3, n 50, dR2 0.05` as numbers by name. */
const settings = (name: string) => Object.fromEntries(name.split(", ").map((one) => [one.slice(0, one.lastIndexOf(" ")), Number(one.slice(one.lastIndexOf(" ") + 1))])) as Record<string, number>; // prettier-ignore
const testOf = (s: Record<string, number>, oneSided: boolean): PlannedTest => ({ tested: s.u!, columns: s.p!, alpha: s.alpha!, oneSided });

describe.each([
  ["", false],
  ["_one_sided", true],
] as const)("independent values%s", (suffix, oneSided) => {
  // prettier-ignore
  test.each(Object.entries<any>(expected[`power${suffix}`].values))("power: %s", (name, { power }) => {
    const s = settings(name);
    close(powerOf(s.n!, effectOf(s.dR2!, s.R2!), testOf(s, oneSided)), power);
  });
  test.each(Object.entries<any>(expected[`n_for_power${suffix}`].values))("respondents: %s", (name, byPower) => {
    const s = settings(name);
    for (const [power, { n, power: reached, power_with_one_less: less }] of Object.entries<any>(byPower)) {
      expect(respondentsFor(Number(power), s.f2!, testOf(s, oneSided))).toBe(n);
      close(powerOf(n, s.f2!, testOf(s, oneSided)), reached);
      if (less !== null) close(powerOf(n - 1, s.f2!, testOf(s, oneSided)), less);
    }
  });
  test.each(Object.entries<any>(expected[`smallest_detectable${suffix}`].values))("smallest effect: %s", (name, byPower) => {
    const s = settings(name);
    for (const [power, { f2, ...of }] of Object.entries<any>(byPower)) {
      const found = detectableEffect(Number(power), s.n!, testOf(s, oneSided))!;
      close(found, f2);
      close(changeWithin(found, s.R2!), of.dR2_when_R2_is_of_the_model_with_the_step);
      close(changeAfter(found, s.R2!), of.dR2_when_R2_is_of_the_model_before);
    }
  });
});

test("reliability of a product, and expected half-widths", () => {
  for (const [name, { reliability }] of Object.entries<any>(expected.product_reliability.values)) {
    const s = settings(name);
    close(productReliability(s.x!, s.m!, s.r!), reliability);
  }
  for (const [name, { half_width }] of Object.entries<any>(expected.half_width.values)) {
    const s = settings(name);
    close(expectedHalfWidth(s.n!, s.p!, { s: s.s!, sd: s.SD!, tolerance: s.tolerance! }), half_width);
  }
});

describe("verdicts against independent cases", () => {
  const cases = [expected.verdicts, expected.verdicts_open].flatMap((block) => Object.entries<any>(block.cases).map(([key, given]) => [key, given, block.values[key]] as const)); // prettier-ignore
  test.each(cases)("%s", (_, given, wanted) => {
    const evidence = normalTheory(given.estimate, given.se, given.df === "normal" ? null : given.df);
    const found = judge(evidence, given);
    expect(found.verdict).toBe(wanted.verdict);
    if (wanted.p === null) return expect(found.p).toBeNull();
    close(found.p!, wanted.p);
    close(found.twoSided!, wanted.two_sided.p);
    close(found.interval!.lower, wanted.interval.lower, 1e-8);
    close(found.interval!.upper, wanted.interval.upper, 1e-8);
    if (!wanted.equivalence) return;
    close(found.equivalence!.p, wanted.equivalence.p);
    close(found.equivalence!.aboveMinus, wanted.equivalence.above_minus_delta.p);
    close(found.equivalence!.belowPlus, wanted.equivalence.below_delta.p);
    close(found.equivalence!.interval.lower, wanted.equivalence.interval.lower, 1e-8);
  });
  test.each(Object.entries<any>(expected.bootstrap_p.values))("from replicates: %s", (name, { p }) => {
    const [, replicates, atOrBelow, atOrAbove] = /B (\d+), (\d+) at or below 0, (\d+) at or above 0/.exec(name)!.map(Number);
    const direction = /direction (none|\+|-)/.exec(name)![1] as "none";
    const estimate = name.endsWith("estimate +") ? 1 : -1;
    close(
      replicateP({ atOrBelow: atOrBelow!, atOrAbove: atOrAbove!, replicates: replicates! }, estimate, {
        direction,
        before: !name.includes("not before"),
      }),
      p,
    );
  });
});

describe("laws of verdicts", () => {
  const claims = fc.record({
    claim: fc.constantFrom("effect" as const, "beyond" as const, "equivalence" as const),
    direction: fc.constantFrom("+" as const, "-" as const, "none" as const),
    delta: fc.constantFrom(0, 0.1, 0.3),
    alpha: fc.constantFrom(0.01, 0.05),
    before: fc.boolean(),
  });
  const numbers = fc.record({ estimate: fc.double({ min: -1, max: 1, noNaN: true }), se: fc.double({ min: 0.01, max: 0.5, noNaN: true }), df: fc.integer({ min: 2, max: 400 }) }); // prettier-ignore
  test("an interval within the margins is never too uncertain; in another unit the verdict is the same", () => {
    fc.assert(
      fc.property(claims, numbers, fc.constantFrom(0.001, 7, 1000), (claim, { estimate, se, df }, unit) => {
        const found = judge(normalTheory(estimate, se, df), claim);
        const within = found.interval && found.interval.lower > -claim.delta && found.interval.upper < claim.delta;
        if (within) expect(found.verdict).not.toBe("too uncertain to say");
        expect(judge(normalTheory(estimate * unit, se * unit, df), { ...claim, delta: claim.delta * unit }).verdict).toBe(found.verdict);
      }),
    );
  });
  test("turned round, direction and all, it stands as before", () => {
    const turned = { "+": "-", "-": "+", none: "none" } as const;
    fc.assert(
      fc.property(claims, numbers, (claim, { estimate, se, df }) => {
        const there = judge(normalTheory(estimate, se, df), claim);
        expect(judge(normalTheory(-estimate, se, df), { ...claim, direction: turned[claim.direction] }).verdict).toBe(there.verdict);
      }),
    );
  });
  test("a p that its family makes larger never turns a verdict towards support", () => {
    fc.assert(
      fc.property(claims, numbers, fc.integer({ min: 1, max: 20 }), (claim, { estimate, se, df }, family) => {
        const evidence = normalTheory(estimate, se, df);
        if (judge(evidence, claim, (p) => Math.min(1, p * family)).verdict === "supported")
          expect(judge(evidence, claim).verdict).toBe("supported");
      }),
    );
  });
});
