import fc from "fast-check";
import { randomStream } from "@/core/random/random-stream";
import { seriousness as kind } from "../../kinds/seriousness";
import { applyEdits } from "../../model/edit";
import { Study } from "../../model/study";
import { StudyColumns } from "../../prepare/study-columns";
import { fixAll, fixesOf } from "../../report/check-words";
import { flowSentence, screenFilter } from "../../report/serious-words";
import { columnOf, sourceOf } from "../../test-support/columns";
import { missingLike } from "./check-values";
import { checkResponses } from "./check-responses";
import type { CheckKind } from "./findings";
import { missingPattern } from "./missing-pattern";
import { seriousness } from "./seriousness";
import { rowList } from "./row-list";
import { variableLook } from "./variable-look";

/** Thirty respondents without a fault: answers that vary, all codes different. */
const ROWS = 30;
const random = randomStream(11);
const clean = (): Record<string, string[]> => ({
  id: Array.from({ length: ROWS }, (_, i) => `P${i + 1}`),
  ...Object.fromEntries(
    Array.from({ length: 10 }, (_, k) => [
      `q${k + 1}`,
      Array.from({ length: ROWS }, (_, i) => String(1 + ((i * (k + 2) + random.below(5)) % 5))),
    ]),
  ),
  age: Array.from({ length: ROWS }, (_, i) => String(20 + i)),
  group: Array.from({ length: ROWS }, (_, i) => (i % 2 ? "a" : "b")),
  day: Array.from({ length: ROWS }, (_, i) => `2024-03-${String(i + 1).padStart(2, "0")}`),
});
const study = (data: Record<string, string[]>, over: Record<string, object> = {}) =>
  Study.parse({
    format: "beta-step-study",
    version: 1,
    name: "x",
    codebook: Object.keys(data).map((name) => ({
      name,
      kind: name === "id" ? "code" : name === "age" ? "number" : name === "group" ? "category" : name === "day" ? "date" : "item",
      ...(name.startsWith("q") ? { range: { low: 1, high: 5 } } : {}),
      ...(name === "group" ? { levels: [{ value: "a" }, { value: "b" }] } : {}),
      ...over[name],
    })),
  });
function found(data: Record<string, string[]>, over: Record<string, object> = {}) {
  const s = study(data, over);
  return everyCheck(s, data);
}
/** What the checks find in variables, and in whole respondents. */
function everyCheck(s: Study, data: Record<string, string[]>) {
  const columns = new StudyColumns(s, sourceOf(data));
  const { screens } = seriousness(kind.specOf({ progress: null, duration: null, straight: 8 }, s), columns, ROWS);
  return [...screens.flatMap((screen) => (screen.kind === "finding" ? [screen.finding] : [])), ...checkResponses(s, columns, ROWS)];
}
const put = (data: Record<string, string[]>, name: string, row: number, cell: string) => (data[name]![row - 1] = cell);

test("clean answers come out clean", () => expect(found(clean())).toEqual([]));

describe("each check finds its fault, names the respondents, and its fix leaves nothing to find", () => {
  type Dirt = (data: Record<string, string[]>) => void;
  const copy = (data: Record<string, string[]>, from: number, to: number, leaveOut: string[] = []) => {
    for (const [name, cells] of Object.entries(data)) if (!leaveOut.includes(name)) cells[to - 1] = cells[from - 1]!;
  };
  test.each<[string, CheckKind, Dirt, string | null, number[], Record<string, object>?]>([
    ["−9 in an item", "missing-like", (d) => put(d, "q2", 4, "-9"), "q2", [4]],
    ["99 and words in an undeclared number", "missing-like", (d) => (put(d, "age", 7, "999"), put(d, "age", 9, "n/a")), "age", [7, 9]],
    ["a question mark for a group", "missing-like", (d) => put(d, "group", 2, "?"), "group", [2], { group: { levels: [] } }],
    ["55 in a 1 to 5 item", "outside-range", (d) => put(d, "q3", 12, "55".replace("55", "54")), "q3", [12]],
    ["words in a number", "words-in-numbers", (d) => put(d, "age", 3, "thirty"), "age", [3]],
    ["a code twice", "same-code", (d) => put(d, "id", 20, "P4"), "id", [20]],
    ["answers copied under another code", "same-answers", (d) => copy(d, 5, 25, ["id"]), null, [25]],
    ["one answer throughout", "straight-line", (d) => Array.from({ length: 10 }, (_, k) => put(d, `q${k + 1}`, 8, "4")), null, [8]],
    ["nothing answered", "nothing-answered", (d) => Array.from({ length: 10 }, (_, k) => put(d, `q${k + 1}`, 30, "")), null, [30]],
    ["a variable without variation", "no-variation", (d) => d["age"]!.fill("33"), "age", []],
    ["a slip of spelling", "undeclared-levels", (d) => put(d, "group", 6, "A"), "group", [6]],
    [
      "a level nobody has",
      "unused-levels",
      () => undefined,
      "group",
      [],
      { group: { levels: [{ value: "a" }, { value: "b" }, { value: "c" }] } },
    ],
    ["a date in another order", "unreadable-dates", (d) => put(d, "day", 14, "31.3.2024"), "day", [14]],
  ])("%s", (_, check, dirty, variable, rows, over = {}) => {
    const data = clean();
    dirty(data);
    const findings = found(data, over);
    expect(findings.map((f) => [f.check, f.variable, f.rows])).toEqual([[check, variable, rows]]);
    const s = study(data, over);
    for (const fix of fixesOf(findings[0]!, s)) {
      const mended = applyEdits(s, fix.edits).study;
      const left = everyCheck(mended, data);
      // a slip of spelling that is made a level is a level with one respondent
      expect(left.filter((f) => !(check === "undeclared-levels" && f.check === "small-levels"))).toEqual([]);
    }
  });

  test("levels with few respondents are told and mended by combining, which is a recipe", () => {
    const data = clean();
    put(data, "group", 5, "c");
    const [finding, ...others] = found(data, { group: { levels: [{ value: "a" }, { value: "b" }, { value: "c" }] } });
    expect([finding!.check, finding!.values, others]).toEqual(["small-levels", [{ value: "c", count: 1 }], []]);
  });

  test("one fix for several variables declares each its own codes, and leaving out adds to who is left out already", () => {
    const data = clean();
    put(data, "q1", 3, "-9");
    put(data, "q2", 5, "99");
    put(data, "id", 20, "P4");
    let s = study(data);
    const columns = () => new StudyColumns(s, sourceOf(data));
    const all = checkResponses(s, columns(), ROWS);
    const fix = fixAll(
      all.filter((f) => f.check === "missing-like"),
      s,
    )!;
    expect(fix.label).toBe("Count all of these as missing: −9 and 99 (2 variables)");
    s = applyEdits(s, fix.edits).study;
    expect([s.codebook.find((v) => v.name === "q1")!.missing, s.codebook.find((v) => v.name === "q2")!.missing]).toEqual([["-9"], ["99"]]);
    const rows = [{ check: "same-code" as const, variable: "id", values: [], rows: [20], count: 1, groups: [[4, 20]] }];
    s = applyEdits(s, fixesOf(rows[0]!, s)[0]!.edits).study;
    s = applyEdits(s, fixesOf({ ...rows[0]!, rows: [7] }, s)[0]!.edits).study;
    expect(s.filters).toMatchObject([{ everywhere: true, conditions: [{ kind: "not-rows", rows: [7, 20] }] }]);
    expect(everyCheck(s, data)).toEqual([]);
  });
});

test("law: patterns, shares and gaps of missing answers agree with counting cell by cell", () => {
  const cell = fc.constantFrom("1", "2", "", "-9");
  fc.assert(
    fc.property(fc.array(fc.tuple(cell, cell, cell), { minLength: 1, maxLength: 25 }), fc.boolean(), (cells, some) => {
      const data = Object.fromEntries(["u", "v", "w"].map((name, k) => [name, cells.map((row) => row[k]!)]));
      const filters = some ? [{ id: "f", name: "F", everywhere: true, conditions: [{ kind: "not-rows", rows: [1] }] }] : [];
      const s = Study.parse({
        format: "beta-step-study",
        version: 1,
        name: "x",
        filters,
        codebook: Object.keys(data).map((name) => ({ name, missing: ["-9"] })),
      });
      const pattern = missingPattern(["u", "v", "w"], new StudyColumns(s, sourceOf(data)), cells.length);
      const kept = cells.slice(some ? 1 : 0).map((row) => row.map((c) => c === "" || c === "-9"));
      expect(pattern.respondents).toBe(kept.length);
      expect(pattern.variables.map((v) => v.missing)).toEqual([0, 1, 2].map((k) => kept.filter((row) => row[k]).length));
      for (const { gaps, respondents } of pattern.gaps)
        expect(kept.filter((row) => row.filter(Boolean).length === gaps)).toHaveLength(respondents);
      expect(pattern.patterns.reduce((sum, p) => sum + p.respondents, pattern.otherwise)).toBe(kept.length);
      for (const { open, respondents } of pattern.patterns) {
        const names = pattern.across.filter((_, i) => open[i]);
        expect(
          kept.filter((row) => JSON.stringify(["u", "v", "w"].filter((_, k) => row[k]).sort()) === JSON.stringify([...names].sort())),
        ).toHaveLength(respondents);
      }
    }),
  );
});

describe("filters and the order of the sheet", () => {
  const data = { n: ["3", "", "1", "2", "-9"], g: ["b", "a", "", "c", "a"], t: ["x10", "x9", "", "x1", "y"] };
  const s = Study.parse({
    format: "beta-step-study",
    version: 1,
    name: "x",
    codebook: [
      { name: "n", missing: ["-9"] },
      { name: "g", kind: "category", levels: [{ value: "c" }, { value: "a" }, { value: "b" }] },
      { name: "t", kind: "text" },
    ],
    filters: [
      { id: "ac", name: "AC", conditions: [{ kind: "values", variable: "g", equals: ["a", "c"] }] },
      { id: "not-a", name: "notA", conditions: [{ kind: "values", variable: "g", equals: ["a"], not: true }] },
      { id: "up", name: "up", conditions: [{ kind: "between", variable: "n", low: 2, high: null }] },
      { id: "both", name: "both", conditions: [{ kind: "answered", variables: ["n", "g"], share: 1 }] },
      {
        id: "formula",
        name: "formula",
        conditions: [
          { kind: "formula", formula: 'n > 1 and not g = "b"' },
          { kind: "not-rows", rows: [5] },
        ],
      },
      { id: "code", name: "code", conditions: [{ kind: "values", variable: "n", equals: ["-9"] }] },
    ],
  });
  const columns = () => new StudyColumns(s, sourceOf(data));
  test.each<[string, number[]]>([
    ["ac", [2, 4, 5]],
    ["not-a", [1, 3, 4]],
    ["up", [1, 4]],
    ["both", [1, 4]],
    ["formula", [4]],
    ["code", [5]],
  ])("%s keeps %p", (id, kept) => {
    const of = (kind: "kept" | "left-out") => Array.from(rowList(s, columns(), 5, { kind, filter: id }, null), (row) => row + 1);
    expect(of("kept")).toEqual(kept);
    expect([...of("kept"), ...of("left-out")].sort()).toEqual([1, 2, 3, 4, 5]);
  });

  test.each<[string, boolean, number[]]>([
    ["n", false, [3, 4, 1, 2, 5]],
    ["n", true, [1, 4, 3, 2, 5]],
    ["g", false, [4, 2, 5, 1, 3]],
    ["t", false, [4, 2, 1, 5, 3]],
    ["t", true, [5, 1, 2, 4, 3]],
  ])("by %s, descending %p: those without an answer last", (by, descending, rows) =>
    expect(Array.from(rowList(s, columns(), 5, { kind: "all" }, { by, descending }), (row) => row + 1)).toEqual(rows),
  );
});

test("a look tells counts, the grid values lie on, and a refusal as data", () => {
  const s = Study.parse({
    format: "beta-step-study",
    version: 1,
    name: "x",
    codebook: [{ name: "h" }, { name: "g", kind: "category", levels: [{ value: "z" }, { value: "y" }] }],
  });
  const of = (cells: string[], name = "h") =>
    variableLook(name, false, new StudyColumns(s, (n) => (n === name ? columnOf(name, cells) : undefined)));
  expect(of(["0.5", "2", "3.5", "", "2"])).toMatchObject({
    look: { grid: 0.5 * 3, missing: 1, distinct: 3, values: [{ value: "2", count: 2 }, {}, {}] },
  });
  expect(of(["0.1", "0.25", "0.7"])).toMatchObject({ look: { grid: 0.15, description: { n: 3 } } });
  expect(of(["0.1", "0.25", "0.71"])).toMatchObject({ look: { grid: null } });
  expect(of(["y", "y", "w"], "g")).toMatchObject({
    look: {
      values: [
        { value: "z", count: 0 },
        { value: "y", count: 2 },
        { value: "w", count: 1 },
      ],
      histogram: null,
    },
  });
  expect(variableLook("gone", false, new StudyColumns(s, () => undefined))).toMatchObject({
    status: "refused",
    refusal: { code: "missing-column" },
  });
});

describe("a value looks like a code for a missing answer only where it stands apart", () => {
  test.each<[string, number[], "item" | "number", number[]]>([
    ["a rating from 0 to 10", [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10], "number", []],
    ["the same as an item", [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10], "item", []],
    ["a rating whose 10 nobody gave", [2, 3, 5, 6, 7, 8, 9], "item", []],
    ["9 beside 1 to 5", [1, 2, 3, 4, 5, 9], "item", [9]],
    ["8 and 9 beside 1 to 5", [1, 2, 3, 4, 5, 8, 9], "item", [8, 9]],
    ["8 beside 1 to 7", [1, 2, 3, 4, 5, 6, 7, 8], "item", []],
    ["99 beside 1 to 7", [1, 2, 3, 4, 5, 6, 7, 99], "item", [99]],
    ["-9 beside 1 to 5", [-9, 1, 2, 3, 4, 5], "item", [-9]],
    ["a difference from -1 to 3", [-1, 0, 1, 2, 3], "item", []],
    ["999 beside ages", [18, 25, 33, 47, 66, 999], "number", [999]],
    ["an age of 77 and of 88", [18, 25, 33, 47, 66, 77, 88], "number", []],
  ])("%s", (_, values, kind, codes) => expect(missingLike(values, { range: null, kind })).toEqual(codes));
});

describe("who answered seriously", () => {
  const data = {
    code: ["a", "b", "c", "d", "e", "f"],
    Progress: ["100", "100", "64", "100", "", "100"],
    seconds: ["300", "20", "310", "290", "305", "310"],
    consent: ["Yes, I agree", "Yes, I agree", "Yes, I agree", "No", "Yes, I agree", ""],
    Finished: ["TRUE", "TRUE", "TRUE", "TRUE", "TRUE", "FALSE"],
    Status: ["Response", "Response", "Response", "Response", "Preview", "Response"],
    q5: ["Agree", "Agree", "Disagree", "Agree", "", "Agree"],
  };
  const s = Study.parse({
    format: "beta-step-study",
    version: 1,
    name: "x",
    codebook: Object.keys(data).map((name) => ({
      name,
      label: name === "q5" ? 'Please choose "Agree" here.' : name === "seconds" ? "Duration" : "",
      kind: ["Progress", "seconds"].includes(name) ? "number" : name === "code" ? "code" : "category",
    })),
  });
  const look = (study: Study, bounds = {}) =>
    seriousness(kind.specOf({ progress: null, duration: null, straight: 8, ...bounds }, study), new StudyColumns(study, sourceOf(data)), 6);
  const rows = (study: Study, bounds = {}) => Object.fromEntries(look(study, bounds).screens.map((one) => [one.kind, one.rows]));
  test("each by what the file tells of it: rows, and nobody for a value that is not there", () =>
    expect(rows(s)).toEqual({ progress: [3], finished: [6], duration: [2], consent: [4, 6], preview: [5], attention: [3] }));
  test("bounds can be changed", () =>
    expect(rows(s, { progress: 50, duration: 303 })).toMatchObject({ progress: [], duration: [1, 2, 4] }));
  test("each filter leaves out just those, the later ones count whom none before has left out, and the sentence adds up", () => {
    let study = s;
    for (let k = 0; k < 6; k++) {
      const screen = look(study).screens.filter((one) => one.rows.length > 0)[0]!;
      const before = look(study).kept;
      study = applyEdits(
        study,
        screenFilter(screen, study, (name) => name),
      ).study;
      expect(look(study).kept).toBe(before - screen.rows.length);
      if (look(study).screens.every((one) => one.rows.length === 0)) break;
    }
    const { flow, kept } = look(study);
    expect([flow.map((one) => one.leftOut), kept]).toEqual([[1, 1, 1, 1, 1], 1]);
    expect(flowSentence(look(study))).toMatch(
      /^Of 6 respondents, 1 respondent was left out \(did not reach 100 in Progress\), 1 was .*; 1 remained\.$/,
    );
  });
  test("nobody left out says so", () => expect(flowSentence(look(s))).toBe("All 6 respondents were kept."));
});
