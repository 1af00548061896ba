import type { PowerResult } from "../../analyse/analyse-power";
import { plain } from "../words";
import { formatPower, plannedEvidence, powerSays, powerTable, samplesSay } from "./power-words";

type Planned = Extract<PowerResult, { status: "planned" }>;
const title = (name: string) => `<${name}>`;
const planned = (own: Partial<Planned> = {}): Planned => ({
  status: "planned",
  of: "coefficient",
  test: { tested: 1, columns: 5, alpha: 0.05, oneSided: false },
  n: 200,
  R2: 0.3,
  effect: 0.1,
  from: { n: "said", R2: "usual", effect: "smallest", own: "found" },
  f2: 0.02,
  power: 0.51,
  needed: 393,
  detectable: 0.139,
  halfWidth: 0.117,
  own: 0.98,
  product: null,
  curve: [
    { n: 10, power: 0.06 },
    { n: 400, power: 0.81 },
  ],
  ...own,
});
const said = (found: Planned) => powerSays(found, 0.8, title).map(plain).join(" ");

test("a power is never printed as certain, nor as nothing", () => {
  expect([0.9999, 0.99, 0.8, 0.004, null].map(formatPower)).toEqual(["> .99", ".99", ".80", "< .01", "–"]); // prettier-ignore
  expect(formatPower(1)).toBe("> .99");
  expect(formatPower(0)).toBe("< .01");
});

test("what n can show, how wide its interval would be, and where every assumption comes from", () => {
  const text = said(planned());
  expect(text).toContain("200 respondents show β = .14 with a power of .80; the interval of β would reach .12 to either side.");
  expect(text).toContain(
    "Assumed: 200 respondents (as you say), R² = .30 (a usual value) and the effect (the smallest that matters); two-sided",
  );
  expect(said(planned({ test: { tested: 1, columns: 5, alpha: 0.05, oneSided: true } }))).toContain("one-sided, since");
  expect(said(planned({ of: "change", effect: 0.02, detectable: 0.0261, halfWidth: null }))).toContain(
    "show ΔR² = .026 with a power of .80.",
  );
});

test("what cannot be is said: no degree of freedom, no number that would do", () => {
  expect(said(planned({ n: 5, power: null, detectable: null, halfWidth: null }))).toContain("With 5 respondents no degree of freedom is left for 5 columns."); // prettier-ignore
  expect(said(planned({ needed: null }))).toContain("No number of respondents reaches that power");
});

test("a product says what it loses, and by whose reliability", () => {
  const product = { names: ["x", "m"] as [string, string], reliability: [0.8, 0.7] as [number, number], from: "found" as const, r: 0.3, of: 0.596, power: 0.34, needed: 663 }; // prettier-ignore
  expect(said(planned({ product }))).toContain("reliabilities of .80 (<x>) and .70 (<m>), so the product’s is .60: a β of that size in truth would show with a power of .34 only, and take 663 respondents."); // prettier-ignore
});

test("drawn samples are told with their Monte Carlo error beside what was reckoned; losses too", () => {
  const drawn = { n: 200, samples: 2000, held: 1000, failed: 4, left: 1996 * 180, halfWidths: 1996 * 0.12 };
  const text = samplesSay(drawn, planned()).map(plain);
  expect(text[0]).toBe("The test held in 1\u202f000 of 2\u202f000 samples: a power of .50, give or take .02; reckoned, it is .51.");
  expect(text.slice(1)).toEqual([
    "On average 180 of 200 answered everything.",
    "Its interval reached .12 to either side, on average.",
    "In 4 samples too few were left to fit the model.",
  ]);
  expect(samplesSay({ ...drawn, failed: 0, left: 2000 * 200 }, planned({ of: "change" }))).toHaveLength(1);
});

test("before there is evidence stands what so many could show; the table has the whole curve", () => {
  expect(plain(plannedEvidence(planned(), 0.8))).toBe("200 would show β = .10 with power .51; .80 takes 393");
  expect(plannedEvidence({ status: "refused", why: "rests" }, 0.8)).toBe("");
  const table = powerTable(planned(), "H2");
  expect(table.sections[0]!.rows).toEqual([["10", ".06"], ["400", ".81"]]); // prettier-ignore
  expect(plain(table.note)).toBe("β = .10, R² = .30, α = .05, two-sided.");
});
