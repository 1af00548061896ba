import fc from "fast-check";
import type { Change } from "../model/edit";
import { Recipe } from "../model/derived";
import { Condition } from "../model/respondent-filter";
import { changeWords, revisionWords, trailLines } from "./trail-words";
import { conditionWords, derivedFactWords, recipeWords } from "./recipe-words";
import { changedSince } from "./seen-words";
import { CHECK_WORDS, findingWords } from "./check-words";

const title = (name: string) => name.toUpperCase();

describe("the trail says what changed, from what to what", () => {
  const change = (over: Partial<Change>): Change => ({ subject: "variable", id: "q1", from: null, to: null, at: 0, ...over });
  test.each<[Change, string]>([
    [change({ subject: "name", from: "Old", to: "New" }), "Study renamed from “Old” to “New”"],
    [change({ subject: "responses", to: { fileName: "a.csv", rows: 9 } }), "9 respondents taken in from a.csv"],
    [
      change({ subject: "responses", from: { fileName: "a.csv", rows: 9 }, to: { fileName: "b.csv", rows: 8 } }),
      "Responses: from a.csv (9 respondents) to b.csv (8 respondents)",
    ],
    [
      change({ subject: "correction", to: { variable: "q1", row: 3, from: "55", to: null } }),
      "q1 of respondent 3 corrected from 55 to nothing",
    ],
    [
      change({ subject: "correction", from: { variable: "q1", row: 3, from: "55", to: null } }),
      "Correction of q1 of respondent 3 taken back",
    ],
    [
      change({ from: { name: "q1", missing: [] }, to: { name: "q1", missing: ["-9", "99"] } }),
      "Variable q1: missing codes from none to -9, 99",
    ],
    [change({ from: { range: null }, to: { range: { low: 1, high: 5 } } }), "Variable q1: possible answers from nothing to 1 to 5"],
    [change({ from: { label: "x" }, to: { label: "y".repeat(200) } }), "Variable q1: label changed"],
    [change({ from: { levels: [{ value: "1" }] }, to: { levels: [] } }), "Variable q1: value labels changed"],
    [change({ to: { name: "q1" } }), "Variable q1 added"],
    [change({ subject: "derived", id: "d", from: { name: "d" } }), "Recipe of d taken away"],
    [change({ subject: "filter", id: "f", to: { id: "f", name: "Grown up" } }), "Filter Grown up made"],
    [
      change({ subject: "scale", id: "s", from: { name: "S", rule: "mean" }, to: { name: "S", rule: "sum" } }),
      "Scale S: rule from “mean” to “sum”",
    ],
  ])("%#", (given, words) => expect(changeWords(given)).toBe(words));

  test("what was taken out and put back elsewhere was moved; a block is called by what it is of", () => {
    const block = { id: "t1", what: { kind: "table", of: { kind: "coefficients", ids: ["l"] } } };
    const [taken, put] = [change({ subject: "block", id: "t1", from: block }), change({ subject: "block", id: "t1", to: block, at: 3 })];
    expect(trailLines([taken, put])).toEqual(["Write-up: table of coefficients moved"]);
    expect(trailLines([taken])).toEqual(["Write-up: table of coefficients taken away"]);
    expect(trailLines([change({ subject: "block", id: "t1", from: block, to: { ...block, at: "x" } })])).toEqual(["Write-up: table of coefficients changed"]); // prettier-ignore
  });

  test("how a revision came about", () => {
    expect([revisionWords("edit", null), revisionWords("undo", 7), revisionWords("redo", 8), revisionWords("restore", 2)]).toEqual([
      null,
      "Change 7 taken back",
      "Done again what 8 had taken back",
      "Gone back to how the study stood after 2",
    ]);
  });
});

describe("recipes and conditions in sentences", () => {
  test.each<[object, string]>([
    [
      {
        kind: "lookup",
        from: "g",
        table: [
          { values: ["1", "2"], to: "low" },
          { values: ["9"], to: null },
        ],
        otherwise: { kind: "keep" },
      },
      "G recoded (1, 2 → low; 9 → missing); anything else stays as it is.",
    ],
    [
      { kind: "lookup", from: "g", table: [{ values: ["1"], to: "a" }], otherwise: { kind: "value", value: "b" } },
      "G recoded (1 → a); anything else becomes b.",
    ],
    [{ kind: "ranges", from: "age", edges: [30, 45.5], labels: ["a", "b", "c"] }, "AGE cut at 30 and 45.5 into a, b and c."],
    [{ kind: "z", from: "x" }, "z-score of X."],
    [{ kind: "transform", from: "x", by: "root" }, "square root of X."],
    [
      {
        kind: "weighted",
        parts: [
          { variable: "x", weight: 0.25 },
          { variable: "y", weight: -2 },
        ],
      },
      "0.25 × X + −2 × Y.",
    ],
    [{ kind: "indicator", from: "g", equals: ["a", "b"] }, "1 where G is a or b, else 0."],
    [
      { kind: "years", from: "d", order: "year-month-day", count: "completed", to: { kind: "day", day: "2024-03-01" } },
      "completed years from D to 2024-03-01.",
    ],
    [{ kind: "formula", formula: "ln(x)" }, "ln(x)."],
  ])("%#", (recipe, words) => expect(recipeWords(Recipe.parse(recipe), title)).toBe(words));

  test.each<[object, string]>([
    [{ kind: "values", variable: "g", equals: ["a", "b"], not: true }, "whose G is not a or b"],
    [{ kind: "between", variable: "x", low: null, high: 9.5 }, "whose X is at most 9.5"],
    [{ kind: "between", variable: "x", low: -1, high: null }, "whose X is at least −1"],
    [{ kind: "answered", variables: ["a", "b"], share: 0.5 }, "who answered at least 50 % of 2 variables"],
    [{ kind: "not-rows", rows: [4] }, "other than row 4"],
    [{ kind: "not-rows", rows: [1, 2, 3, 4, 5, 6, 7, 8, 9] }, "other than 9 chosen ones"],
  ])("%#", (condition, words) => expect(conditionWords(Condition.parse(condition), title)).toBe(words));

  test("how a variable came out: losses by reason, unmatched values by count", () => {
    const facts = {
      rows: 10,
      valid: 6,
      missingInputs: 1,
      undefined: 3,
      unmatched: [{ value: "x", count: 2 }],
      unmatchedRows: 2,
      unmet: ["99,9", "y"],
    };
    expect(derivedFactWords(facts)).toBe(
      "6 of 10 respondents have a value. 1 has none because an answer is missing. 3 answers give no value. The table does not mention x (2). No cell reads “99,9” or “y”.",
    );
  });
});

test("a finding is told in numbers and values, never with a respondent; every check has its reason", () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...(Object.keys(CHECK_WORDS) as (keyof typeof CHECK_WORDS)[])),
      fc.array(fc.integer({ min: 100_000, max: 999_999 }), { minLength: 1, maxLength: 9 }),
      (check, rows) => {
        const words = findingWords(
          { check, variable: "q", values: [{ value: "-9", count: rows.length }], rows, count: rows.length, groups: [rows] },
          title,
        );
        for (const row of rows) expect(words).not.toContain(String(row));
        expect([CHECK_WORDS[check].title, CHECK_WORDS[check].why].every((text) => text.length > 10)).toBe(true);
      },
    ),
  );
});

test("what has changed since a result was last seen: only numbers that print differently", () => {
  const seen = {
    kind: "ladder" as const,
    id: "l",
    inputs: "x",
    revision: 3,
    at: "2026-11-24T03:00:00Z",
    numbers: [
      { name: "N", value: 430 },
      { name: "R²", value: 0.31204 },
    ],
  };
  expect(
    changedSince(seen, [
      { name: "N", value: 428 },
      { name: "R²", value: 0.3123 },
    ]),
  ).toBe("N was 430 and is 428.");
  expect(
    changedSince(seen, [
      { name: "N", value: 430 },
      { name: "R²", value: 0.4 },
      { name: "new", value: 1 },
    ]),
  ).toBe("R² was .312 and is .400.");
  expect(changedSince(seen, seen.numbers)).toBeNull();
});
