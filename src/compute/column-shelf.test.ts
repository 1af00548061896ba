import fc from "fast-check";
import type { DerivedVariable } from "@/study/model/derived";
import { Study } from "@/study/model/study";
import { cellText } from "@/study/model/response-column";
import { StudyColumns } from "@/study/prepare/study-columns";
import { sourceOf } from "@/study/test-support/columns";
import { ColumnShelf } from "./column-shelf";

const DATA = { a: ["1", "2", "", "4", "-9"], b: ["5", "", "3", "3", "1"], g: ["x", "x", "y", "x", ""] };
const source = sourceOf(DATA);

/** A study whose parts vary in everything a derived column can depend on. */
const aStudy = fc
  .record({
    scale: fc.constantFrom("mean", "sum"),
    reversed: fc.boolean(),
    code: fc.boolean(),
    correction: fc.option(fc.constantFrom("1", "7")),
    everywhere: fc.boolean(),
    edge: fc.constantFrom(2, 3),
    formula: fc.constantFrom("a + b", "a * b", "s + 1", "z * 2"),
  })
  .map(({ scale, reversed, code, correction, everywhere, edge, formula }) =>
    Study.parse({
      format: "beta-step-study",
      version: 1,
      name: "x",
      codebook: [
        { name: "a", missing: code ? ["-9"] : [], range: { low: 0, high: 9 } },
        { name: "b", range: { low: 0, high: 9 } },
        { name: "g", kind: "category" },
        ...["z", "r", "f"].map((name) => ({ name })),
      ],
      corrections: correction === null ? [] : [{ variable: "b", row: 2, from: null, to: correction }],
      filters: [{ id: "x", name: "X", everywhere, conditions: [{ kind: "values", variable: "g", equals: ["x"] }] }],
      scales: [{ id: "s", name: "S", rule: scale, items: [{ variable: "a", reversed }, { variable: "b" }] }],
      derived: [
        { name: "z", recipe: { kind: "z", from: "a" } },
        { name: "r", recipe: { kind: "ranges", from: "b", edges: [edge], labels: ["low", "high"] } },
        { name: "f", recipe: { kind: "formula", formula } },
      ],
    }),
  );
const cells = (study: Study, shelf: ColumnShelf | null) => {
  const columns = new StudyColumns(study, source, shelf);
  const read = ["a", "b", "s", "z"].map((name) => {
    const { values, missing } = columns.numbers(name);
    return Array.from(values, (value, row) => (missing[row] ? null : value));
  });
  const categories = columns.categories("g");
  const derived = study.derived.map(({ name }: DerivedVariable) => {
    const column = columns.column(name);
    return [Array.from(column.values, (_, row) => cellText(column, row)), columns.facts(name)];
  });
  return { derived, read, categories };
};

test("law: a shelf shared by any run of studies never changes what a column holds", () => {
  fc.assert(
    fc.property(fc.array(aStudy, { minLength: 2, maxLength: 8 }), (studies) => {
      const shelf = new ColumnShelf();
      for (const study of studies) expect(cells(study, shelf)).toEqual(cells(study, null));
    }),
    { numRuns: 200 },
  );
});

test("what nothing has changed for is taken from the shelf; when it is full the longest unused goes", () => {
  const shelf = new ColumnShelf(10);
  for (const name of ["a", "b"]) shelf.set(name, name, 5);
  expect(shelf.get("a")).toBe("a");
  shelf.set("c", "c", 5);
  expect(["a", "b", "c"].map((name) => shelf.get(name))).toEqual(["a", undefined, "c"]);
  shelf.set("large", "large", 99);
  expect(["a", "large"].map((name) => shelf.get(name))).toEqual([undefined, "large"]);
});
