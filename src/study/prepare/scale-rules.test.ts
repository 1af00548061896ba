import fc from "fast-check";
import { Scale } from "../model/scale";
import { Study } from "../model/study";
import { sourceOf } from "../test-support/columns";
import { presentValues } from "./numeric-column";
import { CircleError, StudyColumns } from "./study-columns";

const cells = (...values: (number | string)[]) => values.map(String);
const source = sourceOf({
  a: cells(1, 2, 3, 4, 5, 2, ""),
  b: cells(2, 2, 4, 4, 5, 1, 3),
  c: cells(1, 3, 3, 5, 4, 2, 3),
  g: cells("x", "x", "x", "x", "x", "y", "x"),
});
const item = (variable: string, over: object = {}) => ({ variable, ...over });
function study(scales: object[], over: object = {}) {
  return Study.parse({
    format: "beta-step-study",
    version: 1,
    name: "s",
    codebook: [...["a", "b", "c"].map((name) => ({ name, kind: "item", range: { low: 1, high: 5 } })), { name: "g", kind: "category" }],
    scales,
    ...over,
  });
}
const scores = (scales: object[], id: string, over: object = {}) => {
  const whole = study(scales, over);
  return new StudyColumns(whole, source).scale(whole.scales.find((s) => s.id === id)!).scores;
};

test("a weighted score of answers is Σ weight × answer, and there is none where one is missing", () => {
  const { values, missing, answered } = scores([{ id: "s", name: "S", rule: "weighted", items: [item("a", { weight: 2 }), item("b", { weight: -0.5, reversed: true })] }], "s"); // prettier-ignore
  expect(Array.from(values.slice(0, 3))).toEqual([2 * 1 - 0.5 * 4, 2 * 2 - 0.5 * 4, 2 * 3 - 0.5 * 2]);
  expect([missing[6], answered[6]]).toEqual([1, 1]);
});

test("law: z-weights of 1 give the sum of z-scores: mean 0, and the same whatever the items' units and turning twice", () => {
  const plain = scores([{ id: "s", name: "S", rule: "weighted", weigh: "z", items: [item("a"), item("b")] }], "s");
  const present = presentValues(plain);
  expect(Math.abs(present.reduce((sum, x) => sum + x, 0))).toBeLessThan(1e-12);
  const turned = scores([{ id: "s", name: "S", rule: "weighted", weigh: "z", items: [item("a", { reversed: true }), item("b", { reversed: true })] }], "s"); // prettier-ignore
  presentValues(turned).forEach((x, i) => expect(x).toBeCloseTo(-present[i]!, 12));
});

test("z-scores are over the respondents in the study: who is left out is scored all the same", () => {
  const scale = { id: "s", name: "S", rule: "weighted", weigh: "z", items: [item("a")] };
  const filters = [{ id: "f", name: "F", everywhere: true, conditions: [{ kind: "values", variable: "g", equals: ["x"] }] }];
  const { values, missing } = scores([scale], "s", { filters });
  const inside = [1, 2, 3, 4, 5];
  const sd = Math.sqrt(inside.reduce((sum, x) => sum + (x - 3) ** 2, 0) / 4);
  expect(values[5]).toBeCloseTo((2 - 3) / sd, 12);
  expect(missing[5]).toBe(0);
});

test("law: a scale of scales is scored from their scores; its possible range follows from theirs, also for turning round", () => {
  const parts = [
    { id: "s", name: "S", items: [item("a"), item("b")] },
    { id: "t", name: "T", rule: "sum", items: [item("b"), item("c")] },
  ];
  const whole = [...parts, { id: "w", name: "W", items: [item("s"), item("t", { reversed: true })] }];
  const columns = new StudyColumns(study(whole), source);
  expect([columns.possible("s"), columns.possible("t"), columns.possible("w")]).toEqual([
    { low: 1, high: 5 },
    { low: 2, high: 10 },
    { low: 1.5, high: 7.5 },
  ]);
  const { values } = scores(whole, "w");
  expect(values[0]).toBeCloseTo(((1 + 2) / 2 + (12 - (2 + 1))) / 2, 12);
});

test("law: an item whose answers and whose key are both turned round is scored as before, whatever the rule", () => {
  const answers = { a: [1, 2, 3, 4, 5, 2], b: [2, 2, 4, 4, 5, 1], c: [1, 3, 3, 5, 4, 2] };
  fc.assert(
    fc.property(
      fc.constantFrom("mean", "sum", "weighted", "regression", "bartlett"),
      fc.constantFrom("answers", "z"),
      fc.tuple(fc.boolean(), fc.boolean(), fc.boolean()),
      (rule, weigh, turned) => {
        const whole = study([
          { id: "s", name: "S", rule, weigh, items: ["a", "b", "c"].map((name, i) => item(name, { weight: i + 1, reversed: turned[i] })) },
        ]);
        const plain = study([{ ...whole.scales[0], items: whole.scales[0]!.items.map((i) => ({ ...i, reversed: false })) }]);
        const data = (turn: (i: number) => boolean) =>
          sourceOf(
            Object.fromEntries(Object.entries(answers).map(([name, xs], i) => [name, cells(...xs.map((x) => (turn(i) ? 6 - x : x)))])),
          );
        const of = (which: Study, turn: (i: number) => boolean) => new StudyColumns(which, data(turn)).scale(which.scales[0]!).scores;
        expect(of(whole, (i) => turned[i]!)).toEqual(of(plain, () => false));
      },
    ),
    { numRuns: 60 },
  );
});

test("scales in a circle are refused in a study, and told as one in a draft", () => {
  const s = { id: "s", name: "S", items: [item("a"), item("t")] };
  const t = { id: "t", name: "T", items: [item("s")] };
  expect(() => study([s, t])).toThrow(/circle/);
  const drafts = [s, t].map((scale) => Scale.parse(scale));
  expect(() => new StudyColumns({ codebook: study([]).codebook, scales: drafts }, source).scale(drafts[0]!)).toThrow(CircleError);
  const z = { id: "z", name: "Z", rule: "weighted", weigh: "z", items: [item("a")] };
  const filters = [{ id: "f", name: "F", everywhere: true, conditions: [{ kind: "between", variable: "z", low: 0, high: null }] }];
  expect(() => study([z], { filters })).toThrow(/circle/);
});

test.each([
  ["an item that is not there", { scales: [{ id: "s", name: "S", items: [item("nobody")] }] }, /nobody/],
  ["a group that is not there", { scales: [{ id: "s", name: "S", byGroup: "nobody", items: [item("a")] }] }, /nobody/],
  ["a factor beyond the last", { scales: [{ id: "s", name: "S", factor: { factors: 2, factor: 3 }, items: [item("a")] }] }, /not among/],
  ["a structure of what is not there", { structures: [{ id: "x", name: "X", items: ["a", "b", "nobody"] }] }, /nobody/],
  ["a structure of two", { structures: [{ id: "x", name: "X", items: ["a", "b"] }] }, /three items/],
])("%s is refused by name", (_, over, words) => expect(() => study([], over)).toThrow(words));
