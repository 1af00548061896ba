import { unmatchedIn } from "../analyse/responses/unmatched";
import { cellText, type ResponseColumn } from "../model/response-column";
import { Study } from "../model/study";
import { columnOf } from "../test-support/columns";
import { StudyColumns } from "./study-columns";

describe("what a study names is read as the reader of that file reads a cell", () => {
  // as a file with decimal commas was read
  const age = { ...columnOf("age", ["14.3", "99.9", "7", "007", "1.234", ""]), decimal: "," as const };
  const TABLE = [
    { values: ["14,30", "5,5"], to: "1,5" },
    { values: ["1.234"], to: "2" },
  ];
  const inStudy = (more: object) => {
    const codebook = [{ name: "age", missing: ["99,9", "007", "8"] }, { name: "new" }];
    const derived = [{ name: "new", recipe: { kind: "lookup", from: "age", table: TABLE, otherwise: { kind: "missing" } } }];
    const study = Study.parse({ format: "beta-step-study", version: 1, name: "x", codebook, derived, ...more });
    return new StudyColumns(study, (name) => (name === "age" ? age : undefined));
  };
  const cells = (column: ResponseColumn) => Array.from(column.values, (_, row) => cellText(column, row));

  test("missing codes: as the file shows them, and 007 is not 7", () => {
    const { values, missing, wordsInNumbers } = inStudy({}).variable("age");
    expect([[...values], [...missing], wordsInNumbers]).toEqual([[14.3, 0, 7, 0, 1.234, 0], [0, 1, 0, 1, 0, 1], 0]);
    expect([...inStudy({}).categories("age").missing]).toEqual([0, 1, 0, 1, 0, 1]);
  });
  test("recode tables, filters and corrections, in either way of writing", () => {
    const recoded = inStudy({});
    expect(cells(recoded.column("new"))).toEqual(["1.5", null, null, null, "2", null]);
    expect(recoded.facts("new")).toMatchObject({ unmatched: [{ value: "7", count: 1 }], unmet: ["5,5"] });
    const conditions = [{ kind: "values" as const, variable: "age", equals: ["14,3", "99,90", "3,3"], not: false }];
    expect([...inStudy({}).passes({ id: "f", conditions }, 6)]).toEqual([1, 1, 0, 0, 0, 0]);
    expect(inStudy({}).unmet(conditions)).toEqual(["3,3"]);
    const corrections = [
      { variable: "age", row: 1, from: "14,30", to: "14,50" },
      { variable: "age", row: 3, from: "8", to: "9" },
    ];
    expect(cells(inStudy({ corrections }).column("age"))).toEqual(["14.5", "99.9", "7", "007", "1.234", null]);
  });
  test("what matched nothing is told, whatever names it; a code that one item of a battery has is no slip", () => {
    const study = Study.parse({
      format: "beta-step-study",
      version: 1,
      name: "x",
      codebook: [
        { name: "age", missing: ["99,9", "-1"] },
        { name: "b", missing: ["-1", "-2"] },
        { name: "c", kind: "category", levels: [{ value: "yes" }, { value: "perhaps" }] },
      ],
      corrections: [{ variable: "b", row: 2, from: "4", to: "5" }],
      filters: [{ id: "f", name: "F", conditions: [{ kind: "values", variable: "c", equals: ["yes", "Yes"] }] }],
    });
    const data = { age, b: columnOf("b", ["-1", "3", "", "", "", ""]), c: columnOf("c", ["yes", "no", "yes", "no", "", ""]) };
    expect(unmatchedIn(study, new StudyColumns(study, (name) => data[name as "age"]))).toEqual([
      { of: "missing-codes", id: "b", values: ["-2"] },
      { of: "levels", id: "c", values: ["perhaps"] },
      { of: "filter", id: "f", values: ["Yes"] },
      { of: "corrections", id: "b", values: ["4"] },
    ]);
  });
});
