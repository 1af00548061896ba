import { fitLadder } from "@/core/regression/ladder";
import { marginalityFaults } from "@/core/regression/marginality";
import { madeUpData } from "@/core/test-support/made-up-data";
import { Groups } from "@/study/model/groups";
import { activeTerms, Ladder } from "@/study/model/ladder";
import { crossedLadder, notCrossed } from "./crossed-ladder";

const ladder = (...steps: string[][]) =>
  Ladder.parse({
    id: "l",
    name: "L",
    outcome: "y",
    steps: steps.map((terms, k) => ({ id: `s${k + 1}`, name: `Step ${k + 1}`, terms: terms.map((term) => ({ components: term.split("*") })) })),
  }); // prettier-ignore
const groups = (own: object = {}) => Groups.parse({ id: "g", ladder: "l", variable: "g", ...own });
const NAMES = { id: "crossed", name: "L by group", group: "Group" };
const written = (of: Ladder) => of.steps.map((step) => activeTerms(step).map((term) => term.components.join("*")));

test("the groups are a step of their own, their products with every term the next; no product is without its parts", () => {
  const made = crossedLadder(ladder(["a"], ["b", "a*b"]), groups(), NAMES);
  expect(written(made)).toEqual([["a"], ["b", "a*b"], ["g"], ["g*a", "g*b", "g*a*b"]]);
  expect(made).toMatchObject({ id: "crossed", name: "L by group", outcome: "y" });
  expect(made.steps.map((s) => s.name)).toEqual(["Step 1", "Step 2", "Group", "By Group"]);
  expect(marginalityFaults(made.steps.map(activeTerms))).toEqual([]);
});

test("only the steps up to the compared one; what stands there already is not put in twice", () => {
  expect(written(crossedLadder(ladder(["a"], ["b"], ["x"]), groups({ step: 2 }), NAMES))).toEqual([["a"], ["b"], ["g"], ["g*a", "g*b"]]);
  expect(written(crossedLadder(ladder(["a", "g"], ["a*g", "b"]), groups(), NAMES))).toEqual([["a", "g"], ["a*g", "b"], ["g*b"]]);
});

test("ids of steps stay different, and so do terms", () => {
  const own = ladder(["a"]);
  const made = crossedLadder({ ...own, steps: [{ ...own.steps[0]!, id: "groups" }] }, groups(), NAMES);
  const ids = made.steps.map((s) => s.id);
  expect(new Set(ids).size).toBe(ids.length);
  expect(() => Ladder.parse(made)).not.toThrow();
});

test("it fits: the last step is the test that all slopes are alike", () => {
  const made = crossedLadder(ladder(["a"], ["b"]), groups(), NAMES);
  const fit = fitLadder({ outcome: "y", centring: "mean", confidence: 0.95, steps: made.steps.map(activeTerms) }, madeUpData(3));
  expect(fit.steps.at(-1)!.change.df[0]).toBe(4); // two predictors in two further groups
  expect(fit.steps.at(-1)!.notes).toEqual([]);
});

test.each([
  [{ together: [["p", "q"]] }, ["a"], /joined levels/],
  [{ leftOut: ["p"] }, ["a"], /left out as a filter/],
  [{}, ["a*b*x*z"], /more than 4 parts/],
])("what is no single ladder as it stands says why: %j", (own, terms, why) => {
  expect(notCrossed(ladder(terms), groups(own))).toMatch(why);
  expect(notCrossed(ladder(["a"]), groups())).toBeNull();
});
