import { declareMissing } from "@/features/study/declare-missing";
import { Scale } from "@/study/model/scale";
import { Variable } from "@/study/model/variable";
import { commonRange, declareRange, readRange, turnItem } from "./scale-edits";
import { itemRun, suggestScales } from "./suggest-scales";

const variable = (name: string, range: [number, number] | null = null) =>
  Variable.parse({ name, kind: "item", range: range && { low: range[0], high: range[1] } });
const scale = Scale.parse({ id: "s", name: "S", items: [{ variable: "q1" }, { variable: "q2", reversed: true }] });

test("items that share the letters before their number make a suggestion; one alone does not", () => {
  const loose = ["SC1", "SC2", "mood_1", "mood_2", "mood_3", "X9", "age"].map((name) => variable(name));
  expect(suggestScales(loose)).toEqual([
    { prefix: "SC", items: ["SC1", "SC2"] },
    { prefix: "mood", items: ["mood_1", "mood_2", "mood_3"] },
  ]);
  expect([itemRun(["SC1"]), itemRun(["SC1", "SC2"]), itemRun(["a", "b", "c"])]).toEqual(["SC1", "SC1 and SC2", "a–c"]);
});

test("an item turned twice stands as before", () => {
  expect(turnItem(scale, "q1").items[0]!.reversed).toBe(true);
  expect(turnItem(turnItem(scale, "q2"), "q2")).toEqual(scale);
});

test("a range is common only when every item has it", () => {
  expect(commonRange(scale, [variable("q1", [1, 5]), variable("q2", [1, 5])])).toEqual({ low: 1, high: 5 });
  expect(commonRange(scale, [variable("q1", [1, 5]), variable("q2", [1, 7])])).toBeNull();
  expect(commonRange(scale, [variable("q1", [1, 5]), variable("q2")])).toBeNull();
  expect(
    declareRange(scale, [variable("q1"), variable("q2"), variable("q3")], { low: 0, high: 4 }).map(
      (e) => e.subject === "variable" && [e.id, e.to?.range],
    ),
  ).toEqual([
    ["q1", { low: 0, high: 4 }],
    ["q2", { low: 0, high: 4 }],
  ]);
});

test.each<[string, [number, number] | null]>([
  ["1 to 5", [1, 5]],
  ["1-5", [1, 5]],
  ["0–10", [0, 10]],
  ["-3 to 3", [-3, 3]],
  ["−3…3", [-3, 3]],
  ["1 7", [1, 7]],
  ["0,5 to 1,5", [0.5, 1.5]],
  ["5 to 1", null],
  ["1", null],
  ["one to five", null],
  ["", null],
  ["3 to 3", null],
])("%p is the range %p", (typed, range) => expect(readRange(typed)).toEqual(range && { low: range[0], high: range[1] }));

test("a missing code is declared once, only where it is not yet", () => {
  const codebook = [variable("q1"), { ...variable("q2"), missing: ["-9"] }];
  expect(declareMissing(["q1", "q2", "gone"], codebook, "-9")).toEqual([
    { subject: "variable", id: "q1", to: { ...codebook[0], missing: ["-9"] } },
  ]);
});
