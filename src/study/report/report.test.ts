import { referenceSet } from "@/core/test-support/reference-set";
import type { Coefficient } from "@/core/regression/coefficients";
import type { LadderFit } from "@/core/regression/ladder";
import { analyseLadder, type LadderResult } from "../analyse/analyse-ladder";
import { Ladder } from "../model/ladder";
import type { Refusal } from "../analyse/refusal";
import { plain } from "./words";
import { Study, titleOf } from "../model/study";
import { columnOf, sourceOf } from "../test-support/columns";
import { studyOf } from "../test-support/reference-study";
import {
  counted,
  decimalsFor,
  formatCount,
  formatInterval,
  formatMean,
  formatNumber,
  formatP,
  formatShare,
  listed,
  pStatement,
} from "./format-number";
import { ladderTable } from "./ladder/ladder-table";
import { coefficientSentence, type Told } from "./ladder/coefficient-words";
import type { Titles } from "./level-title";
import { ladderWatches } from "./ladder/ladder-watches";
import { whatTheLadderSays } from "./ladder/ladder-words";
import { refusalWords } from "./refusals";

describe("numbers in print follow the American Psychological Association's style", () => {
  test.each([
    [0.0004, "< .001"],
    [0.001, ".001"],
    [0.0496, ".050"],
    [1, "1.000"],
    [null, "–"],
  ])("p %p reads %p", (p, words) => expect(formatP(p)).toBe(words));
  test.each([
    [0.341, ".34"],
    [-0.34, "−.34"],
    [1, "1.00"],
    [-0.001, ".00"],
    [null, "–"],
  ])("a share of %p reads %p", (value, words) => {
    expect(formatShare(value)).toBe(words);
  });
  test.each([
    [13.904, "13.90"],
    [-0.5, "−0.50"],
    [0, "0.00"],
    [0.00432, "0.0043"],
    [-0.0000021, "−0.0000021"],
    [3.2e-9, "3.2 × 10⁻⁹"],
    [9_999_999, "9999999.00"],
    [12_345_678, "1.23 × 10⁷"],
    [-2.5e12, "−2.50 × 10¹²"],
    [null, "–"],
    [NaN, "–"],
  ])("%p reads %p", (value, words) => expect(formatNumber(value)).toBe(words));
  test.each([
    [0.5, 2],
    [0.0099, 4],
    [0.00065, 5],
    [0, 2],
  ])("beside an SE of %p there are %p decimals", (se, decimals) => expect(decimalsFor(se)).toBe(decimals));
  test("an estimate, its SE and its interval have the same decimals", () => {
    const decimals = decimalsFor(0.0065);
    expect([0.0173, -0.004].map((v) => formatNumber(v, decimals))).toEqual(["0.0173", "−0.0040"]);
  });
  test("a rounded zero carries no minus", () => {
    expect(formatShare(-0.001)).toBe(".00");
    expect(formatNumber(-0)).toBe("0.00");
  });
  test("intervals, counts and lists", () => {
    expect(formatInterval(-0.1, 0.25, formatShare)).toBe("[−.10, .25]");
    expect([formatCount(999), formatCount(1234567)]).toEqual(["999", "1\u202f234\u202f567"]);
    expect([counted(1, "row"), counted(2, "row")]).toEqual(["1 row", "2 rows"]);
    expect([listed(["a"]), listed(["a", "b", "c"])]).toEqual(["a", "a, b and c"]);
    expect([pStatement(0.0001), pStatement(0.04)].map(plain)).toEqual(["p < .001", "p = .040"]);
    expect(pStatement(0.04)[0]).toEqual({ text: "p", as: "italic" });
  });
});

const cells = (f: (i: number) => number | string) => Array.from({ length: 30 }, (_, i) => String(f(i)));
const wave = (i: number) => Math.sin(i * 12.9898) * 10;
const study = Study.parse({
  format: "beta-step-study",
  version: 1,
  name: "s",
  codebook: [
    { name: "y", label: "Outcome" },
    { name: "a", label: "Effort", missing: ["-9"] },
    { name: "b", label: "Help" },
    { name: "twice" },
    { name: "flat" },
  ],
});
const source = sourceOf({
  y: cells((i) => wave(i) - 2 * wave(i + 50)),
  a: cells((i) => (i === 3 ? -9 : wave(i))),
  b: cells((i) => wave(i + 50) + i / 9),
  twice: cells((i) => 2 * wave(i)),
  flat: cells(() => 4),
});
const title = (name: string) => study.codebook.find((v) => v.name === name)?.label || name;
const naming = (words: Titles) => ({ title: words, unit: () => "" });
const sentenceOf = (c: Coefficient, fit: LadderFit, words: Titles, told: Told = "beta") => coefficientSentence(c, fit, naming(words), told);
type Fitted = Extract<LadderResult, { status: "fitted" }>;
/** The watches of the last step, with whatever else they are drawn from. */
const watchesOf = (of: Fitted & { ladder: Ladder }, words: Titles, over: object = {}) =>
  ladderWatches({ study, ladder: of.ladder, result: of, depth: null, step: of.fit.steps.length - 1, title: words, ...over });
const fitted = (...steps: string[][]) => {
  const ladder = Ladder.parse({
    id: "l",
    name: "L",
    outcome: "y",
    steps: steps.map((terms, k) => ({
      id: `s${k}`,
      name: k === 0 ? "Start" : "",
      terms: terms.map((t) => ({ components: t.split("*") })),
    })),
  });
  const result = analyseLadder(study, ladder, source);
  if (result.status !== "fitted") throw new Error(result.refusal.code);
  return { ladder, ...result };
};

describe("what a ladder says", () => {
  test("a sentence a step with its share and test, in associational words", () => {
    const { ladder, fit } = fitted(["a"], ["b"]);
    const [first, second, third] = whatTheLadderSays(ladder, fit, title).map(plain);
    const points = (x: number) => (x * 100).toFixed(1);
    expect(first).toMatch(`Start goes with ${points(fit.steps[0]!.change.change)} % of the variance of Outcome (p`);
    expect(second).toMatch(`Step 2 adds ${points(fit.steps[1]!.change.change)} %`);
    expect(third).toMatch(/has the largest β of a single variable/);
    expect([first, second, third].join(" ")).not.toMatch(/cause|effect|prove|influence/i);
  });

  test("a coefficient's sentence names direction, size and what is held constant", () => {
    const { fit } = fitted(["a", "b", "a*b"]);
    const [, b, product] = fit.steps[0]!.coefficients;
    expect(sentenceOf(b!, fit, title)).toMatch(
      /^One SD more of Help goes with \.\d\d SD lower Outcome, at the mean of Effort, the others held constant\.$/,
    );
    expect(sentenceOf(product!, fit, title)).toMatch(/^Effort × Help: the slope of Effort changes by/);
  });

  test("watches: a missing main effect with its fix, a dropped column with its combination, a constant, lost respondents", () => {
    const watches = watchesOf(fitted(["a"], ["a*b"], ["twice", "flat"]), title);
    expect(watches[0]!.fixes).toEqual([{ do: "add-term", step: 2, components: ["b"] }]);
    const words = watches.map((w) => plain(w.words)).join("\n");
    expect(words).toMatch("Step 2 holds Effort × Help without Help.");
    expect(words).toMatch("twice follows exactly from Effort and was left out.");
    expect(words).toMatch("flat is the same for everyone in the sample and was left out.");
    expect(words).toMatch("1 respondent is left out of every step for missing answers, most often in Effort (1).");
  });

  test("the printed table: a section a step, a row a term, the sample in the note", () => {
    const { ladder, fit, sample } = fitted(["a"], ["b", "a*b"]);
    const table = ladderTable(ladder, fit, sample, title);
    expect(table.sections.map((s) => s.rows.length)).toEqual([1, 3]);
    expect(plain(table.sections[0]!.heading)).toMatch(/^Step 1: Start\. R² = \.\d{3}, ΔR² = \.\d{3}, F\(1, 27\) = /);
    for (const section of table.sections) for (const row of section.rows) expect(row).toHaveLength(table.head.length);
    expect(table.note).toMatch("29 of 30 respondents, the same in every step. Variables that are part of a product are mean-centred");
  });
});

test.each([
  [
    "suppression_classical",
    /^posture hardly goes with the outcome by itself .* it takes out of breath what has nothing to do with the outcome \(classical suppression\)\.$/,
  ],
  ["suppression_negative", /^mulch has a β of the other sign than its own r, beside compost \(negative suppression\)\.$/],
  ["suppression_reciprocal", /^climb and pace each have a β larger than their own r/],
])("%s is pointed out in words", (name, expected) => {
  const set = referenceSet(name);
  const ladder = studyOf(set).ladders[0]!;
  const result = analyseLadder(studyOf(set), ladder, sourceOf(Object.fromEntries(set.cells)));
  if (result.status !== "fitted") throw new Error(result.refusal.code);
  expect(watchesOf({ ...result, ladder }, (n) => n).map((w) => plain(w.words))).toContainEqual(expect.stringMatching(expected));
});

test("every refusal has words of its own with a remedy", () => {
  const known = {
    "no-outcome": {},
    "no-terms": {},
    "outcome-among-predictors": { outcome: "y" },
    "too-few-cases": { cases: 1, needed: 3, purpose: "A model" },
    "constant-outcome": { outcome: "y" },
    "duplicate-term": { term: "a*b", components: ["a", "b"] },
    "undeclared-range": { items: ["a"] },
    "missing-column": { column: "a" },
    "too-few-items": { items: 2, needed: 3, constant: ["a"] },
    "constant-items": { items: ["a", "b"] },
    "singular-correlations": { purpose: "Maximum likelihood", item: "a", fewCases: false },
    "too-many-factors": { factors: 5, most: 3, items: 6 },
    "no-uniqueness": { items: ["a"] },
    circle: { variable: "a" },
    "non-finite-value": { column: "a", row: 2 },
    "out-of-range": { column: "a" },
    "singular-resamples": { attempts: 100 },
    "too-many-cases": { cases: 9, most: 5, purpose: "A test" },
    "unknown-variable": { variable: "a" },
    "nothing-to-standardize": { variable: "a", answers: 3 },
    "formula-fault": { message: "A bracket is open.", at: 2 },
    "outcome-is-category": { outcome: "y" },
    "unknown-level": { variable: "a", level: "z" },
    "unlike-models": { first: "A", second: "B", differ: "sample", values: [20, 19] },
    "model-refused": { model: "B", refusal: { code: "no-terms", details: {} } },
  };
  const words = Object.entries(known).map(([code, details]) => refusalWords({ code, details } as Refusal, title));
  expect(new Set(words.map((w) => w.what)).size).toBe(words.length);
  for (const { what, remedy } of words) expect(`${what} ${remedy}`).not.toMatch(/undefined|NaN|\[object/);
  expect(refusalWords({ code: "never-seen", details: {} } as unknown as Refusal, title).remedy).not.toBe("");
});

describe("categories in words", () => {
  const levels = [{ value: "on", label: "On line" }, { value: "in", label: "In the room" }, { value: "none" }, { value: "once" }];
  const withCategory = Study.parse({
    ...study,
    codebook: [...study.codebook, { name: "format", label: "Format", kind: "category", levels }],
  });
  const data = (name: string) =>
    name === "format"
      ? columnOf(
          "format",
          cells((i) => (i === 9 ? "once" : i % 3 ? "on" : "in")),
        )
      : source(name);
  const words: Titles = (name, level) => titleOf(withCategory, name, level);
  const fit = (over: object, ...terms: string[]) => {
    const steps = [{ id: "s", terms: terms.map((t) => ({ components: t.split("*") })) }];
    const result = analyseLadder(withCategory, Ladder.parse({ id: "l", name: "L", outcome: "y", steps, ...over }), data);
    if (result.status !== "fitted") throw new Error(result.refusal.code);
    return { ...result, ladder: Ladder.parse({ id: "l", name: "L", outcome: "y", steps, ...over }) };
  };

  test("a level is told by its label, against the reference or the mean of all", () => {
    const sentence = (over: object, at: number, ...terms: string[]) => {
      const found = fit(over, ...terms);
      return sentenceOf(found.fit.steps[0]!.coefficients[at]!, found.fit, words);
    };
    expect(sentence({}, 1, "b", "format")).toMatch(/^Format: In the room goes with \.\d\d SD (lower|higher) Outcome than Format: On line,/);
    const deviation = { categories: [{ variable: "format", coding: "deviation" }] };
    expect(sentence(deviation, 1, "b", "format")).toMatch(/than the mean of all levels, the others held constant\.$/);
    expect(sentence({}, 3, "b", "format", "b*format")).toMatch(
      /^The slope of Help is \.\d\d SD (lower|higher) with Format: In the room than with Format: On line\.$/,
    );
  });

  test("beside a product a coefficient says where it holds: at the mean of a number, with the reference of a category", () => {
    const sentences = (over: object, ...terms: string[]) => {
      const found = fit(over, ...terms);
      const said = found.fit.steps[0]!.coefficients.map((c) => sentenceOf(c, found.fit, words));
      return [...said, ...whatTheLadderSays(found.ladder, found.fit, words)];
    };
    const [a, b, level] = sentences({}, "a", "b", "format", "a*b", "b*format", "b*b");
    expect(a).toMatch(/ Outcome, at the mean of Help, the others held constant\.$/);
    expect(b).toMatch(/ Outcome, at the mean of Effort, with Format: On line and at its mean, the others held constant\.$/);
    expect(level).toMatch(/ than Format: On line, at the mean of Help, the others held constant\.$/);
    const deviation = { categories: [{ variable: "format", coding: "deviation" }] };
    expect(sentences(deviation, "b", "format", "b*format")[0]).toMatch(/ Outcome, averaged over Format, the other/);
    expect(sentences({}, "b", "format", "b*format").at(-1)).toMatch(/of a single variable, −?\.\d\d \(with Format: On line\)\.$/);
  });

  test("watches: a level that nobody has, a level of one, and errors that cannot be had", () => {
    const found = fit({ errors: "hc3" }, "b", "format");
    const said = watchesOf(found, words).map((w) => plain(w.words));
    expect(said).toContain("Nobody in the sample has Format: none, which therefore has no column.");
    expect(said).toContain(
      "Few respondents have Format: In the room (9 respondents) and Format: once (1 respondent): what is said of them is uncertain.",
    );
    expect(said).toContain("Step 1 has no HC3 errors: 1 respondent is predicted by a coefficient of its own (leverage 1).");
    const steps = [["b", "format"], ["a"]].map((terms, k) => ({ id: `s${k}`, terms: terms.map((t) => ({ components: [t] })) }));
    const two = analyseLadder(withCategory, Ladder.parse({ id: "l", name: "L", outcome: "y", errors: "hc3", steps }), data);
    if (two.status !== "fitted") throw new Error(two.refusal.code);
    expect(watchesOf({ ...two, ladder: found.ladder }, words).filter((w) => w.words.includes("HC3"))).toHaveLength(1);
    const one = fit({ filter: { variable: "format", equals: ["in"] } }, "b", "format");
    expect(watchesOf(one, words)[0]!.words).toBe("Everyone in the sample has Format: In the room, so Format was left out.");
  });

  test("a chosen reference that nobody has is said, and so is what took its place", () => {
    const found = fit({ categories: [{ variable: "format", reference: "none" }] }, "b", "format");
    const said = watchesOf(found, words).map((w) => plain(w.words));
    expect(said).toContain("Nobody in the sample has Format: none, the chosen reference: the levels are compared with Format: On line.");
  });

  test("the printed table names coding and errors, and leaves out what is not available", () => {
    const found = fit({ errors: "hc3" }, "b", "format");
    const table = ladderTable(found.ladder, found.fit, found.sample, words);
    expect(table.note).toMatch(/Format: each level against On line\. Least squares with HC3 standard errors\.$/);
    expect(table.sections[0]!.rows[1]!.slice(2, 4)).toEqual(["–", "–"]);
  });
});

test("a mean that is 0 but for rounding reads 0.00; a small one of a small spread keeps its digits", () => {
  expect(formatMean(-6.7e-17, 3.3)).toBe("0.00");
  expect(formatMean(0.0021, 0.001)).toBe(formatNumber(0.0021));
  expect(formatMean(null, null)).toBe("–");
});
