import { readFileSync } from "node:fs";
import path from "node:path";
import { strToU8, zipSync, type Zippable } from "fflate";

/** A file made to do harm, or damaged. */
export interface HostileFile {
  name: string;
  make: () => Uint8Array;
}

const text = (content: string) => strToU8(content);
const fixture = (name: string) => readFileSync(path.join(process.cwd(), "src/files/reading/fixtures", name));
const numbers = (count: number) => Array.from({ length: count }, (_, k) => k);

const sheet = (rows: string) => `<worksheet><sheetData>${rows}</sheetData></worksheet>`;
function workbook(parts: Record<string, string>, level: 0 | 6 = 6): Uint8Array {
  const all: Record<string, string> = {
    "xl/workbook.xml": '<workbook xmlns:r="r"><sheets><sheet name="S" r:id="r1"/></sheets></workbook>',
    "xl/_rels/workbook.xml.rels": '<Relationships><Relationship Id="r1" Target="worksheets/sheet1.xml"/></Relationships>',
    "xl/worksheets/sheet1.xml": sheet('<row><c t="str"><v>a</v></c></row><row><c><v>1</v></c></row>'),
    ...parts,
  };
  return zipSync(Object.fromEntries(Object.entries(all).map(([name, content]) => [name, text(content)])) as Zippable, { level });
}
const sheets = (count: number) => ({
  "xl/workbook.xml": `<workbook xmlns:r="r"><sheets>${numbers(count)
    .map((k) => `<sheet name="S${k}" r:id="r${k}"/>`)
    .join("")}</sheets></workbook>`,
  "xl/_rels/workbook.xml.rels": `<Relationships>${numbers(count)
    .map((k) => `<Relationship Id="r${k}" Target="worksheets/sheet1.xml"/>`)
    .join("")}</Relationships>`,
});
const ods = (table: string) => zipSync({ "content.xml": text(`<x><office:spreadsheet>${table}</office:spreadsheet></x>`) });
const odsTable = (rows: string) => ods(`<table:table table:name="T">${rows}</table:table>`);
const filling = (repeat: number, cells: number) =>
  `<table:table-row table:number-rows-repeated="${repeat}"><table:table-cell office:value-type="float" office:value="1" table:number-columns-repeated="${cells}"/></table:table-row>`;
const json = (value: unknown) => text(JSON.stringify(value));

/** The named cases, each with what it was once found to do. */
const NAMED: HostileFile[] = [
  { name: "JSON rows with a key each, 3,000", make: () => json(numbers(3000).map((k) => ({ [`k${k}`]: k }))) },
  { name: "JSON rows with a key each, 12,000", make: () => json(numbers(12_000).map((k) => ({ [`k${k}`]: k }))) },
  { name: "JSON rows with a key each, 100,000", make: () => json(numbers(100_000).map((k) => ({ [`k${k}`]: k }))) },
  { name: "JSON, 50 MB of one row", make: () => json([{ a: "x".repeat(50_000_000) }]) },
  { name: "JSON, 55 MB of lists", make: () => text(`[${"[1,2],".repeat(9_000_000)}[1,2]]`) },
  { name: "JSON, 55 MB of empty objects", make: () => text(`[${"{},".repeat(18_000_000)}{}]`) },
  { name: "JSON a million lists deep", make: () => text(`[{"a":${"[".repeat(1_000_000)}${"]".repeat(1_000_000)}}]`) },
  { name: "JSON with __proto__", make: () => text('[{"__proto__":{"x":1},"b":2}]') },
  {
    name: "a number format of 100,000 brackets",
    make: () =>
      workbook({
        "xl/styles.xml": `<styleSheet><numFmts><numFmt numFmtId="200" formatCode="${"[".repeat(100_000)}"/></numFmts><cellXfs><xf numFmtId="200"/></cellXfs></styleSheet>`,
      }),
  },
  { name: "100,000 sheets", make: () => workbook(sheets(100_000)) },
  {
    name: "900 sheets with large shared texts",
    make: () => workbook({ ...sheets(900), "xl/sharedStrings.xml": `<sst>${"<si><t>abcdefgh</t></si>".repeat(400_000)}</sst>` }),
  },
  { name: "9 million empty shared texts", make: () => workbook({ "xl/sharedStrings.xml": `<sst>${"<si/>".repeat(9_000_000)}</sst>` }) },
  {
    name: "a shared text of 100 million letters",
    make: () => workbook({ "xl/sharedStrings.xml": `<sst><si><t>${"x".repeat(100_000_000)}</t></si></sst>` }),
  },
  {
    name: "2,000 nested tables",
    make: () =>
      odsTable(
        `${"<table:table-row><table:table-cell><table:table>".repeat(2000)}${"</table:table></table:table-cell></table:table-row>".repeat(2000)}`,
      ),
  },
  { name: "50,000 tables", make: () => ods('<table:table table:name="T"/>'.repeat(50_000)) },
  { name: "a repeated row that fills a disk", make: () => odsTable(filling(15_000, 900).repeat(1500)) },
  { name: "one row repeated a million times", make: () => odsTable(filling(1_000_000, 1)) },
  { name: "a million repeated cells", make: () => odsTable(filling(1, 1_000_000)) },
  {
    name: "3 million different texts",
    make: () =>
      text(
        `a\n${numbers(3_000_000)
          .map((k) => `t${k}`)
          .join("\n")}\n`,
      ),
  },
  { name: "a cell of 50 MB", make: () => text(`a,b\n1,"${"x".repeat(50_000_000)}"\n`) },
  { name: "a quotation mark never closed, 80 MB", make: () => text(`a,b\n1,"${"x\n".repeat(40_000_000)}`) },
  {
    name: "20,000 columns",
    make: () =>
      text(
        `${numbers(20_000)
          .map((k) => `v${k}`)
          .join(",")}\n${numbers(20_000).join(",")}\n`,
      ),
  },
  {
    name: "200,000 columns",
    make: () =>
      text(
        `${numbers(200_000)
          .map((k) => `v${k}`)
          .join(",")}\n${numbers(200_000).join(",")}\n`,
      ),
  },
  { name: "one line of 100 MB", make: () => text("x".repeat(100_000_000)) },
  { name: "a hundred million delimiters", make: () => text(",".repeat(100_000_000)) },
  { name: "zero bytes, 50 MB", make: () => new Uint8Array(50_000_000) },
  { name: "a zip that unpacks to a gigabyte", make: () => zipSync({ "content.xml": new Uint8Array(300_000_000).fill(32) }) },
  { name: "20,000 parts in a zip", make: () => zipSync(Object.fromEntries(numbers(20_000).map((k) => [`p${k}`, new Uint8Array(1)]))) },
  { name: "a shared text out of range", make: () => workbook({ "xl/worksheets/sheet1.xml": sheet('<row><c t="s"><v>9</v></c></row>') }) },
  {
    name: "a date of year 300,000,000",
    make: () =>
      workbook({
        "xl/styles.xml": '<styleSheet><cellXfs><xf numFmtId="14"/></cellXfs></styleSheet>',
        "xl/worksheets/sheet1.xml": sheet('<row><c t="str"><v>a</v></c></row><row><c s="0"><v>1e11</v></c></row>'),
      }),
  },
  {
    name: "a row number of a billion",
    make: () =>
      workbook({ "xl/worksheets/sheet1.xml": sheet('<row r="1"><c><v>1</v></c></row><row r="1000000000"><c><v>1</v></c></row>') }),
  },
  {
    name: "a hundred thousand attributes",
    make: () =>
      workbook({
        "xl/worksheets/sheet1.xml": sheet(
          `<row ${numbers(100_000)
            .map((k) => `a${k}="1"`)
            .join(" ")}/>`,
        ),
      }),
  },
  { name: "XML a million tags deep", make: () => workbook({ "xl/worksheets/sheet1.xml": "<a>".repeat(1_000_000) }) },
  {
    name: "a data package of itself",
    make: () => zipSync({ "datapackage.json": text('{"resources":[{"name":"x","path":"datapackage.json"}]}') }),
  },
  {
    name: "a data package with 100,000 tables",
    make: () =>
      zipSync({
        "datapackage.json": json({ resources: numbers(100_000).map((k) => ({ name: `t${k}`, path: "x.csv" })) }),
        "x.csv": text("a\n1\n"),
      }),
  },
];

/** Good files with a piece missing or bytes changed, always the same. */
function damaged(): HostileFile[] {
  let seed = 7;
  const random = (below: number) => (seed = (seed * 48_271) % 2_147_483_647) % below;
  return ["answers.xlsx", "answers.ods"].flatMap((name) => {
    const whole = fixture(name);
    const cuts = numbers(20).map((k): HostileFile => ({
      name: `${name} cut after ${k * 5} %`,
      make: () => whole.subarray(0, Math.floor((whole.length * k) / 20)),
    }));
    const flips = numbers(40).map((k): HostileFile => {
      const places = numbers(1 + (k % 4)).map(() => ({ at: random(whole.length), bits: 1 + random(255) }));
      const make = () => {
        const bytes = Uint8Array.from(whole);
        for (const { at, bits } of places) bytes[at]! ^= bits;
        return bytes;
      };
      return { name: `${name} with changed bytes ${k + 1}`, make };
    });
    return [...cuts, ...flips];
  });
}

/** All of them: 150 and more. */
export function hostileFiles(): HostileFile[] {
  return [...NAMED, ...damaged()];
}
