import type { Stand } from "@/study/analyse/analyse-theory";
import { applyEdits } from "@/study/model/edit";
import { codesOf, Hypothesis, MOST_CHANGES } from "@/study/model/hypothesis";
import { Study } from "@/study/model/study";
import { Theory, theoryOf } from "@/study/model/theory";
import { EXPECTATIONS, expectationOf, hypothesisSentence, restsWords } from "@/study/report/theory/hypothesis-words";
import { theoryTable } from "@/study/report/theory/theory-table";
import { changesSay, evidenceWords, verdictSays } from "@/study/report/theory/verdict-words";
import { plain } from "@/study/report/words";
import { ladderOf } from "@/study/test-support/desk";
import {
  changed,
  firstOf,
  moved,
  newHypothesis,
  restsOnColumn,
  restsParts,
  seenBefore,
  testableColumns,
} from "@/features/study/hypothesis-edits";
import { beginnings } from "./BegunWith";
import { theoryPicture } from "@/study/report/theory/theory-picture";

const title = (name: string, level?: string | null) => (level == null ? `<${name}>` : `<${name}: ${level}>`);
const NOW = "2026-11-28T12:00:00.000Z";
const LADDER = ladderOf(["c"], ["x", "m"], ["x*m"]);
const codebook = ["y", "c", "x", "m"].map((name) => ({ name }));
const base = Study.parse({ format: "beta-step-study", version: 1, name: "s", codebook, ladders: [LADDER] });
const of = (own: object = {}) => Hypothesis.parse({ id: "h", ladder: "l", ...own });
const on = (...names: string[]) => ({ rests: restsOnColumn(names.map((variable) => ({ variable, level: null }))) });
const stand = (own: Partial<Stand>): Stand => ({ id: "h", verdict: "supported", waits: null, estimate: 0.25, test: { by: "t", t: 2.6, df: 90 }, p: 0.011, pHolm: null, twoSided: 0.011, interval: { lower: 0.06, upper: 0.44 }, equivalence: null, n: 96, step: 2, exploratory: false, delta: 0, would: null, ...own }); // prettier-ignore

describe("the sentence that settings make", () => {
  test.each([
    [{ ...on("x"), direction: "+" }, "<x> goes with more <y>"],
    [{ ...on("x"), direction: "-", claim: "beyond" }, "<x> goes with less <y>, more than what would not matter"],
    [on("x"), "<x> makes a difference for <y>"],
    [{ ...on("x"), claim: "equivalence" }, "<x> makes no difference that matters for <y>"],
    [{ ...on("x", "m"), direction: "+" }, "<m> strengthens what <x> does for <y>"],
    [{ ...on("x", "m"), direction: "-" }, "<m> weakens what <x> does for <y>"],
    [{ rests: { on: "change" }, step: 2 }, "<x> and <m> together add to what predicts <y>"],
    [{ rests: { on: "change" }, step: 1 }, "<c> adds to what predicts <y>"],
    [{}, "Still open: what should predict what?"],
    [{ ...on("x"), text: "In my own words" }, "In my own words"],
  ])("%j", (own, sentence) => expect(hypothesisSentence(of(own), [LADDER], title)).toBe(sentence));
  test("every expectation comes back as the one that was chosen", () => {
    for (const key of Object.keys(EXPECTATIONS)) {
      const [claim, direction] = key.split(" ");
      expect(expectationOf(of({ claim, direction }))).toBe(key);
    }
  });
});

test("evidence is printed in the metric of what it rests on: no leading zero for β, F for a step, Holm's p beside", () => {
  expect(plain(evidenceWords(stand({}), of(on("x"))))).toBe(".25 [.06, .44], p = .011");
  expect(plain(evidenceWords(stand({ pHolm: 0.033 }), of({ rests: { ...on("x").rests, metric: "b" } })))).toBe(
    "0.25 [0.06, 0.44], p = .011 (Holm .033)",
  );
  expect(
    plain(evidenceWords(stand({ estimate: 0.04, test: { by: "F", F: 6.5, df: [2, 90] }, p: 0.0023 }), of({ rests: { on: "change" } }))),
  ).toBe(".040 [.060, .440], F(2, 90) = 6.50, p = .002");
  expect(evidenceWords(stand({ estimate: null }), of(on("x")))).toBe("");
  expect(plain(restsWords(of({ rests: { on: "change" }, step: 2 }), [LADDER], title))).toBe("ΔR², step 2");
});

test("what a verdict means: sides only where one was expected, one-sidedness as it was, the mark of a search", () => {
  const theory = Theory.parse({ id: "theory", alpha: 0.01 });
  const said = (s: Stand, h: Hypothesis) => verdictSays(s, h, theory, title).map(plain).join(" ");
  expect(said(stand({}), of({ ...on("x"), direction: "+", before: true }))).toBe("p lies below .01, on the side that was expected. The direction stood before the result was first looked at: one-sided. The interval is two-sided, at 99 %."); // prettier-ignore
  expect(said(stand({}), of({ rests: { on: "change" } }))).not.toMatch(/side that|direction/);
  expect(said(stand({ verdict: "not supported" }), of({ ...on("x"), direction: "-" }))).toContain(
    "not evidence for no effect. The direction was set after the result could be seen: two-sided.",
  );
  expect(said(stand({ exploratory: true }), of(on("x")))).toContain("Exploratory");
  expect(said(stand({ verdict: "not testable yet", waits: { for: "step", step: 7 }, interval: null }), of(on("x")))).toContain(
    "Its ladder has no step 7.",
  );
});

describe("edits", () => {
  test("the first brings level and family with it, a further one does not; before is what nobody has looked at", () => {
    const first = newHypothesis(base, { ladder: "l" }, false, NOW);
    const study = applyEdits(base, first.edits).study;
    expect(theoryOf(study.theories)).toMatchObject({ alpha: 0.05, holm: false, delta: 0 });
    expect(study.hypotheses[0]).toMatchObject({ id: first.id, before: true });
    const second = newHypothesis(study, {}, true, NOW);
    expect(second.edits).toHaveLength(1);
    expect(applyEdits(study, second.edits).study.hypotheses[1]!.before).toBe(false);
  });
  test("a change of what is tested after the result was seen ends that it stood before; of words, family and place does not", () => {
    const h = of({ ...on("x"), direction: "+", before: true });
    for (const to of [{ direction: "-" }, { claim: "beyond" }, { delta: 0.1 }, { step: 2 }, { ladder: null }, on("m")]) expect(changed(h, to as Partial<Hypothesis>, true, NOW).before).toBe(false); // prettier-ignore
    for (const to of [{ text: "other words" }, { family: false }, { part: true }, { direction: "+" }])
      expect(changed(h, to as Partial<Hypothesis>, true, NOW).before).toBe(true);
    expect(changed(h, { direction: "-" }, false, NOW).before).toBe(true);
  });
  test("what it said before each change that was made after its result was seen is kept with its day, first and newest of many", () => {
    const h = of({ ...on("x"), direction: "+", before: true, since: "2026-03-12T08:00:00.000Z" });
    const one = changed(h, { direction: "-" }, true, NOW);
    expect(one.changes).toMatchObject([{ at: NOW, was: { direction: "+", rests: h.rests } }]);
    expect(changesSay(one, [LADDER], title)).toEqual(["It says this since 28 Nov 2026.", "Changed after its result was seen, on 28 Nov 2026. Before: <x> goes with more <y>."]); // prettier-ignore
    expect(changed(h, { direction: "-" }, false, NOW).changes).toEqual([]);
    // what rested on nothing yet had no result to be seen
    expect(changed(of({ direction: "+" }), on("x"), true, NOW).changes).toEqual([]);
    let many = h;
    for (let k = 0; k < 60; k++) many = changed(many, { delta: k + 1 }, true, NOW);
    expect(many.changes).toHaveLength(MOST_CHANGES);
    expect([many.changes[0]!.was.delta, many.changes.at(-1)!.was.delta]).toEqual([null, 59]);
  });
  test("what cannot lie on one side loses its direction and its size", () => {
    const h = of({ ...on("x"), direction: "+", claim: "beyond" });
    expect(changed(h, { rests: { on: "change" } }, false, NOW)).toMatchObject({ direction: "none", claim: "effect" });
    const rests = { on: "groups" as const, variable: "g", column: [{ variable: "x", level: null }], metric: "beta" as const };
    expect(changed(h, { rests: { ...rests, first: null, second: null } }, false, NOW).direction).toBe("none");
    expect(changed(h, { rests: { ...rests, first: "a", second: "b" } }, false, NOW).direction).toBe("+");
  });
  test("moved, it takes the code of its new place, and nothing moves beyond the ends", () => {
    const list = ["a", "b", "c"].map((id) => of({ id, text: id }));
    const study = applyEdits(base, list.map((to) => ({ subject: "hypothesis" as const, id: to.id, to }))).study; // prettier-ignore
    const after = applyEdits(study, moved(study.hypotheses, 2, -1)).study.hypotheses;
    expect(after.map(({ text }, k) => `${codesOf(after)[k]} ${text}`)).toEqual(["H1 a", "H2 c", "H3 b"]);
    expect(moved(study.hypotheses, 0, -1)).toEqual([]);
    expect(moved(study.hypotheses, 2, 1)).toEqual([]);
  });
  test("what a hypothesis on ΔR² cannot claim is refused with its code", () => {
    const to = of({ rests: { on: "change" }, claim: "equivalence" });
    expect(() => applyEdits(base, [{ subject: "hypothesis", id: "h", to }])).toThrow(
      "H1 rests on ΔR², which can be tested against nothing only.",
    );
  });
});

test("before there is a fit, the terms of the steps are what can be tested", () => {
  expect(testableColumns(LADDER, 2, null).map((parts) => parts.map(({ variable }) => variable).join("*"))).toEqual(["c", "x", "m"]);
  expect(testableColumns(LADDER, 3, null)).toHaveLength(4);
});

test("the picture has a thread a predictor in the order of the steps, a wedge a product, a bracket a step that is claimed to add", () => {
  const list = [of({ id: "1", ...on("m"), direction: "-" }), of({ id: "2", ...on("x", "m"), direction: "-" }), of({ id: "3", rests: { on: "change" }, step: 2 }), of({ id: "4", ...on("c"), claim: "equivalence" }), of({ id: "5", ladder: "other", ...on("x") })]; // prettier-ignore
  const stands = new Map([["1", stand({ verdict: "opposite direction" })]]);
  const picture = theoryPicture(LADDER, list, stands, title);
  expect(picture.threads.map(({ key, step }) => [key, step])).toEqual([["c", 0], ["x", 1], ["m", 1]]); // prettier-ignore
  expect(picture.threads.map(({ claims }) => claims.map(({ code, sign, verdict }) => `${code} ${sign} ${verdict}`))).toEqual([["H4 0 not testable yet"], [], ["H1 − opposite direction"]]); // prettier-ignore
  expect(picture.wedges).toMatchObject([{ from: "m", on: "x", opens: false, claim: { code: "H2" } }]);
  expect(picture.steps.map(({ claim }) => claim?.code ?? null)).toEqual([null, "H3", null]);
  const table = theoryTable({ hypotheses: list, ladders: [LADDER] }, stands, Theory.parse({ id: "theory", holm: true, delta: 0.1 }), title);
  expect(table.sections[0]!.rows.map((row) => row[0])).toEqual(["H1", "H2", "H3", "H4", "H5"]);
  expect(plain(table.note)).toContain("α = .05, Holm over the family; below |β| = .10 nothing would matter");
});

describe("whether a result was looked at before", () => {
  const other = of({ id: "o", ...on("x"), step: 3 });
  const study = { ladders: [LADDER], hypotheses: [other] };
  const seen = (h: Hypothesis, looked: string[] = [], shown: string[] = []) => seenBefore(h, study, looked, new Set(shown));
  test("with its ladder, and with the same number in the verdict of another, whatever that is told in", () => {
    expect([seen(of(on("x"))), seen(of(on("x")), ["ladder other", "scale l"]), seen(of(on("x")), ["ladder l"])]).toEqual([
      false,
      false,
      true,
    ]);
    // the last step is the third
    expect(seen(of({ rests: { ...on("x").rests, metric: "b" } }), [], ["o"])).toBe(true);
    expect([seen(of(on("m")), [], ["o"]), seen(of({ ...on("x"), step: 2 }), [], ["o"]), seen(of(), [], ["o"])]).toEqual([false, false, false]); // prettier-ignore
  });
  test("of a correlation with any look, and with no ladder", () => {
    const r = of({ rests: { on: "correlation", x: "x", y: "m" } });
    expect([seen(r, ["ladder l"]), seen(r, ["first-look first"])]).toEqual([false, true]);
  });
});

describe("what a hypothesis can begin with", () => {
  const columns = testableColumns(LADDER, 3, null);
  test("one thread offers its coefficient, two their difference and their product where there is one", () => {
    expect(beginnings(["x"], columns, title).map(({ label }) => label)).toEqual(["the coefficient of <x>"]);
    expect(beginnings(["x", "m"], columns, title).map(({ label }) => label)).toEqual(["β of <x> − β of <m>", "the product <x> × <m>"]);
    expect(beginnings(["m", "c"], columns, title).map(({ label }) => label)).toEqual(["β of <m> − β of <c>"]);
    expect(beginnings([], columns, title)).toEqual([]);
  });
  test("each kind starts from what the study holds, and is not offered where it holds nothing of it", () => {
    const levels = [{ value: "a" }, { value: "b" }, { value: "c" }];
    const study = Study.parse({ ...base, codebook: [...base.codebook, { name: "g", kind: "category", levels }] });
    const parts = restsParts(study, columns, null);
    expect(firstOf("slope", columns, parts)).toMatchObject({ focal: { variable: "x" }, moderator: "m", at: { place: "high" } });
    expect(firstOf("region", columns, parts)).toMatchObject({ focal: { variable: "x" }, moderator: "m", from: null, to: null });
    expect(firstOf("difference", columns, parts)).toMatchObject({ first: [{ variable: "c" }], second: [{ variable: "x" }] });
    expect(firstOf("groups", columns, parts)).toMatchObject({ variable: "g", first: "a", second: "b", column: [{ variable: "c" }] });
    expect(firstOf("correlation", columns, parts)).toMatchObject({ x: "y", y: "c" });
    // the category is not in the step, so its means are not predicted
    expect(firstOf("means", columns, parts)).toBeNull();
    const withG = ladderOf(["g"], ["x"]);
    const own = testableColumns(withG, 2, null);
    expect(firstOf("means", own, restsParts(study, own, null))).toMatchObject({ variable: "g", first: "a", second: "b" });
    expect(firstOf("slope", own, restsParts(study, own, null))).toBeNull();
    expect(firstOf("region", own, restsParts(study, own, null))).toBeNull();
    expect(firstOf("difference", own.slice(0, 1), restsParts(study, own, null))).toBeNull();
    for (const kind of ["slope", "region", "difference", "groups", "correlation", "indirect"] as const)
      expect(Hypothesis.safeParse({ id: "h", rests: firstOf(kind, columns, parts) }).success).toBe(true);
  });
  test("claims that are not of a coefficient stand at the end of the thread they are about, with where; a difference ties two", () => {
    const list = [
      of({ id: "1", rests: { on: "slope", focal: { variable: "x" }, moderator: "m", at: { place: "low" } } }),
      of({ id: "2", rests: { on: "difference", first: [{ variable: "c" }], second: [{ variable: "m" }] }, direction: "+" }),
      of({ id: "3", rests: { on: "groups", variable: "g", column: [{ variable: "m" }], first: "a", second: "b" } }),
      of({ id: "4", rests: { on: "indirect", from: "c", through: "x" } }),
      of({ id: "5", rests: { on: "correlation", x: "x", y: "y" }, ladder: null }),
    ];
    const { threads, ties } = theoryPicture(LADDER, list, new Map(), title);
    expect(threads.map(({ key, claims }) => [key, ...claims.map(({ code, where }) => `${code} ${where}`)])).toEqual([
      ["c", "H2 against <m>", "H4 through <x>"],
      ["x", "H1 <m> low (mean − SD)"],
      ["m", "H3 <g: a> − <g: b>"],
    ]);
    expect(ties).toMatchObject([{ first: "c", second: "m", claim: { code: "H2", sign: "+" } }]);
  });
});
