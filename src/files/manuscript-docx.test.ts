import { strFromU8, unzipSync } from "fflate";
import mammoth from "mammoth";
import { mkdtemp, rm, writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import path from "node:path";
import type { Manuscript } from "@/study/report/document/manuscript";
import type { PrintTable } from "@/study/report/print-table";
import { DELTA_R2, R2, SYMBOL, words } from "@/study/report/words";
import { manuscriptDocx, type PrintedPicture } from "./manuscript-docx";
import { openTable } from "./reading/open-table";
import { TableOptions } from "./reading/table-options";
import { numberIn, printTableXlsx } from "./print-table-xlsx";

const table: PrintTable = {
  title: words`Regression of “a < b” (${SYMBOL.N} = 430)`,
  over: [{ words: "", columns: 1 }, { words: "Step 1", columns: 2 }], // prettier-ignore
  head: ["Term", [SYMBOL.b], [SYMBOL.p]],
  sections: [
    { heading: "", rows: [["Age", "−0.0033", ".540"], ["=SUM(A1)", "1\u202f204.50", "< .001"]] }, // prettier-ignore
    { heading: words`${R2} = .022`, rows: [[DELTA_R2, ".022", ""]] },
  ],
  note: words`${SYMBOL.p} is two-sided.`,
};
const manuscript: Manuscript = {
  title: "A study & more",
  blocks: [
    { key: "h", kind: "heading", level: 2, text: "Results" },
    { key: "p", kind: "paragraph", sentences: [words`It was so, ${SYMBOL.F}(1, 2) = 3, x${{ text: "2", as: "superscript" }}.`, [{ text: "Table 1", as: "reference", to: "t" }, " holds it."]] }, // prettier-ignore
    { key: "t", kind: "table", number: 1, table },
    { key: "f", kind: "figure", number: 1, title: "A picture", note: "n = 3", alt: "low: 1 to 2", drawing: null },
  ],
};
/** A picture of one white point. */
const png = Uint8Array.from(atob("iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mP8/x8AAwMCAO+ip1sAAAAASUVORK5CYII="), (c) => c.charCodeAt(0)); // prettier-ignore
const picture: PrintedPicture = { svg: '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 470 300"/>', png, width: 470, height: 300 };
const docx = () => manuscriptDocx(manuscript, new Map([["f", picture]]), { page: "Letter", language: "de-DE" });
const part = (of: Uint8Array, name: string) => strFromU8(unzipSync(of)[name]!);

test("another program reads the same document: headings, italics, a real table with its cells, where a reference leads", async () => {
  const { value: html, messages } = await mammoth.convertToHtml({ buffer: Buffer.from(await docx()) });
  expect(messages.filter(({ type }) => type === "error")).toEqual([]);
  expect(html).toContain("<h1>Results</h1>");
  expect(html).toContain("It was so, <em>F</em>(1, 2)\u00a0=\u00a03, x<sup>2</sup>.");
  const cells = [...html.matchAll(/<t[dh][^>]*>(.*?)<\/t[dh]>/g)].map(([, cell]) => cell!.replace(/<[^>]+>/g, "").replace(/\u00a0/g, " "));
  expect(cells).toEqual(["", "Step 1", "Term", "b", "p", "Age", "−0.0033", ".540", "=SUM(A1)", "1\u202f204.50", "&lt; .001", "R² = .022", "ΔR²", ".022", ""]); // prettier-ignore
  expect(html).toMatch(/Table 1.* holds it\./);
  expect(html).toContain("Note.");
});

test("three rules, repeated headings, page, language, numbers that count themselves, and a picture behind the drawing", async () => {
  const file = await docx();
  const xml = part(file, "word/document.xml");
  expect(xml.match(/<w:tblHeader\/>/g)).toHaveLength(2);
  const rows = xml.match(/<w:tr[ >].*?<\/w:tr>/gs)!;
  const bordered = (row: string, side: string) => new RegExp(`<w:${side} w:val="single"`).test(row);
  // above the head, below it, below the last row; and the fine one below what stands over columns
  expect(rows.map((row) => [bordered(row, "top"), bordered(row, "bottom")])).toEqual([[true, true], [false, true], [false, false], [false, false], [false, false], [false, true]]); // prettier-ignore
  expect(xml).not.toMatch(/<w:(left|right|insideV) w:val="single"/);
  expect(xml).toContain('<w:pgSz w:w="12240" w:h="15840"');
  expect(part(file, "word/styles.xml")).toContain('<w:lang w:val="de-DE"/>');
  expect(xml).toContain("SEQ Table \\* ARABIC");
  expect(xml).toMatch(/w:bookmarkStart w:name="b_t"/);
  expect(xml).toContain("REF b_t \\h");
  expect(xml).toContain('descr="A picture. low: 1 to 2"');
  const names = Object.keys(unzipSync(file));
  expect(names.filter((name) => /media\/.*\.(svg|png)$/.test(name))).toHaveLength(2);
  expect(xml).not.toMatch(/[^−\w.]-\.?\d/); // a minus is never a hyphen
});

test("a table as the house itself reads a spreadsheet: numbers are numbers, a formula in a name is letters", async () => {
  const folder = await mkdtemp(path.join(tmpdir(), "beta-step-xlsx-"));
  try {
    const file = path.join(folder, "table.xlsx");
    await writeFile(file, Buffer.from(await (await printTableXlsx(table, "Table 1")).arrayBuffer()));
    const opened = await openTable(file);
    const rows: string[][] = [];
    for await (const batch of opened.rows(TableOptions.parse({ format: "xlsx" }))) rows.push(...batch.rows.map((row) => row.map(String)));
    await opened.close();
    expect(rows[0]![0]).toBe("Table 1. Regression of “a < b” (N = 430)");
    expect(rows.find((row) => row[0] === "Age")!.slice(1, 3)).toEqual(["-0.0033", "0.54"]);
    expect(rows.find((row) => /SUM/.test(row[0]!))).toEqual(["'=SUM(A1)", "1204.5", "< .001"]);
  } finally {
    await rm(folder, { recursive: true });
  }
  expect(numberIn("–")).toBeNull();
  expect(numberIn("[.1, .2]")).toBeNull();
});
