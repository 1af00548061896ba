import fc from "fast-check";
import { declareMissing } from "@/features/study/declare-missing";
import { Scale } from "@/study/model/scale";
import { Variable } from "@/study/model/variable";
import { commonRange, declareRange, newScale, placeItems, readRange, takeOut, turnItems, withWeights } from "./scale-edits";
import { readNumber } from "@/ui/parts/read-number";
import { itemRun, suggestScales } from "./suggest-scales";

const variable = (name: string, range: [number, number] | null = null) =>
  Variable.parse({ name, kind: "item", range: range && { low: range[0], high: range[1] } });
const scale = Scale.parse({ id: "s", name: "S", items: [{ variable: "q1" }, { variable: "q2", reversed: true }] });

test("items that share the letters before their number make a suggestion; one alone does not", () => {
  const loose = ["SC1", "SC2", "mood_1", "mood_2", "mood_3", "X9", "age"].map((name) => variable(name));
  expect(suggestScales(loose)).toEqual([
    { name: "SC", items: ["SC1", "SC2"] },
    { name: "mood", items: ["mood_1", "mood_2", "mood_3"] },
  ]);
  expect([itemRun(["SC1"]), itemRun(["SC1", "SC2"]), itemRun(["a", "b", "c"])]).toEqual(["SC1", "SC1 and SC2", "a–c"]);
});

test("an item turned twice stands as before", () => {
  expect(turnItems(scale, "q1").items[0]!.reversed).toBe(true);
  expect(turnItems(turnItems(scale, "q1", "q2"), "q2", "q1")).toEqual(scale);
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

test("items of one name asked for unlike answers, or of unlike topics in their wording, are suggested apart", () => {
  const labelled = (name: string, label: string) => ({ ...variable(name, [1, 5]), label });
  expect(suggestScales([variable("q1", [1, 5]), variable("q2", [1, 5]), variable("q3", [1, 7]), variable("q4", [1, 7])])).toEqual([
    { name: "q", items: ["q1", "q2"] },
    { name: "q", items: ["q3", "q4"] },
  ]);
  const survey = ["Calm: I breathe", "Calm: I wait", "Zest: I run", "Zest: I sing"].map((label, i) => labelled(`v_${i + 1}`, label));
  expect(suggestScales(survey)).toEqual([
    { name: "Calm", items: ["v_1", "v_2"] },
    { name: "Zest", items: ["v_3", "v_4"] },
  ]);
});

test("law: items put in their places stand there in the order carried, and no other is lost, doubled or changed", () => {
  const names = ["a", "b", "c", "d", "e"];
  fc.assert(
    fc.property(
      fc.subarray(names, { minLength: 1 }),
      fc.subarray([...names, "f", "g"], { minLength: 1 }),
      fc.nat(5),
      (items, carried, at) => {
        const before = turnItems(newScale("s", "S", items), items[0]!);
        const after = placeItems(before, carried, Math.min(at, items.length));
        const order = after.items.map((i) => i.variable);
        expect([...order].sort()).toEqual([...new Set([...items, ...carried])].sort());
        const start = order.indexOf(carried[0]!);
        expect(order.slice(start, start + carried.length)).toEqual(carried);
        expect(order.filter((name) => !carried.includes(name))).toEqual(items.filter((name) => !carried.includes(name)));
        expect(after.items.find((i) => i.variable === items[0])!.reversed).toBe(true);
      },
    ),
  );
});

test("the last item of a scale is not taken out; weights come by name and say where they are from", () => {
  expect(takeOut(scale, ["q1", "q2"])).toBeNull();
  expect(takeOut(scale, ["q1"])!.items).toEqual([scale.items[1]]);
  const weighted = withWeights(scale, new Map([["q2", 0.5]]), "z", "one factor");
  expect(weighted).toMatchObject({ rule: "weighted", weigh: "z", weightsFrom: "one factor" });
  expect(weighted.items.map((i) => i.weight)).toEqual([1, 0.5]);
  expect(["0,5", "−2", " 3 ", "x", ""].map(readNumber)).toEqual([0.5, -2, 3, null, null]);
});
