import fc from "fast-check";
import { openPoints as kind } from "../../kinds/answers";
import { applyEdits, inverseEdit } from "../../model/edit";
import { Study } from "../../model/study";
import { StudyColumns } from "../../prepare/study-columns";
import { asTheyAre, openFix, openWords, runWords } from "../../report/open-words";
import { sourceOf } from "../../test-support/columns";
import { namesOf, type OpenPoint, openPoints } from "./open-points";

type File = Record<string, readonly string[]>;
type Row = { name: string; kind?: string; question?: string; label?: string };

const studyOf = (codebook: readonly Row[]) => Study.parse({ format: "beta-step-study", version: 1, name: "x", codebook });
const found = (study: Study, file: File) => openPoints(kind.specOf({}, study), new StudyColumns(study, sourceOf(file)));
const only = <K extends OpenPoint["kind"]>(points: readonly OpenPoint[], wanted: K) => {
  expect(points.map((point) => point.kind)).toEqual([wanted]);
  return points[0] as Extract<OpenPoint, { kind: K }>;
};
/** What a variable counts as after the step that is offered was taken; nothing of the point is open afterwards, and taking it back leaves the study as it was. */
function taken(study: Study, file: File, point: OpenPoint) {
  const fix = openFix(point, study)!;
  const { study: now, changes } = applyEdits(study, fix.edits);
  expect(found(now, file).filter((one) => one.kind === point.kind)).toEqual([]);
  expect(applyEdits(now, [...changes].reverse().map(inverseEdit)).study).toEqual(study);
  const columns = new StudyColumns(now, sourceOf(file));
  const valuesOf = (name: string) => {
    const { values, missing } = columns.variable(name);
    return [...values].map((value, row) => (missing[row] ? null : value));
  };
  return { now, label: fix.label, valuesOf };
}

const WAYS = ["bus", "train", "bicycle", "on foot"];

test("law: of several answers in a cell each becomes a variable: 1 where it was chosen, 0 where another was, missing where nobody answered", () =>
  fc.assert(
    fc.property(fc.array(fc.subarray(WAYS), { minLength: 12, maxLength: 40 }), fc.constantFrom("; ", ";", ", ", "|"), (chosen, between) => {
      const counts = WAYS.map((way) => chosen.filter((one) => one.includes(way)).length);
      // two answers come again and again, some cells hold several: else nothing would tell that they are answers to choose from
      fc.pre(counts.every((count) => count > 2) && chosen.filter((one) => one.length > 1).length > 5);
      const file = { way: chosen.map((one) => one.join(between)) };
      const study = studyOf([{ name: "way", kind: "text", question: "How do you come to class?" }]);
      const point = only(found(study, file), "choices");
      const { now, label, valuesOf } = taken(study, file, point);
      expect(label).toBe("Make 4 variables of 0 and 1");
      for (const { name, recipe } of now.derived) {
        const answer = recipe.kind === "choice" ? recipe.answer : "";
        expect(valuesOf(name)).toEqual(chosen.map((one) => (one.length === 0 ? null : one.includes(answer) ? 1 : 0)));
        const row = now.codebook.find((v) => v.name === name)!;
        expect(row).toMatchObject({ label: `How do you come to class?: ${answer}`, question: "How do you come to class?" });
      }
      expect(now.derived).toHaveLength(4);
    }),
    { numRuns: 40 },
  ));

test("law: columns that are filled where an answer was chosen become 1 there, 0 where only others were, missing where none was", () =>
  fc.assert(
    fc.property(fc.array(fc.subarray(WAYS), { minLength: 10, maxLength: 30 }), fc.boolean(), (chosen, marked) => {
      fc.pre(WAYS.every((way) => chosen.some((one) => one.includes(way)) && chosen.some((one) => !one.includes(way))));
      const names = WAYS.map((_, k) => `way_${k + 1}`);
      // with the answer itself in its cells, or with a mark
      const file = Object.fromEntries(
        names.map((name, k) => [name, chosen.map((one) => (one.includes(WAYS[k]!) ? (marked ? "1" : WAYS[k]!) : ""))]),
      );
      const study = studyOf(names.map((name, k) => ({ name, kind: marked ? "number" : "category", question: "How?", label: marked ? WAYS[k]! : "" }))); // prettier-ignore
      const point = only(found(study, file), "ticks");
      expect(point.block.map(({ answer, count }) => [answer, count])).toEqual(
        WAYS.map((way) => [way, chosen.filter((one) => one.includes(way)).length]),
      );
      const { now, valuesOf } = taken(study, file, point);
      now.derived.forEach(({ name }, k) =>
        expect(valuesOf(name)).toEqual(chosen.map((one) => (one.length === 0 ? null : one.includes(WAYS[k]!) ? 1 : 0))),
      );
      expect(now.derived).toHaveLength(4);
    }),
    { numRuns: 40 },
  ));

test("law: minutes taken are the minutes from beginning to end, over midnight and the end of a month too", () => {
  const written = (moment: Date, order: "year" | "day") => {
    const [day, time] = moment.toISOString().split("T") as [string, string];
    return `${order === "year" ? day : day.split("-").reverse().join(".")} ${time.slice(0, 5)}`;
  };
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.integer({ min: 0, max: 500_000 }), fc.integer({ min: 1, max: 3000 })), { minLength: 5, maxLength: 20 }),
      fc.constantFrom("year" as const, "day" as const),
      (spells, order) => {
        const begin = Date.UTC(2025, 10, 3);
        const at = (minutes: number) => written(new Date(begin + minutes * 60_000), order);
        // one day above the twelfth settles which number is the day
        const all = [[60 * 24 * 20, 7] as [number, number], ...spells];
        const file = { started: all.map(([from]) => at(from)), ended: all.map(([from, lasts]) => at(from + lasts)) };
        const study = studyOf([
          { name: "started", kind: "date" },
          { name: "ended", kind: "date" },
        ]);
        const point = only(found(study, file), "minutes");
        const { valuesOf } = taken(study, file, point);
        expect(valuesOf("minutes_taken")).toEqual(all.map(([, lasts]) => lasts));
        const sorted = all.map(([, lasts]) => lasts).sort((a, b) => a - b);
        expect(point.median).toBe(sorted[Math.floor(sorted.length / 2)]);
      },
    ),
    { numRuns: 60 },
  );
});

test("law: numbers with words around them become those numbers, in one unit; what cannot be read so is missing and is told", () =>
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 1, max: 40 }), { minLength: 12, maxLength: 30 }), fc.nat({ max: 2 }), (hours, strange) => {
      const file = {
        weekly: [...hours.map((value, k) => (k % 4 === 0 ? `${value}` : k % 4 < 3 ? `${value} hours` : `about ${value * 60} min`)), ...Array.from({ length: strange }, () => "it depends")], // prettier-ignore
      };
      const study = studyOf([{ name: "weekly", kind: "text", label: "Hours a week" }]);
      const point = only(found(study, file), "amounts");
      expect(point.unread).toEqual(strange === 0 ? [] : [{ written: "it depends", count: strange }]);
      expect(openWords(point, study)).toContain(strange === 0 ? "Read in h, " : `Not read, and missing: “it depends” (${strange}).`);
      const { now, label, valuesOf } = taken(study, file, point);
      expect(label).toBe(`Read ${hours.filter((_, k) => k % 4 > 0).length} numbers`);
      expect(valuesOf("weekly")).toEqual([...hours, ...Array.from({ length: strange }, () => null)]);
      expect(now.codebook[0]).toMatchObject({ kind: "number", unit: "h" });
    }),
    { numRuns: 60 },
  ));

describe("items whose possible answers nobody has declared", () => {
  const items = (n: number, stem: string) => Array.from({ length: n }, (_, k) => ({ name: `${stem}_${k + 1}`, kind: "item" }));
  const answers = (...values: number[]) => values.map(String);

  test("families with the same answers are confirmed together; a single slip of typing is no end of the scale", () => {
    const file = {
      a_1: answers(1, 2, 3, 4, 5, 1),
      a_2: answers(5, 4, 3, 2, 1, 2),
      b_1: answers(1, 5, 5, 3, 4, 44),
      c_1: answers(0, 1, 2, 3, 1, 0),
    };
    const study = studyOf([...items(2, "a"), ...items(1, "b"), ...items(1, "c")]);
    const points = found(study, file).filter((point) => point.kind === "range");
    expect(points.map((point) => [namesOf(point), point.low, point.high])).toEqual([
      [["a_1", "a_2", "b_1"], 1, 5],
      [["c_1"], 0, 3],
    ]);
    const { now, label } = (() => {
      const fix = openFix(points[0]!, study)!;
      return { now: applyEdits(study, fix.edits).study, label: fix.label };
    })();
    expect(label).toBe("Possible answers are 1 to 5");
    expect(now.codebook.map((v) => v.range)).toEqual([{ low: 1, high: 5 }, { low: 1, high: 5 }, { low: 1, high: 5 }, null]);
    expect(found(now, file).map(namesOf)).toEqual([["c_1"]]);
  });

  test("what is to stay as it is is not asked about again", () => {
    const file = { a_1: answers(1, 2, 3, 4), a_2: answers(4, 3, 2, 1) };
    const study = studyOf(items(2, "a"));
    const point = only(found(study, file), "range");
    expect(found(applyEdits(study, asTheyAre(namesOf(point), study)).study, file)).toEqual([]);
  });
});

test("nothing is offered where nothing would be gained: plain numbers, classes of age, free text, an end before its beginning", () => {
  const file = {
    age: ["21", "22", "35", "40"],
    class: ["18-24", "25-34", "18-24", "25-34"],
    remark: ["I liked it", "no time, sorry", "see above", "it was fine; really"],
    start: ["2025-01-02 10:00", "2025-01-02 11:00", "2025-01-02 12:00", "2025-01-02 13:00"],
    end: ["2025-01-01 10:00", "2025-01-01 11:00", "2025-01-01 12:00", "2025-01-01 13:00"],
  };
  const study = studyOf([{ name: "age", kind: "number" }, { name: "class", kind: "category" }, { name: "remark", kind: "text" }, { name: "start", kind: "date" }, { name: "end", kind: "date" }]); // prettier-ignore
  expect(found(study, file)).toEqual([]);
});

test("many names are told by the first and the last where they count up, else one by one or by how many there are", () => {
  expect(runWords(["q3_1", "q3_2", "q3_3", "q3_4"])).toBe("q3_1 to q3_4");
  expect(runWords(["age", "pay", "pet"])).toBe("age, pay and pet");
  expect(runWords(["age", "pay", "pet", "sun", "sky"])).toBe("age, pay, pet and 2 more");
});
