import fc from "fast-check";
import type { DerivedVariable } from "@/study/model/derived";
import { Study } from "@/study/model/study";
import { cellText } from "@/study/model/response-column";
import { StudyColumns } from "@/study/prepare/study-columns";
import { sourceOf } from "@/study/test-support/columns";
import { DerivationShelf } from "./derivation-shelf";

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
const cells = (study: Study, shelf: DerivationShelf | null) => {
  const columns = new StudyColumns(study, source, shelf);
  return study.derived.map(({ name }: DerivedVariable) => {
    const column = columns.column(name);
    return [Array.from(column.values, (_, row) => cellText(column, row)), columns.facts(name)];
  });
};

test("law: a shelf shared by any run of studies never changes what a derived column holds", () => {
  fc.assert(
    fc.property(fc.array(aStudy, { minLength: 2, maxLength: 8 }), (studies) => {
      const shelf = new DerivationShelf();
      for (const study of studies) expect(cells(study, shelf)).toEqual(cells(study, null));
    }),
    { numRuns: 200 },
  );
});

test("what nothing has changed for is taken from the shelf; when it is full the longest unused goes", () => {
  const made = (name: string, rows: number) => ({
    column: { name, values: new Float64Array(rows), states: new Uint8Array(rows), texts: [] },
    facts: { rows, valid: 0, missingInputs: 0, undefined: 0, unmatched: [], unmatchedRows: 0 },
  });
  const shelf = new DerivationShelf(10);
  for (const name of ["a", "b"]) shelf.set(name, made(name, 5));
  expect(shelf.get("a")!.column.name).toBe("a");
  shelf.set("c", made("c", 5));
  expect([shelf.get("a")?.column.name, shelf.get("b"), shelf.get("c")?.column.name]).toEqual(["a", undefined, "c"]);
  shelf.set("large", made("large", 99));
  expect([shelf.get("a"), shelf.get("large")?.column.name]).toEqual([undefined, "large"]);
});
