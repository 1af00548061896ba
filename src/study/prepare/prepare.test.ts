import { Variable } from "../model/variable";
import { columnOf } from "../test-support/columns";
import { categoryLevels } from "./category-levels";
import { analysisSample } from "./analysis-sample";
import { type ColumnFacts, guessCodebook } from "./guess-codebook";
import { readNumbers } from "./numeric-column";

test("empty cells, declared codes and words are missing; only undeclared words are counted as faults", () => {
  const read = readNumbers(columnOf("x", ["3", "-9", "", "n/a", "many", "99"]), Variable.parse({ name: "x", missing: ["-9", "n/a"] }));
  expect(Array.from(read.missing)).toEqual([0, 1, 1, 1, 1, 0]);
  expect([read.values[0], read.values[5], read.wordsInNumbers]).toEqual([3, 99, 1]);
});

test("an empty text among the missing codes is the empty cell, not the number 0", () => {
  const read = readNumbers(columnOf("x", ["0", "", "5"]), Variable.parse({ name: "x", missing: [""] }));
  expect([Array.from(read.missing), read.wordsInNumbers]).toEqual([[0, 1, 0], 0]);
});

test("the sample's flow: filter first, then complete cases; losses are counted among those kept", () => {
  const numbers = (cells: string[]) => readNumbers(columnOf("n", cells), { missing: ["-9"] });
  const columns = new Map([
    ["y", numbers(["1", "2", "-9", "4", "5"])],
    ["x", numbers(["1", "", "3", "4", ""])],
  ]);
  const rule = (name: string, ...passes: number[]) => ({ filter: name, name, reason: "why", unmet: [], passes: Uint8Array.from(passes) });
  expect(analysisSample(5, columns, [rule("f", 1, 1, 1, 1, 0), rule("g", 1, 1, 1, 0, 0)])).toEqual({
    rows: 5,
    leftOut: [
      { filter: "f", name: "f", reason: "why", unmet: [], count: 1 },
      { filter: "g", name: "g", reason: "why", unmet: [], count: 1 },
    ],
    keptByFilter: 3,
    complete: 1,
    used: 1,
    missingByVariable: { y: 1, x: 1 },
    rowsUsed: [1],
  });
  expect(analysisSample(5, columns, []).rowsUsed).toEqual([1, 4]);
});

test("a column called a category takes its levels from the answers: numbers in order, then words, no missing codes", () => {
  const levels = categoryLevels(columnOf("g", ["10", "other", "2", "", "-9", "2", "again"]), ["-9"]);
  expect(levels.map((level) => level.value)).toEqual(["2", "10", "other", "again"]);
});

describe("guessing a first codebook", () => {
  const facts = (name: string, over: Partial<ColumnFacts>): ColumnFacts => ({
    name,
    numbers: 100,
    words: 0,
    wholeNumbers: true,
    distinctNumbers: 5,
    texts: [],
    ...over,
  });
  const kindOf = (...columns: ColumnFacts[]) => guessCodebook(columns).map((v) => v.kind);

  test("numbered siblings with few whole answers are items, even with a fault or a word among them", () => {
    expect(kindOf(facts("SC1", {}), facts("SC2", { distinctNumbers: 7 }), facts("SC3", { words: 1, texts: ["?"] }))).toEqual([
      "item",
      "item",
      "item",
    ]);
  });

  test("a number alone, one with many values, and wave numbers are numbers", () => {
    expect(kindOf(facts("Q1", {}), facts("age", { distinctNumbers: null }), facts("income2", { distinctNumbers: 40 }))).toEqual([
      "number",
      "number",
      "number",
    ]);
  });

  test("running numbers are a respondent's code; one remark among blanks is text; words of a known scale stand in its order", () => {
    expect(kindOf(facts("member", { distinctNumbers: null, running: true }))).toEqual(["code"]);
    expect(kindOf(facts("points", { distinctNumbers: null, running: false }))).toEqual(["number"]);
    expect(kindOf(facts("remark", { numbers: 0, words: 1, empties: 99, texts: ["none"] }))).toEqual(["text"]);
    const texts = ["Often", "Never", "Always", "Sometimes", "Rarely"];
    const [often] = guessCodebook([facts("q", { numbers: 0, words: 100, texts })]);
    expect(often!.levels.map((level) => level.value)).toEqual(["Never", "Rarely", "Sometimes", "Often", "Always"]);
  });
  test("several answers in a cell and amounts are text until they are read", () => {
    const roads = ["bus; tram", "bus", "tram; on foot", "on foot", "bus; on foot"];
    expect(kindOf(facts("roads", { numbers: 0, words: 100, texts: roads }))).toEqual(["text"]);
    expect(kindOf(facts("hours", { numbers: 0, words: 100, texts: ["2 h", "3 h", "about 4", "2.5 h"] }))).toEqual(["text"]);
    expect(kindOf(facts("age", { numbers: 0, words: 100, texts: ["18-24", "25-34", "35 or older"] }))).toEqual(["category"]);
  });
  test("few words are a category with its levels; free text is text; words that never repeat are a code", () => {
    const category = facts("format", { numbers: 0, words: 100, texts: ["online", "in person"] });
    expect(guessCodebook([category])[0]).toMatchObject({ kind: "category", levels: [{ value: "in person" }, { value: "online" }] });
    const texts = Array.from({ length: 80 }, (_, i) => `answer ${i}`);
    expect(kindOf(facts("remark", { numbers: 0, words: 100, texts }))).toEqual(["text"]);
    expect(kindOf(facts("learner", { numbers: 0, words: 80, texts }))).toEqual(["code"]);
  });

  test("ranges and missing codes are never guessed", () => {
    for (const variable of guessCodebook([facts("SC1", {}), facts("SC2", {})]))
      expect([variable.range, variable.missing]).toEqual([null, []]);
  });
});
