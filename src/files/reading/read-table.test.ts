import fc from "fast-check";
import { cellText, type ResponseColumn } from "@/study/model/response-column";
import { cellNumber } from "@/study/model/cell-number";
import { CHUNK_ROWS } from "../column-builder";
import { readBytes } from "../test-support/read-bytes";
import { ImportFaultError } from "./import-fault";

const read = (content: string | Uint8Array, size = 7) => readBytes(content, { size });
const cells = (column: ResponseColumn) => Array.from(column.values, (_, row) => cellText(column, row));

describe("what a file may look like", () => {
  test.each([
    ["comma", "a,b\n1,x\n2,\n"],
    ["semicolon", "a;b\n1;x\n2;\n"],
    ["tab", "a\tb\n1\tx\n2\t\n"],
    ["line ends of Windows", "a,b\r\n1,x\r\n2,\r\n"],
    ["no last line end", "a,b\n1,x\n2,"],
    ["a byte order mark", "\uFEFFa,b\n1,x\n2,\n"],
    ["empty lines", "a,b\n\n1,x\n\n2,\n\n"],
    ["blanks around", " a , b \n 1 , x \n2, \n"],
  ])("%s", async (_, content) => {
    const { columns, data } = await read(content);
    expect([...columns.keys()]).toEqual(["a", "b"]);
    expect([cells(columns.get("a")!), cells(columns.get("b")!)]).toEqual([
      ["1", "2"],
      ["x", null],
    ]);
    expect(data.rows).toBe(2);
  });

  test("quoted cells hold delimiters, quotes, line ends and other scripts", async () => {
    const { columns } = await read('name,remark\n1,"a, ""b""\nc"\n2,"日本語 – ñ"\n');
    expect(cells(columns.get("remark")!)).toEqual(['a, "b"\nc', "日本語 – ñ"]);
  });

  test("a decimal comma where the delimiter allows it", async () => {
    const { columns, data } = await read("x;y\n1,5;2\n-0,25;3\n");
    expect(data.options).toMatchObject({ delimiter: ";", decimal: "," });
    expect(Array.from(columns.get("x")!.values)).toEqual([1.5, -0.25]);
    expect((await read('x,y\n"1,5",2\n1.5,3\n')).data.options.decimal).toBe(".");
  });

  test("one column is a file too", async () => {
    expect((await read("x\n1\n2\n")).columns.get("x")!.values).toEqual(Float64Array.from([1, 2]));
  });

  test("what was seen of a column is counted", async () => {
    const { data } = await read("x\n1\n5\n\n5\nnone\n2.5\n".replace("\n\n", '\n""\n'));
    expect(data.columns[0]!.summary).toMatchObject({ numbers: 4, empties: 1, words: 1, low: 1, high: 5, wholeNumbers: false });
    expect(data.columns[0]!.summary.numberCounts).toEqual([
      { value: 1, count: 1 },
      { value: 2.5, count: 1 },
      { value: 5, count: 2 },
    ]);
  });
});

test.each<[string, number | null]>([
  ["12", 12],
  ["-9", -9],
  ["+3.5", 3.5],
  [".5", 0.5],
  ["1e3", 1000],
  ["-0", 0],
  ["007", null],
  ["1e400", null],
  ["9007199254740993", null],
  ["0x10", null],
  ["Infinity", null],
  ["NaN", null],
  ["1 000", null],
  ["12a", null],
  ["0", 0],
  ["0.30", 0.3],
  ["", null],
])("the cell %p is the number %p", (cell, value) => expect(cellNumber(cell, ".")).toBe(value));

describe("what is refused, with the line and without a respondent's answer", () => {
  const bytes = (...parts: (string | number[])[]) => Buffer.concat(parts.map((p) => Buffer.from(p as string)));
  test.each<[string, string | Uint8Array, string, RegExp]>([
    ["a row too short", "a,b\n1,2\nsecret\n", "short-row", /Row 3 has 1 cell; the header has 2/],
    ["a row too long, after a cell of two lines", 'a,b\n"x\ny",2\n1,2,secret\n', "long-row", /Row 3 has 3 cells/],
    ["no rows", "a,b\n", "no-rows", /no rows/],
    ["nothing", "", "empty-file", /empty/],
    ["only blank lines", "\n \n", "empty-file", /empty/],
    ["a zero byte", bytes("a,b\n1,2\n3,", [0], "\n"), "not-text", /line 3/],
    ["a damaged spreadsheet", bytes([0x50, 0x4b, 3, 4], "secret"), "damaged-file", /damaged/],
    ["a quote never closed", 'a,b\n1,"secret\n2,3\n', "open-quote", /never closed/],
    ["a quote inside a cell", 'a,b\n1,"sec"ret"\n', "stray-quote", /quotation mark/],
    ["a very long name", `${"x".repeat(300)},b\n1,2\n`, "long-name", /longer than 200/],
    ["thousands of columns", `${Array.from({ length: 6000 }, (_, i) => `v${i}`).join(",")}\n`, "too-many-columns", /6000 columns/],
  ])("%s", async (_, content, code, words) => {
    const error: unknown = await read(content).catch((e: unknown) => e);
    expect(error).toBeInstanceOf(ImportFaultError);
    const fault = error as ImportFaultError;
    expect(fault.code).toBe(code);
    expect(fault.message).toMatch(words);
    expect(fault.message).not.toMatch(/secret/);
  });
});

test("a fault far down the file is found with its line, like one at its head", async () => {
  const rows = 120_000; // well past the part the format is found from
  const good = Buffer.from(`a,b\n${"1,some words\n".repeat(rows)}`);
  await expect(read(Buffer.concat([good, Buffer.from("1\n")]), 65_536)).rejects.toMatchObject({ code: "short-row", line: rows + 2 });
});

test("law: cells go in and come out the same, however the file is cut and quoted", () => {
  const cell = fc.oneof(
    fc.integer().map(String),
    fc.constantFrom("", "x", "a,b", '"', "two\nlines", "ß", "007"),
    fc.double({ noNaN: true, noDefaultInfinity: true, min: -1e6, max: 1e6 }).map(String),
  );
  return fc.assert(
    fc.asyncProperty(
      fc.array(fc.tuple(cell, cell), { minLength: 1, maxLength: 12 }),
      fc.integer({ min: 1, max: 9 }),
      async (rows, size) => {
        const quote = (text: string) => `"${text.replaceAll('"', '""')}"`;
        const given = { headerRow: 1, wordingRow: null, leftOutRows: [], totals: "keep" as const }; // whatever the rows look like
        const { columns } = await readBytes(["a,b", ...rows.map((row) => row.map(quote).join(","))].join("\n"), { size, given });
        const normal = (text: string) => (text.trim() === "" ? null : (cellNumber(text.trim(), ".")?.toString() ?? text.trim()));
        expect(cells(columns.get("a")!)).toEqual(rows.map(([a]) => normal(a)));
        expect(cells(columns.get("b")!)).toEqual(rows.map(([, b]) => normal(b)));
      },
    ),
    { numRuns: 60 },
  );
});

test("columns longer than a chunk come in pieces and join again", async () => {
  const rows = CHUNK_ROWS + 3;
  const { columns, data } = await read(`x\n${Array.from({ length: rows }, (_, i) => i).join("\n")}\n`, 65_536);
  expect(data.rows).toBe(rows);
  expect([columns.get("x")!.values[CHUNK_ROWS - 1], columns.get("x")!.values[rows - 1]]).toEqual([CHUNK_ROWS - 1, rows - 1]);
});
