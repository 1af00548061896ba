import { readFileSync } from "node:fs";
import path from "node:path";
import { columnFacts } from "@/files/column-facts";
import { readBytes } from "@/files/test-support/read-bytes";
import { resultsOf } from "@/study/test-support/results";
import { applyEdits } from "@/study/model/edit";
import { cellText } from "@/study/model/response-column";
import { Study } from "@/study/model/study";
import type { ResponseColumn } from "@/study/model/response-column";
import { guessCodebook } from "@/study/prepare/guess-codebook";
import { canalStreetCsv } from "./canal-street";
import { canalStreetEdits } from "./canal-street-study";
import { PLANTED, TRUE_PARAMETERS } from "./true-parameters";

const csv = readFileSync(path.join(process.cwd(), "demo/canal-street.csv"), "utf8");
let study: Study;
let columns: Map<string, ResponseColumn>;
let results: any;
beforeAll(async () => {
  const read = await readBytes(csv);
  columns = read.columns;
  const codebook = guessCodebook(read.data.columns.map(columnFacts));
  const bare = Study.parse({ format: "beta-step-study", version: 1, name: "x", codebook });
  study = applyEdits(bare, canalStreetEdits()).study;
  results = await resultsOf(study, (name) => columns.get(name));
});
const cell = (name: string, row: number) => cellText(columns.get(name)!, row - 1);

test("the file in the repository is what the seeded generator writes", () => expect(canalStreetCsv()).toBe(csv));

test("the planted dirt is where it is written down", () => {
  expect(columns.get("learner")!.values).toHaveLength(TRUE_PARAMETERS.learners + PLANTED.duplicates.length);
  expect(cell(PLANTED.outOfRange.variable, PLANTED.outOfRange.row)).toBe("55");
  expect(cell("age", PLANTED.textAge.row)).toBe("thirty-four");
  PLANTED.duplicates.forEach((row, i) => expect(cell("learner", TRUE_PARAMETERS.learners + 1 + i)).toBe(cell("learner", row)));
  const items = study.codebook.filter((v) => v.kind === "item").map((v) => v.name);
  expect(items).toHaveLength(26);
  for (const row of PLANTED.straightLiners) expect(new Set(items.map((name) => cell(name, row)))).toEqual(new Set(["4"]));
  expect(items.every((name) => cell(name, PLANTED.nothingAnswered) === null)).toBe(true);
  expect(columns.get("format")!.texts).not.toContain(PLANTED.unusedLevel);
  expect(study.codebook.find((v) => v.name === "format")!.levels.map((l) => l.value)).toContain(PLANTED.unusedLevel);
  const codes = (name: string, code: string) => Array.from({ length: 440 }, (_, i) => cell(name, i + 1)).filter((c) => c === code).length;
  expect(items.reduce((sum, name) => sum + codes(name, "-9"), 0)).toBeGreaterThan(50);
  expect(codes("months_enrolled", "99")).toBeGreaterThan(0);
});

test("the columns are guessed as what they are", () => {
  const guessed = guessCodebook(
    [...columns.values()].map((c) => ({
      name: c.name,
      texts: c.texts,
      numbers: c.states.filter((s) => s === 0).length,
      words: c.states.filter((s) => s === 2).length,
      wholeNumbers: c.values.every((v, i) => c.states[i] !== 0 || Number.isInteger(v)),
      distinctNumbers: (() => {
        const n = new Set(c.values.filter((_, i) => c.states[i] === 0)).size;
        return n > 50 ? null : n;
      })(),
    })),
  );
  const kind = (name: string) => guessed.find((v) => v.name === name)!.kind;
  expect(["learner", "format", "returning", "age", "SC1", "PB2", "WS6", "oral_exam"].map(kind)).toEqual([
    "code",
    "category",
    "category",
    "number",
    "item",
    "item",
    "item",
    "number",
  ]);
});

test("what is true of Canal Street shows in its data: support strengthens, correcting suppresses, one item is keyed wrongly", () => {
  const steps = results.ladders.willingness;
  if (steps?.status !== "fitted") throw new Error("refused");
  const product = steps.standardized["3"]!["speaking_confidence*tutor_support"] as unknown as { beta: number; p: number };
  expect(product.beta).toBeGreaterThan(0.1);
  expect(product.p).toBeLessThan(0.001);
  const suppressor = results.ladders.correcting;
  if (suppressor?.status !== "fitted") throw new Error("refused");
  const { r } = suppressor.steps["2"]!.correlations.correcting as { r: number };
  const beta = suppressor.standardized["2"]!.correcting as unknown as { beta: number; p: number };
  expect(Math.abs(r)).toBeLessThan(0.1);
  expect(beta.beta).toBeLessThan(-0.1);
  expect(beta.p).toBeLessThan(0.01);
  const anxiety = results.scales.classroom_anxiety;
  if (anxiety?.status !== "scored") throw new Error("refused");
  expect(anxiety.reliability!.items[PLANTED.wronglyKeyed]!.item_total_r).toBeLessThan(-0.3);
  expect(anxiety.reliability!.items[PLANTED.wronglyKeyed]!.alpha_if_dropped).toBeGreaterThan(0.8);
});
