import { randomStream } from "@/core/random/random-stream";
import { holm } from "@/core/distributions/holm";
import { Hypothesis, codesOf } from "../model/hypothesis";
import { Ladder } from "../model/ladder";
import { Theory } from "../model/theory";
import { rowsAsLetters } from "../model/exploratory";
import { cells, deskOf, ladderOf } from "../test-support/desk";
import { analyseLadder } from "./analyse-ladder";
import { analyseTheory } from "./analyse-theory";

const N = 180;
const stream = randomStream(61);
const draw = () => Array.from({ length: N }, () => stream.normal());
const [x, m, z, e] = [draw(), draw(), draw(), draw()];
const desk = deskOf({
  y: cells(N, (i) => 0.5 * x[i]! - 0.3 * m[i]! + 0.2 * x[i]! * m[i]! + e[i]!),
  x: cells(N, (i) => x[i]!),
  m: cells(N, (i) => m[i]!),
  z: cells(N, (i) => z[i]!),
  class: cells(N, (i) => `class ${i % 20}`),
});
const LADDER = ladderOf(["z"], ["x", "m"], ["x*m"]);
const of = (own: object = {}) => Hypothesis.parse({ id: "h", ladder: "l", ...own });
const on = (...names: string[]) => ({ rests: { on: "coefficient", column: names.map((variable) => ({ variable })) } });
const stood = (hypotheses: Hypothesis[], theory: object = {}, ladder: Ladder = LADDER) =>
  analyseTheory({ theory: Theory.parse({ id: "theory", ...theory }), hypotheses, ladders: [ladder] }, desk).stands;
const fitted = (ladder = LADDER) => {
  const found = analyseLadder(desk.study, ladder, desk.responses);
  if (found.status === "refused") throw new Error(found.refusal.code);
  return found.fit.steps;
};

test.each([{}, { errors: "hc3" }, { cluster: "class" }])("p, interval and estimate are the ladder's own (%j)", (own) => {
  const ladder = Ladder.parse({ ...LADDER, ...own });
  const steps = fitted(ladder);
  for (const [step, ...names] of [
    [2, "x"],
    [3, "m"],
    [3, "x", "m"],
  ] as const) {
    // prettier-ignore
    const [stand] = stood([of({ ...on(...names), step })], {}, ladder);
    const { beta } = steps[step - 1]!.coefficients.find((c) => c.column === names.join("*"))!;
    expect(stand!.estimate).toBe(beta!.estimate);
    expect(stand!.p).toBeCloseTo(beta!.p!, 12);
    expect(stand!.interval!.lower).toBeCloseTo(beta!.lower!, 10);
  }
  const [change] = stood([of({ rests: { on: "change" }, step: 2 })], {}, ladder);
  expect([change!.estimate, change!.p]).toEqual([steps[1]!.change.change, steps[1]!.change.p]);
});

test("a direction that stood before halves p; one that did not leaves it two-sided; the other sign is the opposite", () => {
  const [before, after, other] = stood([of({ ...on("x"), direction: "+", before: true }), of({ ...on("x"), direction: "+" }), of({ ...on("x"), direction: "-" })]); // prettier-ignore
  expect(before!.p).toBeCloseTo(after!.p! / 2, 15);
  expect([before!.verdict, after!.verdict, other!.verdict]).toEqual(["supported", "supported", "opposite direction"]);
});

test("Holm goes over those in the family that can be tested, and only there", () => {
  const list = [of({ ...on("x") }), of({ ...on("z") }), of({ ...on("m"), family: false }), of({ ...on("gone") }), of({ ...on("x", "m") })];
  const alone = stood(list);
  const together = stood(list, { holm: true });
  const family = [0, 1, 4].map((k) => alone[k]!.p!);
  expect([0, 1, 4].map((k) => together[k]!.pHolm)).toEqual(holm(family));
  expect([together[2]!.pHolm, together[3]!.pHolm]).toEqual([null, null]);
  together.forEach((stand, k) => stand.verdict === "supported" && expect(alone[k]!.verdict).toBe("supported"));
});

test("the smallest effect of the study is of β only; equivalence needs one", () => {
  const [inBeta, inB, none] = stood([of({ ...on("z"), claim: "equivalence" }), of({ ...on("z"), rests: { ...on("z").rests, metric: "b" } }), of({ ...on("z"), claim: "equivalence", delta: 0 })], { delta: 0.4 }); // prettier-ignore
  expect(inBeta).toMatchObject({ verdict: "supported", delta: 0.4 });
  expect(inB!.delta).toBe(0);
  expect(none).toMatchObject({ verdict: "not testable yet", waits: { for: "smallest-effect" } });
});

test("what it rests on may be missing, and each has its reason", () => {
  const stands = stood([of({ ladder: null, ...on("x") }), of({ ...on("x"), step: 1 }), of({ ...on("x"), step: 7 }), of({}), of({ ladder: "other", ...on("x") })]); // prettier-ignore
  expect(stands.map(({ verdict }) => verdict)).toEqual(stands.map(() => "not testable yet"));
  expect(stands.map(({ waits }) => waits!.for)).toEqual(["ladder", "coefficient", "step", "open", "ladder"]);
  const broken = stood([of(on("x"))], {}, Ladder.parse({ ...LADDER, outcome: null }));
  expect(broken[0]!.waits).toMatchObject({ for: "refused", refusal: { code: "no-outcome" } });
});

test("the mark of a search goes with the verdict", () => {
  const searched = { ...LADDER, exploratory: "chosen by a search", searchedOn: rowsAsLetters([1, 2, 3]) };
  expect(stood([of(on("x"))], {}, searched)[0]!.exploratory).toBe(true);
  expect(stood([of(on("x"))])[0]!.exploratory).toBe(false);
});

test("codes number themselves, parts by letters", () => {
  const parts = [false, true, true, false, true].map((part) => ({ part }));
  expect(codesOf(parts)).toEqual(["H1", "H1a", "H1b", "H2", "H2a"]);
  expect(codesOf([{ part: true }, { part: false }])).toEqual(["H1", "H2"]);
});
