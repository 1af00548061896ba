import { manuscriptHtml } from "@/files/manuscript-html";
import { printedRows, printTableCsv } from "@/files/print-table-csv";
import { tableToPaste } from "@/files/table-html";
import { manuscriptMarkdown } from "@/files/manuscript-markdown";
import { randomStream } from "@/core/random/random-stream";
import { analyseLadder } from "../../analyse/analyse-ladder";
import { analyseScale } from "../../analyse/analyse-scale";
import { analyseTheory } from "../../analyse/analyse-theory";
import { Hypothesis } from "../../model/hypothesis";
import { Ladder } from "../../model/ladder";
import { RespondentFilter } from "../../model/respondent-filter";
import { Scale } from "../../model/scale";
import { Study, titleOf } from "../../model/study";
import { Theory } from "../../model/theory";
import { StudyColumns } from "../../prepare/study-columns";
import { cells, deskOf, ladderOf } from "../../test-support/desk";
import { plain } from "../words";
import { compose, type Composed } from "./compose";
import type { Block, Manuscript } from "./manuscript";

const N = 90;
const stream = randomStream(3);
const draw = () => Array.from({ length: N }, () => stream.normal());
const [x, m, e] = [draw(), draw(), draw()];
const base = deskOf({
  y: cells(N, (i) => x[i]! - 0.5 * m[i]! + e[i]!),
  x: cells(N, (i) => x[i]!),
  m: cells(N, (i) => m[i]!),
  age: cells(N, (i) => 10 + (i % 40)),
  ...Object.fromEntries(["c1", "c2", "c3"].map((name) => [name, cells(N, (i) => Math.round(3 + x[i]!))])),
});
const adults = RespondentFilter.parse({ id: "adults", name: "Under age", reason: "Only adults were asked.", everywhere: true, conditions: [{ kind: "between", variable: "age", low: 18, high: null }] }); // prettier-ignore
const study = Study.parse({
  ...base.study,
  name: "A <study> & *more*",
  responses: { dataset: "d", fileName: "f.csv", rows: N },
  filters: [adults],
  scales: [Scale.parse({ id: "calm", name: "Calm", items: ["c1", "c2", "c3"].map((variable) => ({ variable })) })],
  ladders: [ladderOf(["x"], ["m"])],
  hypotheses: [Hypothesis.parse({ id: "h", ladder: "l", rests: { on: "coefficient", column: [{ variable: "m" }] }, direction: "-" })],
  theories: [Theory.parse({ id: "theory", holm: true })],
});
const desk = { ...base, study, columns: new StudyColumns(study, base.responses) };
const ladder = study.ladders[0]!;
const composed = (own: Partial<Composed> = {}): Manuscript =>
  compose({
    study,
    title: (name, level) => titleOf(study, name, level),
    scales: new Map([["calm", analyseScale(study, study.scales[0]!, desk.responses)]]),
    look: null,
    ladders: new Map([["l", analyseLadder(study, ladder, desk.responses)]]),
    replicates: new Map(),
    stands: new Map(analyseTheory({ theory: study.theories[0]!, hypotheses: study.hypotheses, ladders: study.ladders }, desk).stands.map((s) => [s.id, s])), // prettier-ignore
    ...own,
  });
const text = (of: Manuscript, key: string) => of.blocks.flatMap((b: Block) => (b.kind === "paragraph" && b.key === `p ${key}` ? [b.sentences.map(plain).join(" ")] : [])).join(" "); // prettier-ignore

test("sections stand in the order of an article, tables count themselves, and each is named before it stands", () => {
  const made = composed();
  expect(made.blocks.flatMap((b) => (b.kind === "heading" ? [b.text] : b.kind === "table" ? [`Table ${b.number}`] : []))).toEqual([
    "Method", "Participants", "Measures", "Analysis", "Results", "L", "Table 1", "Hypotheses", "Table 2",
  ]); // prettier-ignore
  expect(text(made, "ladder l")).toContain("Table 1 holds all coefficients");
  expect(text(made, "participants")).toMatch(
    /^There were 90 respondents\. Of them \d+ were left out \(Under age: Only adults were asked\)\.$/,
  );
  expect(text(made, "measures")).toMatch(/^Calm is the mean of 3 items .*Cronbach's α = /);
});

test("the analysis says what was done and nothing that was not", () => {
  const plainly = text(composed(), "analysis");
  expect(plainly).toContain("One hierarchical regression was fitted by least squares with classical standard errors");
  expect(plainly).toContain("corrected over their family by Holm’s procedure");
  expect(plainly).not.toMatch(/product|bootstrap/);
  const drawn = Ladder.parse({ ...ladder, steps: [...ladder.steps, { id: "s9", terms: [{ components: ["x", "m"] }] }], intervals: { by: "bca", replicates: 2000 } }); // prettier-ignore
  const other = { ...study, ladders: [drawn], hypotheses: [] };
  const said = text(composed({ study: other, ladders: new Map([["l", analyseLadder(study, drawn, desk.responses)]]), stands: new Map() }), "analysis"); // prettier-ignore
  expect(said).toContain("Variables that are part of a product were mean-centred first");
  expect(said).toContain("2\u202f000 bootstrap replicates (bias-corrected and accelerated, seed 1)");
  expect(said).not.toContain("Hypotheses");
});

test("intervals of another kind never stand in place of those that are still being drawn", () => {
  const drawn = Ladder.parse({ ...ladder, intervals: { by: "bca", replicates: 2000 } });
  const made = composed({ study: { ...study, ladders: [drawn] }, ladders: new Map([["l", analyseLadder(study, drawn, desk.responses)]]) });
  const table = made.blocks.find((b) => b.kind === "table")!;
  for (const row of (table as Extract<Block, { kind: "table" }>).table.sections.flatMap((s) => s.rows)) expect(plain(row[3]!)).not.toContain("["); // prettier-ignore
});

test("numbers of another shape of a ladder, and of one that cannot be fitted, are left out", () => {
  const longer = Ladder.parse({ ...ladder, steps: [...ladder.steps, { id: "s9", terms: [] }] });
  expect(composed({ study: { ...study, ladders: [longer] } }).blocks.some((b) => b.key === "t ladder l")).toBe(false);
  const empty = composed({ ladders: new Map(), scales: new Map(), stands: new Map() });
  expect(text(empty, "analysis")).toBe("No model has been fitted yet.");
  expect(empty.blocks.filter((b) => b.kind === "table")).toEqual([]);
});

test("every file prints every block, and no letter of a name is taken for a mark of the file", () => {
  const made = composed();
  const html = manuscriptHtml(made);
  expect(html).toContain("<h1>A &lt;study&gt; &amp; *more*</h1>");
  expect(html).not.toContain("<study>");
  const markdown = manuscriptMarkdown(made);
  expect(markdown).toMatch(/^# A \\<study\\> & \\\*more\\\*$/m);
  for (const block of made.blocks) {
    const first = block.kind === "heading" ? block.text : block.kind === "table" ? plain(block.table.title) : plain(block.sentences[0]!);
    const letters = (of: string) =>
      of
        .replace(/<[^>]+>|[\\*]/g, "")
        .replace(/&lt;/g, "<")
        .replace(/&amp;/g, "&");
    expect(letters(html)).toContain(first);
    expect(letters(markdown)).toContain(first);
  }
  expect(html).toContain("<i>p</i>");
  expect(markdown).toContain("*p*");
});

test("a table's cells as they are printed: head, then each section's heading and its rows", () => {
  const table = composed().blocks.flatMap((b) => (b.kind === "table" ? [b.table] : []))[0]!;
  const rows = printedRows(table);
  expect(rows.map((row) => row.length)).toEqual([8, 1, 8, 1, 8, 8]);
  expect(rows[0]![0]).toBe("Term");
  expect(rows[1]![0]).toMatch(/^Step 1\. R² = /);
  const read = printTableCsv(table).replace("\uFEFF", "").trim().split("\r\n");
  expect(read).toHaveLength(rows.length);
  // a cell with a comma of its own is one cell
  expect(read[2]).toMatch(/"\[.*, .*\]"/);
  expect(tableToPaste(table, 4)).toContain("<b>Table 4</b>");
});
