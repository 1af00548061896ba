import fc from "fast-check";
import { answerKey } from "../../model/reading";
import { cellText, CellState } from "../../model/response-column";
import { columnOf } from "../../test-support/columns";
import { ANSWER_LADDERS } from "./answer-scales";
import { answerSets } from "./answer-sets";
import { askedFor } from "./attention";
import { choicesIn } from "./choices";
import { columnAnswers, nameStem } from "./column-answers";
import { inUnit, readAmount } from "./read-amount";
import { readColumn } from "./read-answers";

const sets = (columns: Record<string, string[]>, question = "") =>
  answerSets(
    Object.entries(columns).map(([name, cells]) => columnAnswers(columnOf(name, cells), { name, label: "", question, missing: [] })),
  );
const numbers = (set: ReturnType<typeof answerSets>[number]) => set.answers.map((one) => `${one.written} ${one.value}`);

describe("numbers with words around them", () => {
  test.each<[string, "." | ",", number | null, string?]>([
    ["2.2 h", ".", 2.2, "h"],
    ["1,5 Std", ",", 1.5, "h"],
    ["€ 1.200", ",", 1200, "€"],
    ["$1,250.50", ".", 1250.5, "$"],
    ["12%", ".", 12, "%"],
    ["about 30", ".", 30, ""],
    ["ca. 30 Min.", ",", 30, "min"],
    ["~ 4 hours", ".", 4, "h"],
    ["5-6", ".", 5.5, ""],
    ["5 – 6 h", ".", 5.5, "h"],
    ["between 5 and 6", ".", null],
    ["-3", ".", -3, ""],
    ["1 200 km", ".", 1200, "km"],
    ["10 to 15 minutes", ".", 12.5, "min"],
    ["2h30", ".", null],
    ["1.5.2024", ".", null],
    ["I have 2 cats", ".", null],
    ["6-5", ".", null],
    ["2 h 30 min", ".", null],
    ["1.200", ".", 1.2, ""],
    ["none", ".", null],
  ])("%s, with %s before the fraction: %p %s", (text, decimal, value, unit = "") =>
    expect(readAmount(text, decimal)).toEqual(value === null ? null : { value, span: expect.any(Boolean), unit }),
  );
  test("only times are turned into one another; what has no unit is meant in the wanted one", () => {
    const of = (value: number, unit: string) => ({ value, unit, span: false });
    expect([inUnit(of(90, "min"), "h"), inUnit(of(2, "days"), "h"), inUnit(of(3, ""), "h"), inUnit(of(3, "km"), "h")]).toEqual([
      1.5,
      48,
      3,
      null,
    ]);
  });
  test("law: a plain number is itself, whatever unit stands beside it", () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 999 }),
        fc.integer({ min: 0, max: 99 }),
        fc.constantFrom("h", "min", "%", "km"),
        (whole, part, unit) => {
          const value = Number(`${whole}.${String(part).padStart(2, "0")}`);
          expect(readAmount(`${whole}.${String(part).padStart(2, "0")} ${unit}`, ".")).toEqual({ value, span: false, unit });
          expect(readAmount(`${whole},${String(part).padStart(2, "0")}${unit}`, ",")).toEqual({ value, span: false, unit });
        },
      ),
    ));
});

describe("sets of answers", () => {
  const FIVE = ["Strongly disagree", "disagree", "Neutral ", "AGREE", "Strongly  agree"];
  test("odd blanks and capitals are one answer; the words that say that there is none are apart", () => {
    const [set, ...none] = sets({ q1: [...FIVE, "agree", "N/A", "n/a"], q2: [...FIVE, "Agree", "Agree", "Agree"] });
    expect([numbers(set!), set!.sure, none]).toEqual([
      ["Strongly disagree 1", "disagree 2", "Neutral 3", "Agree 4", "Strongly agree 5"],
      true,
      [],
    ]);
    expect(set!.apart).toEqual([{ written: "N/A", count: 2, spellings: ["N/A", "n/a"] }]);
  });
  test("an end that nobody chose is added, and makes it a question", () => {
    const [set] = sets({ q1: FIVE.slice(0, 4), q2: FIVE.slice(0, 4) });
    expect([numbers(set!).at(-1), set!.sure]).toEqual(["Strongly agree 5", false]);
  });
  test("whether there was an end above often cannot be seen: it is asked", () => {
    const [set] = sets({ q1: ["Never", "Rarely", "Sometimes", "Often"], q2: ["Never", "Rarely", "Sometimes", "Often"] });
    expect([numbers(set!), set!.perhaps, set!.sure]).toEqual([["Never 1", "Rarely 2", "Sometimes 3", "Often 4"], "Always", false]);
  });
  test("numbers beside words are the numbers, and plain ones stand with them", () => {
    const [set] = sets({ q1: ["1 (never)", "2", "3", "4", "5 (always)"], q2: ["1 (never)", "2", "4", "4", "5 (always)"] });
    expect([numbers(set!), set!.numbers, set!.sure]).toEqual([["1 (never) 1", "5 (always) 5"], [2, 3, 4], true]);
  });
  test("a category, ages in classes, one yes or no and words with numbers elsewhere are no sets", () => {
    expect(sets({ format: ["online", "in person", "hybrid", "online"] })).toEqual([]);
    expect(sets({ age: ["18-24", "25-34", "35-44", "45 or older"] })).toEqual([]);
    expect(sets({ member: ["Yes", "No", "Yes"] })).toEqual([]);
    expect(sets({ q1: ["Agree", "3", "4"], q2: ["Disagree", "2", "1"] })).toEqual([]);
    expect(sets({ wait: ["10 min", "20 min", "30 min"] })).toEqual([]);
  });
  test("words of no known scale are asked about where three questions share them", () => {
    const own = ["Like a stone", "Like a boat", "Like a bird"];
    const [set] = sets({ pic_1: own, pic_2: own, pic_3: own });
    expect([set!.by, set!.sure, set!.answers.map((one) => one.value)]).toEqual(["nothing", false, [null, null, null]]);
  });
  test("an answer that a known scale does not have is placed by hand", () => {
    const [set] = sets({ q1: [...FIVE, "perhaps"], q2: FIVE });
    expect([set!.answers.at(-1), set!.sure]).toEqual([{ written: "perhaps", count: 1, value: null }, false]);
  });
  test("law: every ladder orders its own rungs as they are written down, and says so of no other order", () => {
    for (const { rungs, about, language, ends } of ANSWER_LADDERS.filter((one) => one.about !== "yes or no")) {
      const whole = ends === null ? rungs.map((_, at) => at) : rungs.map((_, at) => at).filter((at) => at >= Math.min(...ends.low) && at <= Math.max(...ends.high)); // prettier-ignore
      const words = whole.map((at) => rungs[at]![0]!);
      const [set] = sets({ q1: words, q2: [...words].reverse() });
      expect([about, language, set?.answers.map((one) => answerKey(one.written))]).toEqual([about, language, words.map(answerKey)]);
    }
  });
  test("law: no word stands on two rungs of one ladder", () => {
    for (const { rungs, about, language } of ANSWER_LADDERS) {
      const keys = rungs.flat().map(answerKey);
      expect([about, language, keys.filter((key, at) => keys.indexOf(key) !== at)]).toEqual([about, language, []]);
    }
  });
});

test("law: a reading changes the cells it mentions and no other, and leaves the imported column as it is", () =>
  fc.assert(
    fc.property(fc.array(fc.constantFrom("Never", "never ", "Often", "3", "", "maybe"), { minLength: 1, maxLength: 30 }), (cells) => {
      const column = columnOf("q", cells);
      const before = [...column.values];
      const read = readColumn(column, { kind: "words", values: [{ written: "Never", value: 1 }, { written: "often", value: 4 }] }); // prettier-ignore
      expect([...column.values]).toEqual(before);
      cells.forEach((cell, row) => {
        const wanted = /never/i.test(cell) ? "1" : cell === "Often" ? "4" : cell === "" ? null : cell;
        expect(cellText(read, row)).toBe(wanted);
        expect(read.states[row] === CellState.number).toBe(wanted !== null && wanted !== "maybe");
      });
    }),
  ));

test("what a question asks to be chosen", () => {
  const asked = (label: string) => askedFor({ label });
  expect(asked('To see that you read: please choose "Agree" here.')).toBe("Agree");
  expect(asked("Bitte wählen Sie hier „stimme zu“.")).toBe("stimme zu");
  expect(asked("Please select strongly disagree for this item")).toBe("strongly disagree");
  expect(asked("I choose my own books")).toBeNull();
  expect(asked("How often do you select a course?")).toBeNull();
});

test("answers of a cell, and what names share", () => {
  expect(choicesIn(" bus; tram ;bus;", ";")).toEqual(["bus", "tram"]);
  expect(["SC1", "SC_2", "SC 03", "SC4r", "q3_1", "q3[SQ001]", "age", "12"].map(nameStem)).toEqual([
    "SC",
    "SC",
    "SC",
    "SC",
    "q3",
    "q3",
    null,
    null,
  ]);
});
