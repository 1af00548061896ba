import fc from "fast-check";
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
import { formatNumber, formatShare } from "../format-number";
import type { PrintTable } from "../print-table";
import { plain, SYMBOL, words } from "../words";
import { Block } from "../../model/block";
import { begun, filled, notInText } from "./begin";
import { Standing } from "./block-stand";
import { liveNumbers } from "./live-numbers";
import { type Manuscript, manuscriptOf, type PrintedBlock } from "./manuscript";
import { namesIn, NumberFinder, proseWords } from "./numbers-in";
import { bareSource, type Source } from "./source";

const N = 90;
const stream = randomStream(3);
const draw = () => Array.from({ length: N }, () => stream.normal());
const [x, m, e] = [draw(), draw(), draw()];
const columns = {
  x: cells(N, (i) => x[i]!),
  m: cells(N, (i) => m[i]!),
  age: cells(N, (i) => 10 + (i % 40)),
  ...Object.fromEntries(["c1", "c2", "c3"].map((name) => [name, cells(N, (i) => Math.round(3 + x[i]!))])),
};
const base = deskOf({ y: cells(N, (i) => x[i]! - 0.5 * m[i]! + e[i]!), ...columns });
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
const title = (name: string, level?: string | null) => titleOf(study, name, level);
const source = (own: Partial<Source> = {}): Source => ({
  ...bareSource(study, title),
  scales: new Map([["calm", analyseScale(study, study.scales[0]!, desk.responses)]]),
  ladders: new Map([["l", analyseLadder(study, ladder, desk.responses)]]),
  stands: new Map(analyseTheory({ theory: study.theories[0]!, hypotheses: study.hypotheses, ladders: study.ladders }, desk).stands.map((s) => [s.id, s])), // prettier-ignore
  ...own,
});
const composed = (own: Partial<Source> = {}): Manuscript => manuscriptOf(study.name, begun(source(own)), source(own));
const text = (of: Manuscript, key: string) => of.blocks.flatMap((b: PrintedBlock) => (b.kind === "paragraph" && b.key === `paragraph_${key}` ? [b.sentences.map(plain).join(" ")] : [])).join(" "); // prettier-ignore

test("sections stand in the order of an article, tables count themselves, and each is named before it stands", () => {
  const made = composed();
  expect(made.blocks.flatMap((b) => (b.kind === "heading" ? [b.text] : b.kind === "table" ? [`Table ${b.number}`] : b.kind === "figure" ? [`Figure ${b.number}`] : []))).toEqual([
    "Method", "Participants", "Measures", "Analysis", "Results", "L", "Table 1", "Hypotheses", "Figure 1", "Table 2", "References",
  ]); // prettier-ignore
  expect(text(made, "ladder_l")).toContain("Table 1 holds all coefficients");
  expect(text(made, "participants")).toMatch(
    /^There were 90 respondents\. Of them \d+ were left out \(Under age: Only adults were asked\)\./,
  );
  expect(text(made, "measures")).toMatch(/^Calm is the mean of 3 items .*Cronbach's α = /);
  // works of the procedures that were used, and no others
  const works = made.blocks.flatMap((b) => (b.kind === "paragraph" && b.hanging ? [plain(b.sentences[0]!).split(",")[0]] : []));
  expect(works).toEqual(["Cohen", "Cronbach", "Feldt", "Holm"]);
  // and each of them is cited somewhere
  const said = made.blocks.flatMap((b) => (b.kind === "paragraph" && !b.hanging ? b.sentences.map(plain) : [])).join(" ");
  for (const work of works) expect(said).toMatch(new RegExp(`\\([^)]*${work}[^)]*\\d{4}`));
});

test("the analysis says what was done and nothing that was not", () => {
  const plainly = text(composed(), "analysis");
  expect(plainly).toContain("One hierarchical regression was fitted by least squares with classical standard errors");
  expect(plainly).toContain("corrected over their family by Holm’s procedure (Holm, 1979)");
  expect(plainly).not.toMatch(/product|bootstrap/);
  const drawn = Ladder.parse({ ...ladder, steps: [...ladder.steps, { id: "s9", terms: [{ components: ["x", "m"] }] }], intervals: { by: "bca", replicates: 2000 } }); // prettier-ignore
  const other = { ...study, ladders: [drawn], hypotheses: [] };
  const said = text(composed({ study: other, ladders: new Map([["l", analyseLadder(study, drawn, desk.responses)]]), stands: new Map() }), "analysis"); // prettier-ignore
  expect(said).toContain("Variables that are part of a product were mean-centred first (Aiken & West, 1991)");
  expect(said).toContain("2\u202f000 bootstrap replicates (bias-corrected and accelerated, seed 1) (Efron, 1987)");
  expect(said).not.toContain("Hypotheses");
});

test("intervals of another kind never stand in place of those that are still being drawn", () => {
  const drawn = Ladder.parse({ ...ladder, intervals: { by: "bca", replicates: 2000 } });
  const made = composed({ study: { ...study, ladders: [drawn] }, ladders: new Map([["l", analyseLadder(study, drawn, desk.responses)]]) });
  const table = made.blocks.find((b) => b.kind === "table")!.table;
  for (const row of table.sections.flatMap((s) => s.rows)) expect(row.map(plain).join(" ")).not.toContain("[");
});

test("numbers of another shape of a ladder, and of one that cannot be fitted, are left out", () => {
  const longer = Ladder.parse({ ...ladder, steps: [...ladder.steps, { id: "s9", terms: [] }] });
  expect(composed({ study: { ...study, ladders: [longer] } }).blocks.some((b) => b.key === "table_coefficients_l")).toBe(false);
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
  const letters = (of: string) => of.replace(/\u00a0/g, " ").replace(/<[^>]+>|[\\*]/g, "").replace(/&lt;/g, "<").replace(/&amp;/g, "&"); // prettier-ignore
  for (const block of made.blocks) {
    const first = block.kind === "heading" ? block.text : block.kind === "table" ? plain(block.table.title) : block.kind === "figure" ? plain(block.title) : plain(block.sentences[0]!); // prettier-ignore
    expect(letters(html)).toContain(first.replace(/\*/g, ""));
    expect(letters(markdown)).toContain(first.replace(/\*/g, ""));
  }
  expect(html).toContain("<i>p</i>");
  expect(html).toContain('<a href="#table_coefficients_l">Table 1</a>');
});

test("a table's cells as they are printed: what stands over columns, head, then each section's heading and its rows", () => {
  const table = composed().blocks.flatMap((b) => (b.kind === "table" ? [b.table] : []))[0]!;
  const rows = printedRows(table);
  expect(rows.map((row) => row.length)).toEqual([6, 1, 6, 1, 6, 6]);
  expect(rows[1]![0]).toMatch(/^Step 1\. R² = /);
  const read = printTableCsv(table).replace("\uFEFF", "").trim().split("\r\n");
  expect(read).toHaveLength(rows.length);
  expect(tableToPaste(table, 4)).toContain("<b>Table 4</b>");
  const beside = filled(Block.parse({ id: "b", what: { kind: "table", of: { kind: "coefficients", ids: ["l"] }, options: { form: "beside", metric: "beta", spread: "neither", tests: "stars" } } }).what, source()); // prettier-ignore
  if (beside?.kind !== "table") throw new Error("no table");
  const printed = printedRows(beside.shown as typeof table);
  expect(printed.slice(0, 2)).toEqual([["", "Step 1", "Step 2"], ["Term", "β", "β"]]); // prettier-ignore
  // a term that comes in later has an empty cell before, and the rows below tell each step
  expect(printed.map((row) => row[0])).toEqual(["", "Term", "x", "m", "N", "R²", "Adjusted R²", "ΔR²", "F of the change", "df"]);
  expect(printed[3]![1]).toBe("");
  expect(printed[2]![1]).toMatch(/^\.\d\d\*{3}$/);
});

test("numbers of a sentence are found, and digits of a name are letters", () => {
  const finder = new NumberFinder(["Wave 2", "Age 30+", ...namesIn(study)]);
  const sentence = words`Wave 2 adds 21.2 % (${SYMBOL.p} < .001), b = −0.0033 [−1\u202f204.5, 3 × 10⁻⁷], F(1, 424), Age 30+ and SC3.`;
  const pieces = finder.pieces(sentence);
  expect(pieces.flatMap((p) => (p.number === null ? [] : [p.words]))).toEqual(["21.2", ".001", "−0.0033", "−1\u202f204.5", "3 × 10⁻⁷", "1", "424"]); // prettier-ignore
  expect(pieces.map((p) => plain(p.words)).join("")).toBe(plain(sentence));
});

const shownBy = (what: Block["what"]) => (what.kind === "table" ? what.shown! : null) as PrintTable;

describe("a block that is out of date", () => {
  // the slope of x turned round, and m stronger
  const other = deskOf({ y: cells(N, (i) => -2 * x[i]! - m[i]! + e[i]!), ...columns });
  const turned = source({ ladders: new Map([["l", analyseLadder(study, ladder, other.responses)]]) });
  const block = (what: object) => Block.parse({ id: "b", what });

  test("a table names each cell that changed, and brought up to date it is current", () => {
    const table = begun(source()).find(({ id }) => id === "table_coefficients_l")!;
    expect(new Standing(source(), false).of(table)).toEqual({ state: "current" });
    const stand = new Standing(turned, false).of(table);
    if (stand.state !== "changed") throw new Error(stand.state);
    const now = printedRows(shownBy(stand.fresh));
    const then = printedRows(shownBy(table.what));
    const beta = stand.changes.find(({ where }) => where === "Step 1: x, β")!;
    expect(beta.from).toBe(then[2]![4]);
    expect([now[2]![4], now[4]![4]]).toContain(beta.to);
    expect(new Standing(turned, false).of({ ...table, what: stand.fresh })).toEqual({ state: "current" });
  });

  test("a person's words stay around their numbers, which follow; where the sentence turned round, it is said", () => {
    const paragraph = begun(source()).find(({ id }) => id === "paragraph_ladder_l")!;
    const what = paragraph.what as Extract<Block["what"], { kind: "paragraph" }>;
    const standing = new Standing(source(), false);
    const prose = standing.prose(what);
    const said = (of: typeof prose) => plain(proseWords(of[0]!));
    expect(said(prose)).toContain("y was higher with x");
    // the person adds words of their own before it
    const own = [["As we had hoped: ", ...prose[0]!]];
    const mine = { ...paragraph, what: { ...what, own } };
    expect(standing.of(mine)).toEqual({ state: "current" });
    const stand = new Standing(turned, false).of(mine);
    if (stand.state !== "changed") throw new Error(stand.state);
    expect(stand.wording.some(({ was, is }) => was.includes("higher with x") && !is.includes("higher with x"))).toBe(true);
    const fresh = (stand.fresh as typeof what).own!;
    expect(said(fresh)).toContain("As we had hoped: ");
    const R2 = liveNumbers(turned).find(({ key }) => /\|R2$/.test(key))!;
    expect(said(fresh)).toContain(`R² = ${plain(R2.words)}`);
  });

  test("a number that was put into a composed paragraph by its name follows it, also while the sentences stay", () => {
    const paragraph = begun(source()).find(({ id }) => id === "paragraph_participants")!;
    const what = paragraph.what as Extract<Block["what"], { kind: "paragraph" }>;
    const R2 = liveNumbers(source()).find(({ key }) => /\|R2$/.test(key))!;
    const own = [[...new Standing(source(), false).prose(what)[0]!, { as: "number" as const, of: R2.key, shown: R2.words as string }]];
    const mine = { ...paragraph, what: { ...what, own } };
    expect(new Standing(source(), false).of(mine)).toEqual({ state: "current" });
    const stand = new Standing(turned, false).of(mine);
    if (stand.state !== "changed") throw new Error(stand.state);
    expect(stand.wording).toEqual([]);
    const now = plain(liveNumbers(turned).find(({ key }) => key === R2.key)!.words);
    expect(stand.changes).toEqual([{ where: R2.name, from: plain(R2.words), to: now }]);
    expect((stand.fresh as typeof what).own![0]!.at(-1)).toEqual({ as: "number", of: R2.key, shown: now });
  });

  test("a number in a text of one's own follows the study, and what is gone keeps what it said", () => {
    const n = liveNumbers(source()).find(({ key }) => /step\|[^|]+\|beta\|m$/.test(key))!;
    const own = block({ kind: "prose", text: [["It was ", { as: "number", of: n.key, shown: n.words }, "."]] });
    const stand = new Standing(turned, false).of(own);
    if (stand.state !== "changed") throw new Error(stand.state);
    expect(stand.changes).toEqual([{ where: n.name, from: plain(n.words), to: plain(liveNumbers(turned).find(({ key }) => key === n.key)!.words) }]); // prettier-ignore
    const without = { ...source(), study: { ...study, ladders: [] }, ladders: new Map() };
    expect(new Standing(without, false).of(own)).toEqual({ state: "gone" });
    expect(new Standing(without, true).of(own)).toEqual({ state: "waiting" });
    expect(new Standing(without, false).of(begun(source()).find(({ id }) => id === "table_coefficients_l")!)).toEqual({ state: "gone" });
  });
});

test("law: however large or small a number is, it stands in a sentence as one number", () => {
  const finder = new NumberFinder([]);
  fc.assert(
    fc.property(fc.double({ min: -9.99, max: 9.99, noNaN: true }), fc.integer({ min: -15, max: 15 }), (digits, power) => {
      for (const said of [formatNumber(digits * 10 ** power), formatShare(digits * 10 ** power), formatNumber(digits * 10 ** power, 6)])
        expect(finder.numbers([`It was ${said} at most.`])).toEqual([said]);
    }),
  );
});

test("a sentence that leads to a table which was taken out is not said, and what is in the study and not in the text is offered", () => {
  const blocks = begun(source());
  const without = blocks.filter(({ id }) => !id.endsWith("coefficients_l"));
  const made = manuscriptOf("S", without, source());
  expect(text(made, "ladder_l")).not.toMatch(/Table|undefined/);
  expect(notInText(source(), blocks)).toEqual([]);
  const offered = notInText(source(), blocks.filter(({ what }) => !("of" in what && what.of.ids[0] === "l"))); // prettier-ignore
  expect(offered.map(({ words: said }) => said)).toEqual(["the paragraph on L", "the table of coefficients of L", "the figure of the hypotheses on L"]); // prettier-ignore
});

test("two outcomes stand in one table: a term that only one holds has empty cells in the other, and what they share is said once", () => {
  const other = Ladder.parse({ ...ladderOf(["m"]), id: "k", name: "K", outcome: "m", steps: [{ id: "only", terms: [{ components: ["x"] }, { components: ["age"] }] }] }); // prettier-ignore
  const both = { ...study, ladders: [ladder, other] };
  const of = source({ study: both, ladders: new Map([ladder, other].map((l) => [l.id, analyseLadder(both, l, desk.responses)])) });
  const made = filled(Block.parse({ id: "b", what: { kind: "table", of: { kind: "coefficients", ids: ["l", "k"] }, options: { metric: "beta", spread: "interval", tests: "stars" } } }).what, of); // prettier-ignore
  const rows = printedRows(shownBy(made!));
  expect(rows[0]).toEqual(["", "y", "y", "m", "m"]);
  expect(rows[1]!.map((cell) => cell.replace(/\u00a0/g, " "))).toEqual(["Term", "β", "95 % CI", "β", "95 % CI"]);
  const cells = new Map(rows.map((row) => [row[0], row.slice(1)]));
  expect(cells.get("m")!.slice(2)).toEqual(["", ""]);
  expect(cells.get("age")!.slice(0, 2)).toEqual(["", ""]);
  for (const [at, id] of [
    [0, "l"],
    [2, "k"],
  ] as const) {
    // prettier-ignore
    const found = of.ladders.get(id)!;
    if (found.status !== "fitted") throw new Error(found.status);
    const x = found.fit.steps.at(-1)!.coefficients.find((c) => c.column === "x")!;
    expect(Number(cells.get("x")![at]!.replace("−", "-").replace(/\*/g, ""))).toBeCloseTo(x.beta!.estimate, 2);
    expect(cells.get("N")![at]).toBe(String(found.fit.n));
  }
  expect(plain(shownBy(made!).note).match(/Least squares with classical standard errors/g)).toHaveLength(1);
});
