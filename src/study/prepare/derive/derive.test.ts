import fc from "fast-check";
import type { Recipe } from "../../model/derived";
import { cellText } from "../../model/response-column";
import { Scale } from "../../model/scale";
import { Study } from "../../model/study";
import { sourceOf } from "../../test-support/columns";
import { CircleError, StudyColumns } from "../study-columns";
import { completedYears, exactYears, ordersOf, readDay } from "./dates";

const DATA = {
  age: ["34", "", "51", "18", "65", "-9", "about 40"],
  format: ["online", "in person", "online", "", "hybrid", "Online", "-9"],
  q1: ["1", "2", "3", "", "5", "4", "-9"],
  q2: ["2", "2", "", "", "4", "5", "1"],
  born: ["2000-02-29", "1999-12-31", "31.12.1999", "", "2001-01-01", "2024-13-01", "1990-07-15"],
  begun: [
    "2026-03-01 18:05:10",
    "2026-03-01T23:50:00Z",
    "2026-03-01 6:00 pm",
    "",
    "2026-03-01",
    "2026-03-01 25:00",
    "2026-03-28 12:00:00+02:00",
  ],
  over: [
    "2026-03-01 18:35:40",
    "2026-03-02T00:10:00Z",
    "2026-03-01 19:30",
    "2026-03-01 18:00",
    "2026-03-01 18:00",
    "2026-03-01 18:00",
    "2026-03-28 11:00:00Z",
  ],
  roads: ["bus; tram", "tram", "", "bus;", "on foot", "-9", "tram ; on foot"],
  tickA: ["bus", "", "", "", "bus", "", "-9"],
  tickB: ["", "tram", "", "tram", "tram", "", ""],
  ended: ["2024-02-28", "2024-12-31", "2024-01-01", "2024-01-01", "", "2024-01-01", "2024-07-15"],
};
const KINDS: Record<string, string> = {
  begun: "date",
  over: "date",
  roads: "text",
  tickA: "text",
  tickB: "text",
  format: "category",
  born: "date",
  ended: "date",
  q1: "item",
  q2: "item",
};
const base = {
  format: "beta-step-study",
  version: 1,
  name: "x",
  codebook: Object.keys(DATA).map((name) => ({ name, kind: KINDS[name] ?? "number", missing: ["-9"] })),
};
function made(recipe: Recipe, more: object = {}) {
  const study = Study.parse({ ...base, ...more, codebook: [...base.codebook, { name: "new" }], derived: [{ name: "new", recipe }] });
  const columns = new StudyColumns(study, sourceOf(DATA));
  const column = columns.column("new");
  return { cells: Array.from(column.values, (_, row) => cellText(column, row)), facts: columns.facts("new") };
}

describe("every recipe, worked out by hand", () => {
  const lookup = (otherwise: Extract<Recipe, { kind: "lookup" }>["otherwise"]): Recipe => ({
    kind: "lookup",
    from: "format",
    table: [
      { values: ["online", "Online"], to: "1" },
      { values: ["in person"], to: null },
    ],
    otherwise,
  });
  test.each<[string, Recipe, (string | null)[]]>([
    ["lookup, anything else missing", lookup({ kind: "missing" }), ["1", null, "1", null, null, "1", null]],
    ["lookup, anything else kept", lookup({ kind: "keep" }), ["1", null, "1", null, "hybrid", "1", null]],
    ["lookup, anything else a value", lookup({ kind: "value", value: "0" }), ["1", null, "1", null, "0", "1", null]],
    [
      "ranges: an edge belongs above",
      { kind: "ranges", from: "age", edges: [34, 65], labels: ["a", "b", "c"] },
      ["b", null, "b", "a", "c", null, null],
    ],
    ["indicator", { kind: "indicator", from: "format", equals: ["online", "Online"] }, ["1", "0", "1", null, "0", "1", null]],
    ["square", { kind: "transform", from: "q1", by: "square" }, ["1", "4", "9", null, "25", "16", null]],
    [
      "log10",
      { kind: "transform", from: "q1", by: "log10" },
      ["0", String(Math.log10(2)), String(Math.log10(3)), null, String(Math.log10(5)), String(Math.log10(4)), null],
    ],
    ["centre", { kind: "centre", from: "q1" }, ["-2", "-1", "0", null, "2", "1", null]],
    [
      "weighted sum",
      {
        kind: "weighted",
        parts: [
          { variable: "q1", weight: 2 },
          { variable: "q2", weight: -0.5 },
        ],
      },
      ["1", "3", null, null, "8", "5.5", null],
    ],
    ["formula", { kind: "formula", formula: "(q1 + q2) / 2" }, ["1.5", "2", null, null, "4.5", "4.5", null]],
    ["formula, the mean of what is there", { kind: "formula", formula: "mean(q1, q2)" }, ["1.5", "2", "3", null, "4.5", "4.5", "1"]],
    ["formula, counting", { kind: "formula", formula: "answered(q1, q2) * 10" }, ["20", "20", "10", "0", "20", "20", "10"]],
    ["formula with words", { kind: "formula", formula: 'if(format = "online" or q1 >= 4, 1, 0)' }, ["1", "0", "1", null, "1", "1", null]],
    [
      "formula, minus before a power",
      { kind: "formula", formula: "-q1 ^ 2 + round(q2 / 4, 1)" },
      ["-0.5", "-3.5", null, null, "-24", "-14.7", null],
    ],
    ["a formula of numbers alone", { kind: "formula", formula: "2 ^ 3" }, Array<string>(7).fill("8")],
    [
      "the year",
      { kind: "years", from: "born", order: "year-month-day", count: "calendar", to: null },
      ["2000", "1999", null, null, "2001", null, "1990"],
    ],
    [
      "completed years until another date",
      { kind: "years", from: "born", order: "year-month-day", count: "completed", to: { kind: "variable", variable: "ended" } },
      ["23", "25", null, null, null, null, "34"],
    ],
    [
      "completed years until a day",
      { kind: "years", from: "born", order: "year-month-day", count: "completed", to: { kind: "day", day: "2024-02-29" } },
      ["24", "24", null, null, "23", null, "33"],
    ],
    [
      "minutes, zones and halves of the day allowed for",
      { kind: "minutes", from: "begun", to: "over", order: "year-month-day" },
      ["30.5", "20", "90", null, null, null, "60"],
    ],
    ["an answer of several", { kind: "choice", from: "roads", answer: "tram", separator: ";" }, ["1", "1", null, "0", "0", null, "1"]],
    ["a column an answer", { kind: "ticked", from: "tickA", block: ["tickA", "tickB"] }, ["1", "0", null, "0", "1", null, null]],
  ])("%s", (_, recipe, cells) => expect(made(recipe).cells).toEqual(cells));

  test("what a lookup does not mention is counted whatever becomes of it; every respondent is accounted for", () => {
    for (const kind of ["missing", "keep"] as const) {
      expect(made(lookup({ kind })).facts).toMatchObject({
        rows: 7,
        missingInputs: 2,
        unmatchedRows: 1,
        unmatched: [{ value: "hybrid", count: 1 }],
      });
    }
  });

  test("what has no value is told apart from what is missing, and never becomes a number", () => {
    const made0 = made({ kind: "formula", formula: "ln(q1 - 1) + 1 / (q2 - 2)" });
    expect(made0.cells).toEqual([null, null, null, null, String(Math.log(4) + 0.5), String(Math.log(3) + 1 / 3), null]);
    expect(made0.facts).toMatchObject({ valid: 2, missingInputs: 3, undefined: 2 });
    expect(made({ kind: "formula", formula: "exp(q1 * 1000)" }).facts).toMatchObject({ valid: 0, undefined: 5 });
  });

  test("z-scores have mean 0 and SD 1 over the respondents who are in the study, and only they set the scale", () => {
    const { cells } = made({ kind: "z", from: "q1" });
    const z = cells.filter((c) => c !== null).map(Number);
    expect(z.reduce((a, b) => a + b, 0)).toBeCloseTo(0, 12);
    expect(z.reduce((a, b) => a + b * b, 0) / (z.length - 1)).toBeCloseTo(1, 12);
    const filters = [{ id: "f", name: "F", everywhere: true, conditions: [{ kind: "between", variable: "q1", low: null, high: 3 }] }];
    expect(made({ kind: "z", from: "q1" }, { filters }).cells).toEqual(["-1", "0", "1", null, "3", "2", null]);
  });

  test("a scale score is an input like a variable", () => {
    const scales = [Scale.parse({ id: "s", name: "S", answeredShare: 1, items: [{ variable: "q1" }, { variable: "q2" }] })];
    expect(made({ kind: "formula", formula: "s * 2" }, { scales }).cells).toEqual(["3", "4", null, null, "9", "9", null]);
  });
});

test.each<[string, Recipe, string]>([
  ["a name nothing has", { kind: "formula", formula: "q1 + nothing" }, "formula-fault"],
  ["words in arithmetic", { kind: "formula", formula: "format + 1" }, "formula-fault"],
  ["a z-score of nobody", { kind: "z", from: "format" }, "nothing-to-standardize"],
  ["a cycle in a draft", { kind: "formula", formula: "new + 1" }, "circle"],
])("%s is refused as data", (_, recipe, code) => {
  const study = {
    ...Study.parse(base),
    codebook: [...Study.parse(base).codebook, { ...Study.parse(base).codebook[0]!, name: "new" }],
    derived: [{ name: "new", recipe }],
  };
  const error: unknown = (() => {
    try {
      return new StudyColumns(study, sourceOf(DATA)).column("new");
    } catch (e) {
      return e;
    }
  })();
  expect(error).toMatchObject({ code });
  if (code === "circle") expect(error).toBeInstanceOf(CircleError);
});

test("derived variables stand on one another in any order; a circle, a lost input and a taken name are refused by the study", () => {
  const of = (derived: [string, string][], more: object = {}) =>
    Study.safeParse({
      ...base,
      ...more,
      codebook: [...base.codebook, ...derived.map(([name]) => ({ name }))],
      derived: derived.map(([name, formula]) => ({ name, recipe: { kind: "formula", formula } })),
    });
  const study = of([
    ["c", "b + 1"],
    ["b", "a * 2"],
    ["a", "q1"],
  ]).data!;
  const column = new StudyColumns(study, sourceOf(DATA)).column("c");
  expect(cellText(column, 2)).toBe("7");
  expect(
    of([
      ["a", "b"],
      ["b", "c"],
      ["c", "a"],
    ]).error?.issues[0]?.message,
  ).toMatch(/"a" is worked out from "b" is worked out from "c" is worked out from "a": that is a circle/);
  expect(of([["a", "gone + 1"]]).error?.issues[0]?.message).toMatch(/"gone", which is neither/);
  expect(of([["q1", "q2"]]).error?.issues[0]?.message).toMatch(/"q1" is used twice/);
  const scales = [{ id: "s", name: "S", items: [{ variable: "a" }] }];
  expect(of([["a", "s + 1"]], { scales }).error?.issues[0]?.message).toMatch(/circle/);
});

describe("corrections by hand", () => {
  const corrected = (corrections: object[]) => {
    const study = Study.parse({ ...base, corrections });
    return (name: string) => {
      const column = new StudyColumns(study, sourceOf(DATA)).column(name);
      return Array.from(column.values, (_, row) => cellText(column, row));
    };
  };
  test("stand over the cell, as number, words or nothing, and only while it reads what they were written against", () => {
    const cells = corrected([
      { variable: "age", row: 7, from: "about 40", to: "40" },
      { variable: "age", row: 1, from: "34", to: null },
      { variable: "age", row: 2, from: null, to: "late thirties" },
      { variable: "age", row: 3, from: "52", to: "53" },
      { variable: "q1", row: 70, from: null, to: "1" },
    ]);
    expect(cells("age")).toEqual([null, "late thirties", "51", "18", "65", "-9", "40"]);
    expect(cells("q1")).toEqual(["1", "2", "3", null, "5", "4", "-9"]);
  });
  test("reach what is worked out, and never the imported column", () => {
    const source = sourceOf(DATA);
    const study = Study.parse({
      ...base,
      corrections: [{ variable: "q1", row: 4, from: null, to: "9" }],
      codebook: [...base.codebook, { name: "d" }],
      derived: [{ name: "d", recipe: { kind: "formula", formula: "q1 * 10" } }],
    });
    expect(cellText(new StudyColumns(study, source).column("d"), 3)).toBe("90");
    expect(cellText(source("q1")!, 3)).toBeNull();
  });
});

describe("dates", () => {
  test.each<[string, "year-month-day" | "day-month-year" | "month-day-year", number[] | null]>([
    ["2024-03-01", "year-month-day", [2024, 3, 1]],
    ["2024-03-01T18:30:00", "year-month-day", [2024, 3, 1]],
    ["1. 3. 2024", "day-month-year", [2024, 3, 1]],
    ["3/1/2024", "month-day-year", [2024, 3, 1]],
    ["31/4/2024", "day-month-year", null],
    ["29.2.2023", "day-month-year", null],
    ["29.2.2024", "day-month-year", [2024, 2, 29]],
    ["1.3.24", "day-month-year", null],
    ["13/1/2024", "month-day-year", null],
  ])("%s as %s", (text, order, day) => expect(readDay(text, order)).toEqual(day && { year: day[0], month: day[1], day: day[2] }));

  test("the order is told where only one reads all", () => {
    expect(ordersOf(["1.3.2024", "25.3.2024"])).toEqual(["day-month-year"]);
    expect(ordersOf(["1/3/2024", "2/3/2024"])).toEqual(["day-month-year", "month-day-year"]);
    expect(ordersOf(["1/3/2024", "soon"])).toEqual([]);
  });

  test("law: completed years are the whole part of exact ones but for a day around the birthday, and grow by one a year", () => {
    const day = fc.date({ min: new Date("1900-01-01"), max: new Date("2090-01-01"), noInvalidDate: true }).map((d) => ({
      year: d.getUTCFullYear(),
      month: d.getUTCMonth() + 1,
      day: Math.min(28, d.getUTCDate()),
    }));
    fc.assert(
      fc.property(day, day, (from, to) => {
        expect(completedYears(from, { ...to, year: to.year + 1 })).toBe(completedYears(from, to) + 1);
        expect(Math.abs(exactYears(from, to) - completedYears(from, to) - 0.5)).toBeLessThan(0.51);
      }),
    );
  });
});
