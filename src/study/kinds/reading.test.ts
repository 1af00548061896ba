import { applyEdits, inverseEdit } from "../model/edit";
import { Study } from "../model/study";
import { StudyColumns } from "../prepare/study-columns";
import { columnAnswers } from "../prepare/answers/column-answers";
import { answerSets } from "../prepare/answers/answer-sets";
import { draftFault, draftOf, draftOfReading, readingEdits, takeReadingBack } from "../report/open-words";
import { sourceOf } from "../test-support/columns";
import { cellText } from "../model/response-column";
import { asked, touchedBy } from "./standing";

const FILE = {
  q1: ["Strongly disagree", "Agree", "N/A", "neither agree nor disagree", "Strongly agree", "Disagree"],
  q2: ["Disagree", "agree", "Agree", "", "Strongly Agree ", "Disagree"],
  far: ["1", "2", "3", "4", "5", "6"],
};
const source = sourceOf(FILE);
const start = Study.parse({
  format: "beta-step-study",
  version: 1,
  name: "x",
  codebook: [{ name: "q1", kind: "category" }, { name: "q2", kind: "category" }, { name: "far" }],
  scales: [{ id: "s", name: "S", items: [{ variable: "q1" }, { variable: "q2" }] }],
});
const [set] = answerSets(["q1", "q2"].map((name) => columnAnswers(source(name)!, { name, label: "", question: "asked", missing: [] })));
const draft = draftOf(set!);
const { study, changes } = applyEdits(start, readingEdits(draft, start));
const cells = (of: Study, name: string) => {
  const column = new StudyColumns(of, source).column(name);
  return FILE.far.map((_, row) => cellText(column, row));
};

test("one confirmation makes items of all: numbers, range, labels, what is apart; the file stays, the trail takes it back", () => {
  expect(cells(study, "q1")).toEqual(["1", "4", "N/A", "3", "5", "2"]);
  expect(cells(study, "q2")).toEqual(["2", "4", "4", null, "5", "2"]);
  expect(source("q1")!.texts[0]).toBe("Strongly disagree");
  expect(study.codebook[0]).toMatchObject({
    kind: "item",
    range: { low: 1, high: 5 },
    missing: ["N/A"],
    levels: { 0: { value: "1", label: "Strongly disagree" } },
  });
  const { values, missing, wordsInNumbers } = new StudyColumns(study, source).variable("q1");
  expect([[...values], [...missing], wordsInNumbers]).toEqual([[1, 4, 0, 3, 5, 2], [0, 0, 1, 0, 0, 0], 0]);
  expect(applyEdits(study, [...changes].reverse().map(inverseEdit)).study).toEqual(start);
  const back = applyEdits(study, takeReadingBack(study.readings[0]!, study)).study;
  expect([cells(back, "q1"), back.codebook[0]!.kind]).toEqual([cells(start, "q1"), "category"]);
});

test("what stands on a question depends on how it is read, and on nothing else of the reading", () => {
  const reading = study.readings[0]!;
  const one = asked("variable", study.codebook[0], study, ["q1", "q2", "far"]);
  expect(one.context.readings).toEqual([{ ...reading, name: "-", variables: ["q1"] }]);
  expect(asked("variable", study.codebook[2], study, ["q1", "q2", "far"]).context.readings).toEqual([]);
  expect(touchedBy(study, [{ subject: "reading", id: reading.id, from: null }]).map(({ id }) => id)).toEqual(["s"]);
  const without = applyEdits(study, [{ subject: "reading", id: reading.id, to: null }]).study;
  expect(touchedBy(without, [{ subject: "reading", id: reading.id, from: reading }]).map(({ id }) => id)).toEqual(["s"]);
});

test("an answer without a number waits; a changed number changes the cells, the range and the labels", () => {
  const [first, ...rest] = draft.answers;
  expect(draftFault({ ...draft, answers: [{ ...first!, value: null }, ...rest] })).toMatch(/“Strongly disagree” has no number yet/);
  const turned = draftOfReading(study.readings[0]!, study.codebook, []);
  const answers = turned.answers.map((one) => (one.apart ? one : { ...one, value: 10 * one.value! }));
  const changed = applyEdits(study, readingEdits({ ...turned, answers }, study)).study;
  expect([changed.readings.length, cells(changed, "q2"), changed.codebook[1]!.range]).toEqual([
    1,
    ["20", "40", "40", null, "50", "20"],
    { low: 10, high: 50 },
  ]);
  expect(changed.codebook[1]!.levels.map((level) => level.value)).toEqual(["10", "20", "30", "40", "50"]);
});

test("answers are read once, and only those of the file", () => {
  const again = { ...study.readings[0]!, id: "other" };
  expect(() => applyEdits(study, [{ subject: "reading", id: "other", to: again }])).toThrow(/answers of "q1" are read twice/);
  const made = { name: "z", recipe: { kind: "z" as const, from: "far" } };
  const with1 = { ...start, codebook: [...start.codebook, { ...start.codebook[2]!, name: "z" }], derived: [made] };
  expect(() => applyEdits(with1, [{ subject: "reading", id: "r", to: { ...again, id: "r", variables: ["z"] } }])).toThrow(
    /worked out from others/,
  );
});
