import fc from "fast-check";
import Papa from "papaparse";
import { analyseLadder } from "@/study/analyse/analyse-ladder";
import { analyseStructure } from "@/study/analyse/analyse-structure";
import { Ladder } from "@/study/model/ladder";
import { plain } from "@/study/report/words";
import { Study } from "@/study/model/study";
import { Variable } from "@/study/model/variable";
import { StudyColumns } from "@/study/prepare/study-columns";
import { ladderTable } from "@/study/report/ladder/ladder-table";
import { columnOf, sourceOf } from "@/study/test-support/columns";
import { codebookCsv, readCodebookTable } from "./codebook/codebook-table";
import { writePackage } from "./codebook/write-package";
import { decodeColumns, encodeColumns } from "./column-bytes";
import { ladderCsv } from "./ladder-csv";
import { loadingsCsv } from "./loadings-csv";
import { guarded, unguarded } from "./spreadsheet-guard";
import { tableAsHtml } from "./table-html";
import { readBytes } from "./test-support/read-bytes";

test("law: columns survive the wire, whatever they hold and whatever stands beside them", () => {
  const cell = fc.oneof(
    fc.integer().map(String),
    fc.constant(""),
    fc.string({ minLength: 1 }).filter((s) => Number.isNaN(Number(s))),
  );
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.string(), fc.array(cell, { maxLength: 20 })), { maxLength: 5 }), (list) => {
      const columns = list.map(([name, cells], k) => ({ ...columnOf(name, cells), decimal: ([".", ","] as const)[k % 2]! }));
      expect(decodeColumns(encodeColumns(columns).buffer)).toEqual(columns);
    }),
  );
  const odd = { name: "x", values: Float64Array.from([NaN, -0, 5e-324]), states: Uint8Array.from([1, 0, 0]), texts: [] };
  expect(Object.is(decodeColumns(encodeColumns([odd]).buffer)[0]!.values[1], -0)).toBe(true);
});

test("bytes cut short are refused", () => {
  const bytes = encodeColumns([columnOf("x", ["1", "2"])]);
  expect(() => decodeColumns(bytes.buffer.slice(0, bytes.length - 8))).toThrow(/typed array length/);
});

const cells = (f: (i: number) => number) => Array.from({ length: 20 }, (_, i) => String(f(i)));
const study = Study.parse({
  format: "beta-step-study",
  version: 1,
  name: "s",
  codebook: [{ name: "y", label: "Y <b>" }, { name: "=x", label: "=x" }, { name: "z" }],
});
const ladder = Ladder.parse({
  id: "l",
  name: "L",
  outcome: "y",
  steps: [
    { id: "a", name: 'one, "two"', terms: [{ components: ["=x"] }] },
    { id: "b", terms: [{ components: ["z"] }] },
  ],
});
const result = analyseLadder(
  study,
  ladder,
  sourceOf({ y: cells((i) => Math.sin(i) + i), "=x": cells((i) => i), z: cells((i) => (i * 7) % 5) }),
);
if (result.status !== "fitted") throw new Error("refused");

test("the CSV table has a row a coefficient at full precision and sets formulas off", () => {
  const [head, ...rows] = Papa.parse<string[]>(ladderCsv(ladder, result.fit).replace(/^\uFEFF/, ""), { skipEmptyLines: true }).data;
  expect(rows).toHaveLength(5);
  const row = Object.fromEntries(head!.map((name, i) => [name, rows[1]![i]]));
  const step = result.fit.steps[0]!;
  expect(row.step_name).toBe('one, "two"');
  expect(row.term).toBe("'=x");
  expect(Number(row.b)).toBe(step.coefficients[0]!.b.estimate);
  expect(Number(row.delta_R2)).toBe(step.change.change);
  expect(row.errors).toBe("classical");
  expect(rows[0]![head!.indexOf("beta")]).toBe(""); // the intercept has none
  expect(row.intervals).toBe("normal");
  const drawn = { ...ladder, seed: 7, intervals: { by: "bca" as const, replicates: 2000 } };
  expect(ladderCsv(drawn, result.fit)).toContain("bca, 2000 replicates, seed 7");
  expect(ladderTable(drawn, result.fit, result.sample, (name) => name).note).toMatch(
    /Intervals by BCa bootstrap, 2.000 replicates, seed 7\.$/,
  );
});

test("the HTML table escapes what people wrote, italicizes symbols and has scopes", () => {
  const html = tableAsHtml(
    ladderTable(ladder, result.fit, result.sample, (name) => study.codebook.find((v) => v.name === name)!.label || name),
  );
  expect(html).toContain("Y &lt;b&gt;");
  expect(html).not.toContain("Y <b>");
  expect(html).toContain('<th scope="col"><i>SE</i></th>');
  expect(html).toMatch(/Δ<i>R<\/i>²\u00a0=\u00a0\.\d{3}, <i>F<\/i>\(1, 18\)/);
  expect(html.match(/<tr>/g)).toHaveLength(1 + 3);
});

test("a step that is switched off is in neither table; the others keep their numbers", () => {
  const off = { ...ladder, steps: [{ ...ladder.steps[0]!, off: true }, ladder.steps[1]!] };
  const { data } = Papa.parse<string[]>(ladderCsv(off, result.fit).replace(/^\uFEFF/, ""), { skipEmptyLines: true });
  expect(new Set(data.slice(1).map((row) => row[0]))).toEqual(new Set(["2"]));
  const at = (name: string) => Number(data[1]![data[0]!.indexOf(name)]);
  const { change, changeInterval, model } = result.fit.steps[1]!;
  expect([at("delta_R2_lower"), at("delta_R2_upper"), at("adjusted_R2")]).toEqual([
    changeInterval!.lower,
    changeInterval!.upper,
    model.adjustedR2,
  ]);
  expect(at("delta_R2_lower")).toBeLessThan(change.change);
  expect(ladderTable(off, result.fit, result.sample, (name) => name).sections.map((s) => plain(s.heading).slice(0, 6))).toEqual(["Step 2"]);
});

test("loadings as CSV: a row an item, every kind of loading at full precision, a name like a formula set off", () => {
  const names = ["=p", "q", "r", "s", "t", "u"];
  const wave = (i: number, k: number) => Math.sin(i * 1.3 + (k < 3 ? 0 : 2)) + 0.4 * Math.sin(i * (7 + k) + k * k);
  const source = sourceOf(Object.fromEntries(names.map((name, k) => [name, Array.from({ length: 50 }, (_, i) => String(wave(i, k)))])));
  const spec = { parts: names.map((name) => ({ name, reversed: false })), respondents: null, sets: 20, seed: 1, factors: 2 };
  const columns = new StudyColumns({ codebook: names.map((name) => Variable.parse({ name })), scales: [] }, source);
  const explored = analyseStructure({ ...spec, extraction: "minimum-residual", rotation: "promax" }, columns);
  if (explored.status !== "explored") throw new Error(explored.refusal.code);
  const { solution } = explored.analysis;
  const { data } = Papa.parse<string[]>(loadingsCsv(explored.analysis, solution!).replace("\uFEFF", ""), { skipEmptyLines: true });
  expect(data[0]!.slice(0, 5)).toEqual(["item", "pattern_1", "pattern_2", "structure_1", "structure_2"]);
  expect(data.slice(1).map((row) => row[0])).toEqual(["'=p", "q", "r", "s", "t", "u"]);
  data.slice(1).forEach((row, i) => {
    expect(row.slice(1, 3).map(Number)).toEqual(Array.from(solution!.rotated.pattern.subarray(2 * i, 2 * i + 2)));
    expect(row.slice(3, 5).map(Number)).toEqual(Array.from(solution!.structure.subarray(2 * i, 2 * i + 2)));
    expect(Number(row[data[0]!.indexOf("uniqueness")])).toBe(solution!.uniqueness[i]);
  });
});

describe("law: what is set off for spreadsheets comes back as it was", () => {
  const cells = ["=1+1", "@x", "+49 30", "-", "'=x", "''=x", "'plain", "plain", "\tx", "", "=", "'", "-9", "+1.5", "-1e3", "-9=refused"];
  test.each(cells)("%j", (cell) => {
    expect(unguarded(guarded(cell))).toBe(cell);
    expect(/^[=+\-@\t\r]/.test(guarded(cell)) && Number.isNaN(Number(guarded(cell)))).toBe(false); // no spreadsheet carries it out
  });

  test("in the codebook as a table, and in a data package", async () => {
    const plain = { short: "", kind: "text", range: null, levels: [], missing: [], unit: "" };
    const codebook = [
      { ...plain, name: "a", label: "=cmd()", note: "'+quoted" },
      { ...plain, name: "b", label: "@home", note: "-" },
    ].map((v) => Variable.parse(v));
    const table = codebookCsv(codebook);
    expect(table).not.toMatch(/(^|,)"?[=@]/m);
    const bare = codebook.map((v) => ({ ...v, label: "", note: "" }));
    expect(readCodebookTable(table, bare).variables).toEqual(codebook);
    const texts = ["=1+1", "'=1", "x"];
    const column = (name: string) => ({ name, values: Float64Array.from([0, 1, 2]), states: new Uint8Array(3).fill(2), texts });
    const bytes = writePackage(
      "T",
      codebook,
      codebook.map(({ name }) => column(name)),
    );
    const read = await readBytes(bytes);
    expect([...read.columns.values()].map((c) => c.texts)).toEqual([texts, texts]);
  });
});
