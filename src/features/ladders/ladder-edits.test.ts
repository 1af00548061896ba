import fc from "fast-check";
import { termIdentity } from "@/core/regression/terms";
import { activeTerms, Ladder } from "@/study/model/ladder";
import {
  addStep,
  addTerm,
  codeCategory,
  copyLadder,
  copyStep,
  moveStep,
  moveTerm,
  multiply,
  nameStep,
  removeStep,
  removeTerm,
  replaceTerm,
  switchStep,
  switchTerm,
} from "./ladder-edits";

const ladder = (...steps: string[][]) =>
  Ladder.parse({
    id: "l",
    name: "L",
    outcome: "y",
    steps: steps.map((terms, k) => ({ id: `s${k + 1}`, name: "", terms: terms.map((t) => ({ components: t.split("*") })) })),
  });
const shown = (of: Ladder) =>
  of.steps.map((step) => (step.off ? "-" : "") + step.terms.map((t) => (t.off ? "-" : "") + t.components.join("*")).join(" "));
const term = (step: number, name: string) => ({ step, components: name.split("*") });

test("a term is added at a place, moves there if it stands elsewhere, and is one term however it is written", () => {
  const base = ladder(["a", "b"], ["a*b"]);
  expect(shown(addTerm(base, 0, ["c"], 1))).toEqual(["a c b", "a*b"]);
  expect(shown(addTerm(base, 1, ["a"]))).toEqual(["b", "a*b a"]);
  expect(shown(addTerm(base, 0, ["b", "a"]))).toEqual(["a b b*a", ""]);
  expect(shown(addTerm(base, 0, ["a"]))).toEqual(["b a", "a*b"]);
  expect(shown(replaceTerm(base, 0, { components: ["a"] }, ["c", "d"]))).toEqual(["c*d b", "a*b"]);
});

test("terms move along their step and between steps, and take with them that they are off", () => {
  const base = switchTerm(ladder(["a", "b", "c"], ["d"]), term(0, "b"));
  expect(shown(moveTerm(base, term(0, "b"), 0, 0))).toEqual(["-b a c", "d"]);
  expect(shown(moveTerm(base, term(0, "a"), 0, 2))).toEqual(["-b a c", "d"]);
  expect(shown(moveTerm(base, term(0, "b"), 1, 0))).toEqual(["a c", "-b d"]);
  expect(moveTerm(base, term(1, "nobody"), 0)).toBe(base);
});

test("a copied step is another version: switched on, it takes the place of the first", () => {
  const copied = copyStep(ladder(["a", "b"], ["c"]), 0);
  expect(shown(copied)).toEqual(["a b", "-a b", "c"]);
  expect(copied.steps[1]!.name).toBe("Step 1, copy");
  const changed = removeTerm(copied, 1, { components: ["b"] });
  expect(shown(switchStep(changed, 1))).toEqual(["-a b", "a", "c"]);
  expect(shown(switchTerm(switchStep(changed, 1), term(0, "a")))).toEqual(["a b", "-a", "c"]);
  expect(shown(switchStep(switchStep(ladder(["a"], ["b"]), 1), 1))).toEqual(["a", "b"]);
});

test("a product stands in the step after its parts; one term is squared; too many components are refused", () => {
  const base = ladder(["a", "b"], ["c"]);
  expect(shown(multiply(base, [term(0, "a"), term(0, "b")])!)).toEqual(["a b", "c a*b"]);
  expect(shown(multiply(base, [term(0, "a"), term(1, "c")])!)).toEqual(["a b", "c", "a*c"]);
  expect(shown(multiply(base, [term(0, "a"), term(0, "b"), term(1, "c")])!)).toEqual(["a b", "c", "a*b*c"]);
  expect(shown(multiply(base, [term(1, "c")])!)).toEqual(["a b", "c", "c*c"]);
  expect(multiply(ladder(["a*b*c"], ["d*e"]), [term(0, "a*b*c"), term(1, "d*e")])).toBeNull();
});

test("steps move within the ladder; the last one cannot go; a copy for another outcome leaves that outcome out of its terms", () => {
  const base = nameStep(ladder(["a"], ["b"], ["a*b"]), 1, "Core");
  expect(shown(moveStep(base, 0, 2))).toEqual(["b", "a*b", "a"]);
  expect(shown(moveStep(base, 2, -5))).toEqual(["a*b", "a", "b"]);
  expect(removeStep(ladder(["a"]), 0).steps).toHaveLength(1);
  const copy = copyLadder(base, { id: "m", name: "M", outcome: "b" });
  expect([shown(copy), copy.outcome, copy.id]).toEqual([["a", "", ""], "b", "m"]);
});

test("a category's coding is said once; the plain one need not be said", () => {
  const coded = codeCategory(ladder(["g"]), { variable: "g", coding: "deviation", reference: "x" });
  const again = codeCategory(coded, { variable: "g", coding: "indicator", reference: "z" });
  expect(again.categories).toEqual([{ variable: "g", coding: "indicator", reference: "z" }]);
  expect(codeCategory(again, { variable: "g", coding: "indicator", reference: null }).categories).toEqual([]);
});

test("law: whatever is done to a ladder, it stays one, its steps keep ids of their own, and no term counts twice", () => {
  const names = ["a", "b", "c", "a*b", "b*c"];
  const step = fc.nat({ max: 5 });
  const edit = fc.oneof(
    fc.record({ what: fc.constant("add"), step, name: fc.constantFrom(...names), place: fc.nat({ max: 3 }) }),
    fc.record({ what: fc.constant("move"), step, name: fc.constantFrom(...names), place: fc.nat({ max: 3 }), to: step }),
    fc.record({ what: fc.constantFrom("switch", "square"), step, name: fc.constantFrom(...names) }),
    fc.record({ what: fc.constantFrom("copy", "switch step", "new step", "remove step"), step }),
    fc.record({ what: fc.constant("move step"), step, to: step }),
  );
  const carryOut = (of: Ladder, e: { what: string; step: number; name?: string; place?: number; to?: number }): Ladder => {
    const within = (k: number) => k % of.steps.length;
    const at = within(e.step);
    switch (e.what) {
      case "add":
        return addTerm(of, at, e.name!.split("*"), e.place);
      case "move":
        return moveTerm(of, term(at, e.name!), within(e.to!), e.place);
      case "switch":
        return switchTerm(of, term(at, e.name!));
      case "square":
        return multiply(of, [term(at, e.name!.split("*")[0]!)]) ?? of;
      case "copy":
        return copyStep(of, at);
      case "switch step":
        return switchStep(of, at);
      case "new step":
        return addStep(of);
      case "remove step":
        return removeStep(of, at);
      default:
        return moveStep(of, at, within(e.to!));
    }
  };
  fc.assert(
    fc.property(fc.array(edit, { maxLength: 25 }), (edits) => {
      const done = edits.reduce(carryOut, ladder(["a", "b"], ["a*b"]));
      expect(Ladder.parse(done)).toEqual(done);
      expect(new Set(done.steps.map((s) => s.id)).size).toBe(done.steps.length);
      const active = done.steps.flatMap((s) => activeTerms(s).map(termIdentity));
      expect(new Set(active).size).toBe(active.length);
      for (const s of done.steps) expect(new Set(s.terms.map(termIdentity)).size).toBe(s.terms.length);
    }),
    { numRuns: 300 },
  );
});
