import fc from "fast-check";
import { Study } from "../model/study";
import { sourceOf } from "../test-support/columns";
import { analyseLadder } from "./analyse-ladder";
import { analyseScale } from "./analyse-scale";
import { resultsOf } from "../test-support/results";

const cell = fc.integer({ min: 1, max: 9 }).map(String);
const someRows = fc.array(fc.tuple(cell, cell, cell, fc.constantFrom("a", "b")), { minLength: 14, maxLength: 40 });

/** A study of y on x with a scale of x and w; `over` decides who is in. */
const studyOf = (over: { filters?: object[]; respondents?: string | null }) =>
  Study.parse({
    format: "beta-step-study",
    version: 1,
    name: "x",
    codebook: [{ name: "y" }, { name: "x" }, { name: "w" }, { name: "g", kind: "category" }],
    filters: over.filters ?? [],
    scales: [{ id: "s", name: "S", items: [{ variable: "x" }, { variable: "w" }], respondents: over.respondents ?? null }],
    ladders: [
      { id: "l", name: "L", outcome: "y", respondents: over.respondents ?? null, steps: [{ id: "1", terms: [{ components: ["s"] }] }] },
    ],
  });
const dataOf = (rows: readonly (readonly string[])[]) =>
  sourceOf({ y: rows.map((r) => r[0]!), x: rows.map((r) => r[1]!), w: rows.map((r) => r[2]!), g: rows.map((r) => r[3]!) });

test("law: a filter, named or holding everywhere, gives the numbers of a file without the others", () => {
  fc.assert(
    fc.property(someRows, fc.boolean(), (rows, everywhere) => {
      const condition = { kind: "values", variable: "g", equals: ["a"] };
      const filtered = studyOf({
        filters: [{ id: "f", name: "F", everywhere, conditions: [condition] }],
        respondents: everywhere ? null : "f",
      });
      const few = rows.filter((r) => r[3] === "a");
      if (few.length === 0) return;
      const bare = studyOf({});
      const one = analyseLadder(filtered, filtered.ladders[0]!, dataOf(rows));
      const two = analyseLadder(bare, bare.ladders[0]!, dataOf(few));
      expect(one.status).toBe(two.status);
      if (one.status === "fitted" && two.status === "fitted") {
        expect(one.fit).toEqual(two.fit);
        expect(one.sample).toMatchObject({
          rows: rows.length,
          keptByFilter: few.length,
          leftOut: [{ filter: "f", count: rows.length - few.length }],
        });
        expect(one.sample.rowsUsed.map((row) => rows[row - 1])).toEqual(two.sample.rowsUsed.map((row) => few[row - 1]));
      }
      const [a, b] = [analyseScale(filtered, filtered.scales[0]!, dataOf(rows)), analyseScale(bare, bare.scales[0]!, dataOf(few))];
      if (a.status === "scored" && b.status === "scored") {
        expect(a.analysis.leftOut).toBe(rows.length - few.length);
        expect([a.analysis.reliability, a.analysis.description, a.analysis.complete]).toEqual([
          b.analysis.reliability,
          b.analysis.description,
          b.analysis.complete,
        ]);
      }
    }),
    { numRuns: 60 },
  );
});

test("the flow says who was left out by which filter, in order, and the results carry it; scores are worked out for all", async () => {
  const rows = Array.from({ length: 20 }, (_, i) => [String(i % 7), String(i % 5), String((i * 3) % 4), i % 2 ? "a" : "b"]);
  const filters = [
    { id: "named", name: "Named", reason: "asked for", conditions: [{ kind: "values", variable: "g", equals: ["a"] }] },
    { id: "out", name: "Out", reason: "twice there", everywhere: true, conditions: [{ kind: "not-rows", rows: [1, 2] }] },
  ];
  const results = await resultsOf(studyOf({ filters, respondents: "named" }), dataOf(rows));
  const ladder = results.ladders["l"] as unknown as { sample: { left_out: unknown[]; kept_by_filter: number } };
  expect(ladder.sample.left_out).toEqual([
    { filter: "out", name: "Out", reason: "twice there", count: 2, unmet: [] },
    { filter: "named", name: "Named", reason: "asked for", count: 9, unmet: [] },
  ]);
  expect(ladder.sample.kept_by_filter).toBe(9);
  const scale = results.scales["s"] as unknown as { scores: (number | null)[]; counts: { rows: number } };
  expect([scale.scores.length, scale.counts.rows]).toEqual([20, 9]);
});

test("a filter that cannot be evaluated refuses the ladder with its reason instead of keeping everybody", () => {
  const filters = [{ id: "f", name: "F", everywhere: true, conditions: [{ kind: "formula", formula: "g + 1 > 2" }] }];
  const study = studyOf({ filters });
  expect(analyseLadder(study, study.ladders[0]!, dataOf([["1", "2", "3", "a"]]))).toMatchObject({
    status: "refused",
    refusal: { code: "formula-fault" },
  });
});
