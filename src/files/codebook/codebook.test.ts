import fc from "fast-check";
import { unzipSync } from "fflate";
import { Variable, VariableKind } from "@/study/model/variable";
import { columnOf } from "@/study/test-support/columns";
import { readBytes } from "../test-support/read-bytes";
import { codebookCsv, readCodebookTable } from "./codebook-table";
import { ddiCodebook, readDdiCodebook } from "./ddi-codebook";
import { fromTableSchema, TableSchema, toTableSchema } from "./table-schema";
import { writePackage } from "./write-package";

const words = fc.string({ maxLength: 12, unit: fc.constantFrom(..."abZäß 19<&>\"'日.,") }).map((s) => s.replace(/\s+/g, " ").trim());
const code = fc.constantFrom("1", "2", "3", "-9", "99", "NA", "x y");
const variable = (name: string): fc.Arbitrary<Variable> =>
  fc
    .record({
      label: words,
      short: words,
      kind: fc.constantFrom(...VariableKind.options),
      range: fc.option(
        fc.tuple(fc.integer({ min: -5, max: 5 }), fc.integer({ min: 1, max: 9 })).map(([low, by]) => ({ low, high: low + by })),
      ),
      missing: fc.uniqueArray(code, { maxLength: 2 }),
      levels: fc.uniqueArray(fc.record({ value: fc.constantFrom("a", "b", "4", "5"), label: words }), {
        selector: (l) => l.value,
        maxLength: 3,
      }),
      unit: words,
      note: words,
    })
    .map((v) => Variable.parse({ name, ...v }));
const codebook = fc.tuple(variable("Q1"), variable("my item"), variable("größe"));
const bare = (list: readonly Variable[]) => list.map(({ name }) => Variable.parse({ name }));

describe("law: a codebook that is written and read again is the same", () => {
  test("as a data package's schema", () =>
    fc.assert(
      fc.property(codebook, (list) =>
        expect(fromTableSchema(TableSchema.parse(JSON.parse(JSON.stringify(toTableSchema(list)))))).toEqual(list),
      ),
    ));

  test("as DDI XML, whatever signs its words hold", () =>
    fc.assert(
      fc.property(codebook, (list) => {
        const reading = readDdiCodebook(ddiCodebook({ title: "a < b & c", rows: 9 }, list), bare(list));
        expect([reading.faults, reading.unknown]).toEqual([[], []]);
        expect(reading.variables).toEqual(list);
      }),
    ));

  test("as CSV, but for signs that part its lists", () =>
    fc.assert(
      fc.property(codebook, (list) => {
        const plain = list.map((v) => ({ ...v, levels: v.levels.map((l) => ({ ...l, label: l.label.replace(/[;|=]/g, "") })) }));
        expect(readCodebookTable(codebookCsv(plain), bare(plain)).variables).toEqual(plain);
      }),
    ));
});

test("a block from a spreadsheet is read by its headings, or by its order, and says what it cannot use", () => {
  const list = [Variable.parse({ name: "SC1", label: "old", unit: "points" }), Variable.parse({ name: "age" })];
  const headed = readCodebookTable(
    "Item\tQuestion\tMin\tMax\tMissing codes\tColour\nSC1\tI speak up\t1\t5\t−9, 99\tred\nzzz\tlost\t\t\t\t\nage\t\t9\t2\t\t\n",
    list,
  );
  expect(headed.variables).toEqual([{ ...list[0]!, label: "I speak up", range: { low: 1, high: 5 }, missing: ["-9", "99"] }]);
  expect([headed.unknown, headed.ignored]).toEqual([["zzz"], ["Colour"]]);
  expect(headed.faults).toEqual(["Row 4 (age): The highest answer must be above the lowest."]);
  expect(readCodebookTable("SC1\tI speak up\nage\tYears of age\tnumber\n", list).variables.map((v) => v.label)).toEqual([
    "I speak up",
    "Years of age",
  ]);
  expect(readCodebookTable("name;values\nSC1;1=never; 2=often", list).variables).toEqual([
    { ...list[0]!, levels: [{ value: "1", label: "never" }] },
  ]);
  expect(readCodebookTable("  ", list).faults).toHaveLength(1);
});

test("an archive's own DDI with prefixes and parts we do not know is read for what it says", () => {
  const xml = `<?xml version="1.0"?><ddi:codeBook xmlns:ddi="ddi:codebook:2_5"><ddi:dataDscr><ddi:varGrp ID="G1"><ddi:labl>a group</ddi:labl></ddi:varGrp>
    <ddi:var ID="V1" name="sex" nature="nominal"><ddi:location StartPos="1"/><ddi:labl>Sex of respondent</ddi:labl><ddi:qstn><ddi:qstnLit>Are you …?</ddi:qstnLit></ddi:qstn>
      <ddi:invalrng><ddi:item VALUE="9"/></ddi:invalrng>
      <ddi:catgry><ddi:catValu>1</ddi:catValu><ddi:labl>woman</ddi:labl><ddi:catStat type="freq">12</ddi:catStat></ddi:catgry>
      <ddi:catgry missing="Y"><ddi:catValu>8</ddi:catValu><ddi:labl>refused</ddi:labl></ddi:catgry><ddi:varFormat type="numeric"/></ddi:var>
    <ddi:var ID="V2" name="weight" nature="ratio" measUnit="kg"><ddi:valrng><ddi:range min="30" max="200"/></ddi:valrng><ddi:varFormat type="numeric"/></ddi:var></ddi:dataDscr></ddi:codeBook>`;
  const list = [Variable.parse({ name: "sex", kind: "text" }), Variable.parse({ name: "weight", kind: "item" })];
  expect(readDdiCodebook(xml, list).variables).toEqual([
    { ...list[0], label: "Sex of respondent", kind: "category", missing: ["9", "8"], levels: [{ value: "1", label: "woman" }] },
    { ...list[1], kind: "number", unit: "kg", range: { low: 30, high: 200 } },
  ]);
  for (const bad of ["<codeBook><dataDscr>", "<html/>", '<!DOCTYPE x [<!ENTITY a "b">]><codeBook/>', "none"])
    expect(readDdiCodebook(bad, list)).toMatchObject({ variables: [], faults: [expect.any(String)] });
});

test("a saved data package is taken in again with the same answers and the same codebook", async () => {
  const list = [
    Variable.parse({ name: "mood", kind: "item", label: "How are you?", range: { low: 1, high: 5 }, missing: ["-9"] }),
    Variable.parse({
      name: "format",
      kind: "category",
      levels: [
        { value: "o", label: "online" },
        { value: "p, or so", label: "" },
      ],
    }),
  ];
  const columns = [columnOf("mood", ["1", "-9", "", "4"]), columnOf("format", ["o", "p, or so", "", 'say "o"'])];
  const zip = writePackage("Mood & more", list, columns);
  expect(Object.keys(unzipSync(zip))).toEqual(["datapackage.json", "responses.csv"]);
  const read = await readBytes(zip);
  expect([...read.columns.values()].map((c) => [c.name, [...c.values], [...c.states], c.texts])).toEqual(
    columns.map((c) => [c.name, [...c.values], [...c.states], [...c.texts]]),
  );
  expect(read.understanding.columns.map((c) => [c.name, c.kind, c.label])).toEqual([
    ["mood", "item", "How are you?"],
    ["format", "category", ""],
  ]);
});
