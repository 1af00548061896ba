import { analyseLadder } from "@/study/analyse/analyse-ladder";
import { FirstNumbers, resultOf, resultText } from "@/study/model/first-numbers";
import { Ladder } from "@/study/model/ladder";
import { Study } from "@/study/model/study";
import { sourceOf } from "@/study/test-support/columns";
import { firstNumbersOf } from "./first-numbers";

const answer = (i: number, k: number) => String(1 + (Math.floor(Math.abs(Math.sin(i * 7.1 + k)) * 40 + i) % 5));
const cells = (of: (i: number) => string) => Array.from({ length: 60 }, (_, i) => of(i));
const source = sourceOf({
  y: cells((i) => answer(i, 0)),
  x: cells((i) => (i === 7 ? "" : answer(i, 1))),
  m: cells((i) => answer(i, 2)),
  group: cells((i) => ["a", "b", "c"][i % 3]!),
});
const steps = [
  { id: "one", terms: [{ components: ["x"] }, { components: ["group"] }] },
  { id: "two", terms: [{ components: ["m"] }, { components: ["x", "m"] }] },
];
const ladder = (over: object = {}) => Ladder.parse({ id: "l", name: "L", outcome: "y", steps, ...over });
const study = (over: object = {}) =>
  Study.parse({
    format: "beta-step-study",
    version: 1,
    name: "s",
    responses: { dataset: "d", fileName: "d.csv", rows: 60 },
    codebook: [{ name: "y" }, { name: "x" }, { name: "m" }, { name: "group", kind: "category" }],
    ladders: [ladder()],
    ...over,
  });

test.each([
  ["as it is", {}],
  ["with errors of its own", { errors: "hc3" }],
  ["refused", { outcome: "nobody" }],
])("a ladder's result comes back from its text as it was: %s", (_, over) => {
  const result = analyseLadder(study(), ladder(over), source);
  expect(result.status).toBe("outcome" in over ? "refused" : "fitted");
  expect(resultOf(resultText(result)!)).toEqual(result);
  expect(FirstNumbers.safeParse({ kind: "ladder", id: "l", key: "k", result: resultText(result) }).success).toBe(true);
});

test("a text that is no result is turned away at the door", () => {
  for (const result of ["", "{", "null", "[]", '"fitted"', '{"status":"other"}', " ".repeat(150_001)])
    expect(FirstNumbers.safeParse({ kind: "ladder", id: "l", key: "k", result }).success).toBe(false);
});

test("what no text brings back as it was is not kept, nor what is as long as a book", () => {
  for (const odd of [NaN, Infinity, new Float64Array(2), new Set([1])]) expect(resultText({ fit: [odd] })).toBeNull();
  expect(resultText({ rows: Array.from({ length: 100_000 }, (_, k) => k) })).toBeNull();
});

test("numbers are looked for under all they stand on, and the program that works them out; names are no part of it", () => {
  const key = (of = study(), program = "p") => firstNumbersOf(of, of.ladders[0]!, program).key;
  expect(key(study({ name: "another", ladders: [ladder({ name: "renamed" })] }))).toBe(key());
  const others = [
    key(study(), "q"),
    key(study({ ladders: [ladder({ errors: "hc3" })] })),
    key(study({ ladders: [ladder({ steps: steps.slice(0, 1) })] })),
    key(study({ responses: { dataset: "e", fileName: "d.csv", rows: 60 } })),
    key(
      study({
        codebook: [{ name: "y" }, { name: "x", missing: ["5"] }, { name: "m" }, { name: "group", kind: "category" }],
      }),
    ),
  ];
  expect(new Set([key(), ...others]).size).toBe(others.length + 1);
});
