import type { Stand } from "../../analyse/analyse-theory";
import { Hypothesis } from "../../model/hypothesis";
import { Theory } from "../../model/theory";
import { ladderOf } from "../../test-support/desk";
import { plain } from "../words";
import { contradictions, hypothesisSentence, restsWords } from "./hypothesis-words";
import { evidenceWords, verdictSays, waitsWords } from "./verdict-words";

const title = (name: string, level?: string | null) => (level == null ? `<${name}>` : `<${name}>: ${level}`);
const LADDER = ladderOf(["c"], ["x", "m"], ["x*m"]);
const of = (rests: object, own: object = {}) => Hypothesis.parse({ id: "h", ladder: "l", rests, ...own });
const at = (name: string) => [{ variable: name }];
const slope = (own: object) => ({ on: "slope", focal: { variable: "x" }, moderator: "m", ...own });
const groups = (own: object = {}) => ({ on: "groups", variable: "g", column: at("x"), ...own });
const stand = (own: Partial<Stand>): Stand => ({ id: "h", verdict: "supported", waits: null, estimate: 0.25, test: { by: "t", t: 2.6, df: 90 }, p: 0.011, pHolm: null, twoSided: 0.011, interval: { lower: 0.06, upper: 0.44 }, equivalence: null, n: 96, step: 2, exploratory: false, delta: 0, would: null, ...own }); // prettier-ignore

test.each<[object, object, string, string]>([
  [{ on: "difference", first: at("x"), second: at("m") }, { direction: "+" }, "<x> counts more than <m> for <y>", "β of <x> − β of <m>, step 3"],
  [{ on: "difference", first: at("x"), second: at("m") }, { claim: "equivalence" }, "<x> counts as much as <m> for <y>", "β of <x> − β of <m>, step 3"],
  [slope({ at: { place: "high" } }), { direction: "+" }, "<x> goes with more <y> where <m> is high (mean + SD)", "slope of <x>, <m> high (mean + SD), step 3"],
  [slope({ at: { value: -2.5 }, metric: "b" }), { direction: "-" }, "<x> goes with less <y> where <m> is −2.5", "slope of <x>, <m> −2.5, step 3"],
  [slope({ on: "region", from: 2 }), { direction: "+" }, "<x> goes with more <y>, <m> from 2 on", "slope of <x>, <m> from 2 on, step 3"],
  [slope({ on: "region", from: 2, to: 4 }), {}, "<x> makes a difference for <y>, <m> from 2 to 4", "slope of <x>, <m> from 2 to 4, step 3"],
  [slope({ on: "region" }), {}, "<x> makes a difference for <y>, <m> at every value that was observed", "slope of <x>, <m> at every value that was observed, step 3"],
  [groups({ first: "a", second: "b" }), { direction: "+" }, "What <x> does for <y> is more in a than in b", "β of <x>, a − b, step 3"],
  [groups(), {}, "What <x> does for <y> differs between the groups of <g>", "β of <x> over all groups of <g>, step 3"],
  [{ on: "means", variable: "g", first: "a", second: "b" }, { direction: "-" }, "Predicted <y> is less in a than in b", "predicted, a − b, step 3"],
  [{ on: "means", variable: "g", first: "a", second: "b" }, { claim: "beyond", direction: "+" }, "Predicted <y> is more in a than in b, by more than what would not matter", "predicted, a − b, step 3"],
  [{ on: "correlation", x: "x", y: "z" }, { direction: "-" }, "More <x> goes with less <z>", "r of <x> and <z>"],
  [{ on: "correlation", x: "x", y: "z" }, { claim: "equivalence" }, "<x> and <z> do not go together in a way that matters", "r of <x> and <z>"],
  [{ on: "indirect", from: "c", through: "x" }, {}, "<c> works on <y> through <x>", "a path, tested by nothing here"],
])("%j %j", (rests, own, sentence, short) => {
  expect(hypothesisSentence(of(rests, own), [LADDER], title)).toBe(sentence);
  expect(plain(restsWords(of(rests, own), [LADDER], title))).toBe(short);
}); // prettier-ignore

test("a path says that its parts are hypotheses of their own; every reason to wait is a sentence", () => {
  const reasons = [
    { for: "path" },
    { for: "coefficient", why: "off" },
    { for: "coefficient", why: "later" },
    { for: "coefficient", why: "removed" },
    { for: "coefficient", why: "level" },
    { for: "coefficient", why: "dropped" },
    { for: "product", focal: "x", moderator: "m" },
    { for: "level", variable: "g", level: "gone" },
    { for: "name", name: "g" },
    { for: "test" },
  ] as const;
  const said = reasons.map((waits) => waitsWords(waits, title));
  expect(new Set(said).size).toBe(reasons.length);
  for (const one of said) expect(one).toMatch(/^[A-Z].*\.$/);
  expect(said[0]).toContain("hypotheses of their own");
  expect(said[7]).toBe("Nobody in the sample has gone.");
});

test("evidence is told as it was tested", () => {
  const chi2 = stand({ estimate: 7.1, test: { by: "chi2", chi2: 7.1, df: 2 }, p: 0.029, interval: null });
  expect(plain(evidenceWords(chi2, of(groups())))).toBe("χ²(2) = 7.10, p = .029");
  const drawn = stand({ test: { by: "replicates", replicates: 5000 }, p: 0.0004 });
  expect(plain(evidenceWords(drawn, of({ on: "difference", first: at("x"), second: at("m") })))).toBe(".25 [.06, .44], p < .001 by 5\u202f000 replicates"); // prettier-ignore
  expect(plain(evidenceWords(stand({ estimate: 1.25 }), of({ on: "means", variable: "g", first: "a", second: "b" })))).toContain(
    "1.25 [0.06",
  );
});

test("a verdict says what belongs to its kind, and how many would decide", () => {
  const said = (own: Partial<Stand>, h: Hypothesis) => verdictSays(stand(own), h, Theory.parse({ id: "theory", delta: 0.1 }), title).map(plain).join(" "); // prettier-ignore
  expect(said({}, of(slope({ on: "region" })))).toContain("Tested at both ends");
  expect(said({}, of(groups({ first: "a", second: "b" })))).toContain("tested by z");
  expect(said({ test: { by: "replicates", replicates: 1000 } }, of({ on: "coefficient", column: at("x") }))).toContain(
    "1\u202f000 replicates of its ladder",
  );
  const open = said({ verdict: "too uncertain to say", delta: 0.1, would: 638 }, of({ on: "coefficient", column: at("x") }));
  expect(open).toContain("About 640 respondents would (power .80).");
});

describe("contradictions", () => {
  const on = { on: "coefficient", column: at("x") };
  const told = (...all: Hypothesis[]) => contradictions(all.map((h, k) => ({ ...h, id: `h${k}` })), [LADDER]); // prettier-ignore
  test("are of the same number only, whatever it is told in", () => {
    expect(told(of(on, { direction: "+" }), of(on, { direction: "-" }))).toEqual(["H1 and H2 contradict each other: one expects above 0, the other below."]); // prettier-ignore
    expect(told(of(on, { direction: "+" }), of({ ...on, metric: "b" }, { direction: "-" }))).toHaveLength(1);
    expect(told(of(on, { direction: "+" }), of(on, { claim: "equivalence" }))[0]).toContain("none that matters");
    // the last step is the third, by name or not
    expect(told(of(on, { direction: "+" }), of(on, { direction: "-", step: 3 }))).toHaveLength(1);
    expect(told(of(on, { direction: "+" }), of(on, { direction: "-", step: 2 }))).toEqual([]);
    expect(told(of(on, { direction: "+" }), of(on, { direction: "+" }), of(on))).toEqual([]);
    expect(told(of({ on: "open" }, { direction: "+" }), of({ on: "open" }, { direction: "-" }))).toEqual([]);
  });
  test("of very many the first are told, and how many more there are", () => {
    const all = Array.from({ length: 40 }, (_, k) => of(on, { direction: k % 2 ? "+" : "-" }));
    const said = told(...all);
    expect(said).toHaveLength(7);
    expect(said.at(-1)).toBe(`And ${20 * 20 - 6} further pairs do.`);
  });
});
