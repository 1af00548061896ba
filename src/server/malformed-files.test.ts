import { readFileSync } from "node:fs";
import { mkdtempSync, readdirSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { Readable } from "node:stream";
import { strToU8, type Zippable, zipSync } from "fflate";
import { ImportFaultError } from "@/files/reading/import-fault";
import { understandFile } from "@/files/reading/understand-file";
import { cellText } from "@/study/model/response-column";
import { type Database, openDatabase } from "./database";
import { beginStudy, importAsStudy } from "./import-responses";
import { responsesRepository } from "./repositories/responses-repository";
import { changes, chunks, columns, datasets, studies } from "./schema";
import { discardUpload, saveUpload } from "./uploads";

jest.setTimeout(60_000);

let db: Database;
let folder: string;
beforeAll(async () => {
  db = openDatabase(":memory:");
  folder = mkdtempSync(path.join(tmpdir(), "beta-step-malformed-"));
  await importAsStudy(db, Readable.from([Buffer.from("a,b\n1,2\n3,4\n")]), { name: "there before.csv", expected: null }, folder);
});
afterAll(() => rmSync(folder, { recursive: true }));

/** The whole database as one text. */
const everything = () =>
  JSON.stringify(
    [studies, changes, datasets, columns, chunks].map((table) => db.select().from(table).all()),
    (_, v: unknown) => (v instanceof Float64Array || v instanceof Uint8Array ? Array.from(v) : v),
  );

const text = (content: string) => strToU8(content);
const bytes = (...parts: (string | number[])[]) => Buffer.concat(parts.map((p) => Buffer.from(p as string)));
const fixture = (name: string) => readFileSync(path.join(process.cwd(), "src/files/reading/fixtures", name));
const packed = (parts: Zippable) => zipSync(parts);
const sheet = (rows: string) => `<worksheet><sheetData>${rows}</sheetData></worksheet>`;
const workbook = (parts: Record<string, string>): Zippable =>
  Object.fromEntries(
    Object.entries({
      "xl/workbook.xml": '<workbook xmlns:r="r"><sheets><sheet name="S" r:id="r1"/></sheets></workbook>',
      "xl/_rels/workbook.xml.rels": '<Relationships><Relationship Id="r1" Target="worksheets/sheet1.xml"/></Relationships>',
      "xl/worksheets/sheet1.xml": sheet(""),
      ...parts,
    }).map(([name, content]) => [name, text(content)]),
  );
const spreadsheet = (rows: string) => `<x><office:spreadsheet>${rows}</office:spreadsheet></x>`;
const cut = (file: Uint8Array, share: number) => file.slice(0, Math.floor(file.length * share));
const bomb = (): Uint8Array =>
  packed(workbook({ "xl/worksheets/sheet1.xml": `${sheet("<row><c><v>1</v></c></row>")}${" ".repeat(120_000_000)}` }));
/** A part that unpacks to more than its entry says. */
function lying(): Uint8Array {
  const file = zipSync(workbook({ "xl/worksheets/sheet1.xml": sheet("<row><c><v>1</v></c></row>".repeat(5000)) }));
  const view = new DataView(file.buffer, file.byteOffset);
  for (let at = 0; at < file.length - 46; at++) {
    if (view.getUint32(at, true) === 0x02014b50 && view.getUint32(at + 24, true) > 100_000) view.setUint32(at + 24, 1000, true);
  }
  return file;
}

const strings = (...list: string[]) => ({ "xl/sharedStrings.xml": `<sst>${list.map((one) => `<si><t>${one}</t></si>`).join("")}</sst>` });
const filling = (rows: number) =>
  `<table:table-row table:number-rows-repeated="15000"><table:table-cell office:value-type="float" office:value="1" table:number-columns-repeated="900"/></table:table-row>`.repeat(
    rows,
  );
const brokenLetters = () => bytes('<worksheet><sheetData><row><c t="str"><v>', [0xc3, 0x28], "</v></c></row></sheetData></worksheet>");
const manySheets = () => {
  const numbers = Array.from({ length: 1500 }, (_, k) => k);
  return packed({
    ...workbook({
      "xl/workbook.xml": `<workbook xmlns:r="r"><sheets>${numbers.map((k) => `<sheet name="S${k}" r:id="r${k}"/>`).join("")}</sheets></workbook>`,
      "xl/_rels/workbook.xml.rels": `<Relationships>${numbers.map((k) => `<Relationship Id="r${k}" Target="worksheets/sheet1.xml"/>`).join("")}</Relationships>`,
    }),
  });
};
/** A part stored unpacked, with one letter changed. */
function tampered(): Uint8Array {
  const file = zipSync(workbook({ "xl/worksheets/sheet1.xml": sheet("<row><c><v>12345</v></c></row>") }), { level: 0 });
  file[Buffer.from(file).indexOf("12345")] = 0x39;
  return file;
}

const REFUSED: [string, () => Uint8Array, RegExp][] = [
  ["an empty file", () => text(""), /empty/],
  ["blank lines only", () => text("\n\r\n  \n"), /empty/],
  ["a header and nothing else", () => text("a,b,c\n"), /no rows/],
  ["NUL bytes in the middle", () => bytes("a,b\n1,2\n3,", [0, 0], "\n"), /zero bytes, first at line 3/],
  ["a picture", () => bytes([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, 0, 0, 0, 13]), /not text|zero bytes/],
  ["a PDF document", () => text("%PDF-1.7\n1 0 obj"), /PDF document/],
  ["an old binary spreadsheet", () => bytes([0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1, 0, 0]), /old binary format/],
  [
    "10,000 columns",
    () => text(`${Array.from({ length: 10_000 }, (_, i) => `v${i}`).join(",")}\n${"1,".repeat(9999)}1\n`),
    /10000 columns; at most 5000/,
  ],
  ["a name of 300 letters", () => text(`${"x".repeat(300)},b\n1,2\n`), /longer than 200/],
  ["a row cut short", () => text("a,b\n1,2\n3\n"), /Row 3 has 1 cell; the header has 2/],
  ["a row too long", () => text("a,b\n1,2,3\n"), /Row 2 has 3 cells/],
  ["a quotation mark never closed", () => text('a,b\n1,"x\n2,y\n'), /never closed/],
  ["a quotation mark in the wrong place", () => text('a,b\n1,"x"y\n'), /quotation mark after the end/],
  ["one endless line", () => text(`a,b\n1,"${"x".repeat(4_200_000)}`), /never closed/],
  [
    "UTF-16 cut in the middle of a letter",
    () =>
      bytes(
        [0xff, 0xfe],
        "a\0,\0b\0\n\0".split("").map((c) => c.charCodeAt(0)),
        [49],
      ),
    /UTF-16|no rows/i,
  ],
  ["a truncated XLSX", () => cut(fixture("answers.xlsx"), 0.6), /damaged or was cut short/],
  ["an XLSX cut in its last bytes", () => cut(fixture("answers.xlsx"), 0.99), /damaged or was cut short/],
  ["a truncated ODS", () => cut(fixture("answers.ods"), 0.5), /damaged or was cut short/],
  ["a packed file of pictures", () => packed({ "a.png": text("x") }), /neither a spreadsheet .* nor a data package/],
  ["a zip bomb", bomb, /unpacks to far more/],
  ["a part larger than it says", lying, /damaged or was cut short/],
  [
    "an XLSX whose sheet is missing",
    () => packed({ ...workbook({}), "xl/worksheets/sheet1.xml": text("") }),
    /not well-formed|no rows|empty/,
  ],
  ["an XLSX without any sheet", () => packed(workbook({ "xl/workbook.xml": "<workbook><sheets/></workbook>" })), /no sheet/],
  ["an XLSX with broken XML", () => packed(workbook({ "xl/worksheets/sheet1.xml": "<worksheet><sheetData><row>" })), /not well-formed XML/],
  [
    "an XLSX with entities that would grow",
    () => packed(workbook({ "xl/worksheets/sheet1.xml": `<!DOCTYPE x [<!ENTITY a "aaaa">]>${sheet("<row><c><v>&a;</v></c></row>")}` })),
    /not well-formed XML/,
  ],
  [
    "an XLSX with a cell beyond the last column",
    () => packed(workbook({ "xl/worksheets/sheet1.xml": sheet('<row r="1"><c r="ZZZZ1"><v>1</v></c></row>') })),
    /beyond column/,
  ],
  ["an empty XLSX sheet", () => packed(workbook({})), /empty/],
  [
    "an ODS that repeats one row a million times",
    () =>
      packed({
        "content.xml": text(
          spreadsheet(
            '<table:table table:name="T"><table:table-row table:number-rows-repeated="1000000"><table:table-cell office:value-type="float" office:value="1"/></table:table-row></table:table>',
          ),
        ),
      }),
    /repeats one row/,
  ],
  [
    "an ODS with a row of a million cells",
    () =>
      packed({
        "content.xml": text(
          spreadsheet(
            '<table:table table:name="T"><table:table-row><table:table-cell office:value-type="float" office:value="1" table:number-columns-repeated="1000000"/></table:table-row></table:table>',
          ),
        ),
      }),
    /more than 16384 cells/,
  ],
  [
    "an ODS that repeats many rows to fill a disk",
    () => packed({ "content.xml": text(spreadsheet(`<table:table table:name="T">${filling(400)}</table:table>`)) }),
    /repeats its rows/,
  ],
  [
    "an ODS whose repeats are no number",
    () =>
      packed({
        "content.xml": text(spreadsheet(`<table:table table:name="T"><table:table-row table:number-rows-repeated="many"/></table:table>`)),
      }),
    /but not how often/,
  ],
  [
    "a cell that names a text the workbook does not hold",
    () =>
      packed(
        workbook({
          "xl/worksheets/sheet1.xml": sheet('<row><c t="s"><v>0</v></c></row><row><c t="s"><v>7</v></c></row>'),
          ...strings("a"),
        }),
      ),
    /does not hold/,
  ],
  ["a part that was changed after it was packed", tampered, /checksum differs/],
  ["letters that are none in a sheet", () => packed({ ...workbook({}), "xl/worksheets/sheet1.xml": brokenLetters() }), /no letters/],
  [
    "1,500,000 shared texts",
    () => packed(workbook({ "xl/sharedStrings.xml": `<sst>${"<si/>".repeat(1_500_000)}</sst>` })),
    /more than 1\s000\s000 different texts/,
  ],
  ["1,500 sheets", manySheets, /more than 1\s000 sheets/],
  [
    "JSON rows with a key each",
    () => text(JSON.stringify(Array.from({ length: 25_000 }, (_, k) => ({ [`k${k}`]: 1 })))),
    /more than 20\s000 different keys/,
  ],
  ["JSON a hundred thousand lists deep", () => text(`[{"a":${"[".repeat(100_000)}${"]".repeat(100_000)}}]`), /lists within lists/],
  ["a column that programs keep for themselves", () => text('[{"__proto__":1,"b":2}]'), /"__proto__".*Name it anew/],
  ["a cell of five million letters", () => text(`a,b\n1,"${"x".repeat(5_000_000)}"\n`), /longer than 4 million letters/],
  [
    "a million and a half different texts",
    () => text(`a\n${Array.from({ length: 1_500_000 }, (_, k) => `t${k}`).join("\n")}\n`),
    /different texts/,
  ],
  ["JSON that breaks off", () => text('[{"a":1},{"a":'), /not valid JSON/],
  ["JSON without rows", () => text('{"a":1,"b":{"c":2}}'), /no list of rows/],
  ["JSON rows of two kinds", () => text('[{"a":1},[2]]'), /Some rows .* objects .* lists/],
  ["an empty JSON list", () => text("[]"), /no rows/],
  [
    "a data package whose table lies outside",
    () => packed({ "datapackage.json": text('{"resources":[{"name":"x","path":"../../etc/passwd"}]}') }),
    /outside it/,
  ],
  [
    "a data package whose table is missing",
    () => packed({ "datapackage.json": text('{"resources":[{"name":"x","path":"x.csv"}]}') }),
    /lacks its part "x.csv"/,
  ],
  [
    "a data package that describes nothing",
    () => packed({ "datapackage.json": text('{"resources":[]}') }),
    /does not describe a data package/,
  ],
  ["a description that came without its table", () => text('{"resources":[{"name":"x","path":"x.csv"}]}'), /did not come with it/],
];

test("forty kinds of malformed files and more are tried", () => expect(REFUSED.length).toBeGreaterThanOrEqual(40));

test.each(REFUSED)("%s: a message, and an unchanged database", async (_, make, words) => {
  const before = everything();
  const error: unknown = await importAsStudy(db, Readable.from([Buffer.from(make())]), { name: "file", expected: null }, folder).catch(
    (e: unknown) => e,
  );
  expect(error).toBeInstanceOf(ImportFaultError);
  const { message } = error as ImportFaultError;
  expect(message).toMatch(words);
  expect(message).not.toMatch(/\n\s+at |Error:|undefined|\/tmp/);
  expect(everything()).toBe(before);
  expect(readdirSync(path.join(folder, "uploads"))).toEqual([]);
});

const odsRow = (word: string) =>
  `<table:table-row><table:table-cell office:value-type="string"><text:p>${word}</text:p></table:table-cell></table:table-row>`;
const VIGNETTES = [1, 2, 1, 2].map((k) => `${"a story ".repeat(200)}${k},${k}`);

describe("odd files that are read, with what a person should know", () => {
  test.each<[string, Uint8Array, RegExp, Record<string, (string | null)[]>]>([
    [
      "cells like formulas",
      text("a,b\n=SUM(A1:A9),1\n@cmd,2\n+1,3\n"),
      /look like formulas stay words.*\(a\)/,
      { a: ["=SUM(A1:A9)", "@cmd", "1"], b: ["1", "2", "3"] },
    ],
    ["headers differing in case", text("Age,sex,age\n1,2,3\n"), /became age_2/, { Age: ["1"], sex: ["2"], age_2: ["3"] }],
    ["the same header twice", text("q1,q1\n1,2\n"), /twice.*became q1_2/, { q1: ["1"], q1_2: ["2"] }],
    ["a header without a name", text("a,,c\n1,2,3\n"), /Column 2 has no name.*column_2/, { a: ["1"], column_2: ["2"], c: ["3"] }],
    ["a name with a mark that turns the direction", text("a\u202eb,c\n1,2\n"), /cannot be used.*became a b/, { "a b": ["1"], c: ["2"] }],
    ["mixed line ends", text("a,b\r\n1,2\n3,4\r5,6\n"), /end in different ways/, { a: ["1", "3", "5"], b: ["2", "4", "6"] }],
    ["line ends of one kind, as in Windows", text("a,b\r\n1,2\r\n"), /^$/, { a: ["1"], b: ["2"] }],
    ["a column of 1e400", text("a\n1e400\n-1e999\n3\n"), /too large to be held exactly stay words in a/, { a: ["1e400", "-1e999", "3"] }],
    [
      "dates in three formats",
      text("d\n2024-03-01\n25.12.2023\n12/31/2022\n"),
      /more than one way in d/,
      { d: ["2024-03-01", "25.12.2023", "12/31/2022"] },
    ],
    ["right-to-left text", text("שם,b\nשלום,1\nمرحبا,2\n"), /right to left is kept/, { שם: ["שלום", "مرحبا"], b: ["1", "2"] }],
    [
      "numbers that are styled as dates but are none",
      packed(
        workbook({
          "xl/styles.xml": '<styleSheet><cellXfs><xf numFmtId="0"/><xf numFmtId="14"/></cellXfs></styleSheet>',
          "xl/worksheets/sheet1.xml": sheet(
            '<row><c t="str"><v>a</v></c></row><row><c s="1"><v>-5</v></c></row><row><c s="1"><v>4000000000</v></c></row><row><c s="1"><v>45292</v></c></row>',
          ),
        }),
      ),
      /Dates are kept/,
      { a: ["-5", "4000000000", "2024-01-01"] },
    ],
    [
      "spreadsheet elements with a prefix",
      packed(
        workbook({
          "xl/workbook.xml": '<x:workbook xmlns:q="r"><x:sheets><x:sheet name="S" q:id="r1"/></x:sheets></x:workbook>',
          "xl/sharedStrings.xml": "<x:sst><x:si><x:t>a</x:t></x:si></x:sst>",
          "xl/worksheets/sheet1.xml":
            '<x:worksheet><x:sheetData><x:row><x:c t="s"><x:v>0</x:v></x:c></x:row><x:row><x:c><x:v>7</x:v></x:c></x:row></x:sheetData></x:worksheet>',
        }),
      ),
      /^$/,
      { a: ["7"] },
    ],
    [
      "a number format of 100,000 brackets",
      packed(
        workbook({
          "xl/styles.xml": `<styleSheet><numFmts><numFmt numFmtId="200" formatCode="${"[".repeat(100_000)}"/></numFmts><cellXfs><xf numFmtId="200"/></cellXfs></styleSheet>`,
          "xl/worksheets/sheet1.xml": sheet('<row><c t="str"><v>a</v></c></row><row><c><v>3</v></c></row>'),
        }),
      ),
      /^$/,
      { a: ["3"] },
    ],
    [
      "a table within a cell",
      packed({
        "content.xml": text(
          spreadsheet(
            `<table:table table:name="T">${odsRow("a")}<table:table-row><table:table-cell office:value-type="float" office:value="4">${'<table:table table:name="N">'.repeat(900)}${"</table:table>".repeat(900)}</table:table-cell></table:table-row></table:table>`,
          ),
        ),
      }),
      /^$/,
      { a: ["4"] },
    ],
    ["vignettes of more than a thousand letters", text(`v,b\n${VIGNETTES.join("\n")}\n`), /^$/, { b: ["1", "2", "1", "2"] }],
    ["Latin-1", bytes("a,b\nJos", [0xe9], ",1\n"), /^$/, { a: ["José"], b: ["1"] }],
  ])("%s", async (_, content, notice, expected) => {
    const upload = await saveUpload(Readable.from([Buffer.from(content)]), { name: "odd.csv", expected: null }, folder);
    const { options, notices } = await understandFile(upload.path);
    expect(notices.join(" ")).toMatch(notice);
    const { study } = await beginStudy(db, upload, options);
    await discardUpload(upload.id, folder);
    const list = responsesRepository(db).columns(study.responses!.dataset, Object.keys(expected));
    expect(Object.fromEntries(list.map((c) => [c.name, Array.from(c.values, (_, row) => cellText(c, row))]))).toEqual(expected);
  });
});
