import { readFileSync } from "node:fs";
import path from "node:path";
import { strToU8, zipSync } from "fflate";
import { cellText, type ResponseColumn } from "@/study/model/response-column";
import { readBytes } from "../test-support/read-bytes";
import { GivenOptions } from "./understanding";
import { dateOf, percentOf } from "./xlsx-rows";

const cells = (column: ResponseColumn | undefined) => Array.from(column!.values, (_, row) => cellText(column!, row));
const table = ({ columns }: { columns: Map<string, ResponseColumn> }) =>
  Object.fromEntries([...columns].map(([name, column]) => [name, cells(column)]));
const fixture = (name: string) => readFileSync(path.join(__dirname, "fixtures", name));

describe("spreadsheets written by other programs", () => {
  test("XLSX: the sheet and header are found below a title; dates, times and percentages are understood", async () => {
    const read = await readBytes(fixture("answers.xlsx"));
    expect(table(read)).toEqual({
      learner: ["L1", "L2", "L3"],
      age: ["34", null, "51"],
      started: ["2024-03-01", "2023-12-31T18:30:00", "1999-02-28"],
      attendance: ["45.5", "100", "0"],
      format: ["online", "in person", "online"],
      remark: ["well — ünïcode & <tags>", null, "=not a formula"],
      score: ["12.5", "-9", "text"],
      told: ["TRUE", "FALSE", null],
      sum: [null, null, null],
    });
    const { understanding: u } = read;
    expect([u.options.sheet, u.options.headerRow, u.sheets]).toEqual(["Answers", 3, ["Notes", "Answers"]]);
    expect(u.notices.join(" ")).toMatch(/Dates .* started.*Percentages .* attendance.*1 cell holds a formula that was never calculated/);
  });

  test("ODS: repeated rows and columns, kept blanks, and the empty end of the sheet", async () => {
    const read = await readBytes(fixture("answers.ods"));
    expect(table(read)).toEqual({
      learner: ["L1", "L2", "L3", "L3"],
      age: ["34", null, null, null],
      started: ["2024-03-01", "2023-12-31T18:30:00", null, null],
      attendance: ["45.5", "100", null, null],
      remark: ["two  blanks", null, null, null],
      told: ["TRUE", "FALSE", null, null],
    });
  });

  test.each<[number, boolean, string]>([
    [1, false, "1900-01-01"],
    [59, false, "1900-02-28"],
    [61, false, "1900-03-01"],
    [45352, false, "2024-03-01"],
    [45291.770833333336, false, "2023-12-31T18:30:00"],
    [0.75, false, "18:00:00"],
    [43890, true, "2024-03-01"],
  ])("day number %p (from 1904: %p) is %s", (serial, from1904, iso) => expect(dateOf(serial, from1904)).toBe(iso));

  test("percentages keep the digits they were written with", () =>
    expect([0.07, 0.455, 1.1, 0.29, -0.005].map(percentOf)).toEqual([7, 45.5, 110, 29, -0.5]));
});

describe("encodings", () => {
  const text = "name;größe\nÄnne;1,5\nJosé;2,5\n";
  const expected = { name: ["Änne", "José"], größe: ["1.5", "2.5"] };
  const latin = Uint8Array.from(text, (c) => c.charCodeAt(0));
  const utf16 = (little: boolean, mark: boolean) => {
    const bytes = new Uint8Array((text.length + (mark ? 1 : 0)) * 2);
    const view = new DataView(bytes.buffer);
    [...(mark ? "\uFEFF" : ""), ...text].forEach((c, i) => view.setUint16(2 * i, c.charCodeAt(0), little));
    return bytes;
  };
  test.each<[string, Uint8Array, string]>([
    ["UTF-8", new TextEncoder().encode(text), "utf-8"],
    ["UTF-8 with its mark", new TextEncoder().encode(`\uFEFF${text}`), "utf-8"],
    ["Latin-1", latin, "windows-1252"],
    ["UTF-16, low byte first, marked", utf16(true, true), "utf-16le"],
    ["UTF-16, high byte first, marked", utf16(false, true), "utf-16be"],
    ["UTF-16 without a mark", utf16(true, false), "utf-16le"],
  ])("%s is found, with the reason, and read", async (_, bytes, encoding) => {
    for (const size of [null, 3]) {
      const read = await readBytes(bytes, { size });
      expect(table(read)).toEqual(expected);
      expect(read.understanding.options.encoding).toBe(encoding);
      expect(read.understanding.understood.find((u) => u.what === "encoding")!.why).not.toBe("");
    }
  });
  test("a wrong finding can be corrected", async () => {
    const read = await readBytes(latin, { given: { encoding: "utf-16le" } }).catch((e: unknown) => e);
    expect(read).not.toMatchObject({ columns: expected });
    expect(table(await readBytes(latin, { given: { encoding: "windows-1252" } }))).toEqual(expected);
  });
});

describe("corrections of what was found", () => {
  test("what is not said stays to be found, also as the request carries it", () => {
    expect(GivenOptions.parse({})).toEqual({});
    expect(GivenOptions.parse({ names: ["a"], headerRow: null })).toEqual({ names: ["a"], headerRow: null });
    expect(GivenOptions.safeParse({ format: "xlsx" }).success).toBe(false);
  });

  test("delimiter, decimal mark, header and names", async () => {
    const text = "1,5;2\n3,5;4\n";
    expect(table(await readBytes(text))).toEqual({ v1: ["1.5", "3.5"], v2: ["2", "4"] });
    expect(table(await readBytes(text, { given: { decimal: "." } }))).toEqual({ v1: ["1,5", "3,5"], v2: ["2", "4"] });
    expect(table(await readBytes(text, { given: { delimiter: ",", headerRow: 1, names: ["a", "b"] } })).b).toEqual(["5;4"]);
    expect(table(await readBytes(text, { given: { names: ["x", "y"], headerRow: null } }))).toEqual({ x: ["1.5", "3.5"], y: ["2", "4"] });
  });
  test("names at fault are mended and said; names that a person gives go first", async () => {
    const text = "age,,Age,age\n1,2,3,4\n";
    const read = await readBytes(text);
    expect(Object.keys(table(read))).toEqual(["age", "column_2", "Age_2", "age_3"]);
    expect(read.understanding.notices.join(" ")).toMatch(/Column 2 has no name.*column_2.*Age_2, age_3/);
    const names = ["w", "x", "y", "z"];
    expect(Object.keys(table(await readBytes(text, { given: { names } })))).toEqual(names);
    await expect(readBytes(text, { given: { names: ["w", "x", "y", "x"] } })).rejects.toMatchObject({ code: "repeated-name" });
  });
  test("short rows are refused until they may be filled; empty cells too many are none", async () => {
    await expect(readBytes("a,b\n1\n")).rejects.toMatchObject({ code: "short-row" });
    expect(table(await readBytes("a,b\n1\n2,3,,\n", { given: { shortRows: "fill" } }))).toEqual({ a: ["1", "2"], b: [null, "3"] });
  });
});

describe("JSON rows", () => {
  const expected = { a: ["1", "2"], b: ["x", null], c: [null, "TRUE"] };
  test.each<[string, string]>([
    ["a list of objects", '[{"a":1,"b":"x"},{"a":2,"c":true}]'],
    ["one object a line", '{"a":1,"b":"x"}\n{"a":2,"c":true}\n'],
    ["lists under a list of names", '[["a","b","c"],[1,"x",null],[2,"",true]]'],
    ["an object around the list", '{"made":"up","rows":[{"a":1,"b":"x"},{"a":2,"c":true}]}'],
  ])("%s", async (_, text) => expect(table(await readBytes(text))).toEqual(expected));
});

test("a data package brings types, labels, missing values and categories with its table", async () => {
  const descriptor = {
    name: "classes",
    title: "Evening classes",
    resources: [
      {
        name: "answers",
        path: "data/answers.csv",
        dialect: { delimiter: ";" },
        schema: {
          missingValues: ["", "-9"],
          fields: [
            { name: "mood", type: "integer", title: "How are you?", constraints: { minimum: 1, maximum: 5 } },
            {
              name: "format",
              type: "string",
              categories: [
                { value: "o", label: "online" },
                { value: "p", label: "in person" },
              ],
            },
            { name: "when", type: "date" },
            { name: "hours", type: "number", decimalChar: ",", missingValues: ["99"] },
          ],
        },
      },
    ],
  };
  const zip = zipSync({
    "pack/datapackage.json": strToU8(JSON.stringify(descriptor)),
    "pack/data/answers.csv": strToU8("mood;format;when;hours\n1;o;2024-03-01;1,5\n-9;p;;99\n"),
  });
  const read = await readBytes(zip);
  expect(table(read)).toEqual({ mood: ["1", "-9"], format: ["o", "p"], when: ["2024-03-01", null], hours: ["1.5", "99"] });
  expect(read.understanding.columns.map((c) => [c.name, c.kind, c.label])).toEqual([
    ["mood", "number", "How are you?"],
    ["format", "category", ""],
    ["when", "date", ""],
    ["hours", "number", ""],
  ]);
  const inline = { resources: [{ name: "rows", data: [{ a: 1 }, { a: 2 }] }] };
  expect(table(await readBytes(JSON.stringify(inline)))).toEqual({ a: ["1", "2"] });
});
