import { readBytes } from "../test-support/read-bytes";
import { isTotalsRow } from "./header-rows";

const ANSWERS = Array.from({ length: 8 }, (_, i) => `${1 + (i % 5)},${20 + i},${i % 2 ? "online" : "hybrid"}`).join("\n");
const read = async (head: string, tail = "") => {
  const { understanding, data } = await readBytes(`${head}\n${ANSWERS}\n${tail}`);
  const { headerRow, wordingRow, leftOutRows, width } = data.options;
  return { headerRow, wordingRow, leftOutRows, width, rows: data.rows, names: data.columns.map((c) => c.name), wordings: data.columns.map((c) => c.wording), notices: understanding.notices.join(" ") }; // prettier-ignore
};

describe("rows above the answers, by what they look like", () => {
  test("names, wordings, notes of a program", async () => {
    const found = await read('q1,age,format\nI look forward to it,How old are you?,Class format\n"{""ImportId"":""QID1""}","{""ImportId"":""QID2""}","{""ImportId"":""QID3""}"'); // prettier-ignore
    expect(found).toMatchObject({ headerRow: 1, wordingRow: 2, leftOutRows: [3], rows: 8, names: ["q1", "age", "format"] });
    expect(found.wordings[1]).toBe("How old are you?");
    expect(found.notices).toContain("Row 3 is left out: it holds notes of a program.");
  });
  test("wordings first, then names; a title above both", async () => {
    const found = await read("Evening classes\n\nI look forward to it,How old are you?,Class format you take\nq1,age,format");
    expect(found).toMatchObject({ headerRow: 4, wordingRow: 3, rows: 8, names: ["q1", "age", "format"] });
    expect(found.notices).toContain("Row 1 stands above the table and is left out.");
  });
  test("wordings alone give names, and stay as wordings", async () => {
    const found = await read("I look forward to the next evening,How old are you?,Which class format did you take?");
    expect(found).toMatchObject({ headerRow: 1, wordingRow: 1, rows: 8, names: ["look_forward", "old", "class_format"] });
  });
  test("one whole question among names is a wording, and gets a name", async () => {
    const question =
      "How did your tutor take the mistakes that you made while you spoke before the group, all in all, over the last four weeks of the course?";
    const found = await read(`q1,"${question}",format`);
    expect(found).toMatchObject({ headerRow: 1, wordingRow: 1, rows: 8, names: ["q1", expect.stringMatching(/^[a-z_]{3,30}$/), "format"] });
    expect(found.wordings[1]).toBe(question);
  });
  test("a first respondent is no header, though words stand above numbers in one column", async () =>
    expect(await read("q1,age,format\n3,about 30,online")).toMatchObject({ headerRow: 1, wordingRow: null, leftOutRows: [], rows: 9 }));
  test("one line of names is one", async () =>
    expect(await read("q1,age,format")).toMatchObject({ headerRow: 1, wordingRow: null, rows: 8 }));
  test("empty columns at the end, a blank and a repeated name", async () => {
    const { data, understanding } = await readBytes("q1,,q1,,\n1,2,3,,\n4,5,6,,\n");
    expect([data.columns.map((c) => c.name), data.options.width]).toEqual([["q1", "column_2", "q1_2"], 3]);
    expect(understanding.notices.join(" ")).toMatch(/2 empty columns at the end are left out.*Column 2 has no name.*became q1_2/);
  });
  test("lines of totals and means at the end are left out, and kept where somebody says so", async () => {
    const found = await read("q1,age,format", "Total,400,\nMean,3.1,\n");
    expect([found.rows, found.notices]).toEqual([8, expect.stringContaining("Rows 10 and 11 hold totals or means")]);
    expect((await readBytes(`q1,age,format\n${ANSWERS}\nTotal,400,\n`, { given: { totals: "keep" } })).data.rows).toBe(9);
  });
  test("what a person says of the rows goes first", async () => {
    const text = `q1,age,format\nI look forward to it,How old are you?,Class format\n${ANSWERS}\n`;
    const { data } = await readBytes(text, { given: { headerRow: 1, wordingRow: null, leftOutRows: [] } });
    expect([data.rows, data.columns[0]!.wording]).toEqual([9, ""]);
  });
});

test("a row of answers that begins with a word of totals is one of answers", () => {
  expect(isTotalsRow(["Total", "12", "3.5"])).toBe(true);
  expect(isTotalsRow(["Summe:", 12, null])).toBe(true);
  expect(isTotalsRow(["Total", "12", "online"])).toBe(false);
  expect(isTotalsRow(["P17", "12", "3"])).toBe(false);
});
