import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { Readable } from "node:stream";
import fc from "fast-check";
import { understandFile } from "@/files/reading/understand-file";
import { inverseEdit } from "@/study/model/edit";
import { cellText, type ResponseColumn } from "@/study/model/response-column";
import { Scale } from "@/study/model/scale";
import type { StagedResponses } from "@/study/prepare/staged-responses";
import { compareResponses, matchRows } from "@/study/prepare/compare-responses";
import { columnOf } from "@/study/test-support/columns";
import { type Database, openDatabase } from "./database";
import { stageAppend, stageReplace } from "./further-responses";
import { importAsStudy } from "./import-responses";
import { responsesRepository } from "./repositories/responses-repository";
import { studiesRepository } from "./repositories/studies-repository";
import { datasets } from "./schema";
import { editStudy, studyAt } from "./study-door";
import { saveUpload, sweepUploads } from "./uploads";

let db: Database;
let folder: string;
let id: string;
beforeEach(async () => {
  db = openDatabase(":memory:");
  folder = mkdtempSync(path.join(tmpdir(), "beta-step-"));
  ({ id } = await importAsStudy(
    db,
    Readable.from([Buffer.from("code,q1,group\nA,1,x\nB,2,y\nC,,x\n")]),
    { name: "wave1.csv", expected: null },
    folder,
  ));
});
afterEach(() => rmSync(folder, { recursive: true }));

const arrive = async (text: string) => {
  const upload = await saveUpload(Readable.from([Buffer.from(text)]), { name: "next.csv", expected: null }, folder);
  return { upload, options: (await understandFile(upload.path)).options };
};
const append = async (text: string) => {
  const { upload, options } = await arrive(text);
  return (await stageAppend(db, id, upload, options)) as Extract<StagedResponses, { kind: "append" }>;
};
const replace = async (text: string, key: string | null) => {
  const { upload, options } = await arrive(text);
  return (await stageReplace(db, id, upload, options, key)) as Extract<StagedResponses, { kind: "replace" }>;
};
const load = () => studiesRepository(db).load(id);
const answers = (name: string) => {
  const [column] = responsesRepository(db).columns(load().study.responses!.dataset, [name]);
  return Array.from(column!.values, (_, row) => cellText(column!, row));
};
const take = ({ edits }: StagedResponses) => editStudy(db, id, load().revision, edits);

test("a new wave follows the respondents there are; what one of them lacks is empty; taken back, it is as it was", async () => {
  const staged = await append("q1,Group,code,new\n5,z,D,7\nmany,y,B,8\n");
  expect(load().study.responses!.rows).toBe(3); // nothing has changed yet
  expect(staged.report).toEqual({
    rowsBefore: 3,
    rowsAdded: 2,
    columnsOnlyBefore: ["group"],
    columnsOnlyNow: ["Group", "new"],
    nearNames: [{ known: "group", found: "Group" }],
    wordsNow: ["q1"],
    alreadyThere: [{ variable: "code", count: 1 }],
  });
  take(staged);
  expect([answers("code"), answers("q1"), answers("group"), answers("new")]).toEqual([
    ["A", "B", "C", "D", "B"],
    ["1", "2", null, "5", "many"],
    ["x", "y", "x", null, null],
    [null, null, null, "7", "8"],
  ]);
  const { revision } = load();
  const [done] = studiesRepository(db).revisions(id, { before: null, most: 1 });
  editStudy(db, id, revision, [...done!.changes].reverse().map(inverseEdit), { how: "undo", of: revision });
  expect(answers("code")).toEqual(["A", "B", "C"]);
  expect(load().study.codebook.map((v) => v.name)).toEqual(["code", "q1", "group"]);
  expect(studyAt(db, id, revision)).toMatchObject({ responses: { rows: 5 } });
});

test("a corrected file is compared cell by cell, respondents matched by their code, and what was done by hand follows them", async () => {
  editStudy(db, id, 1, [
    { subject: "correction", id: "2:q1", to: { variable: "q1", row: 2, from: "2", to: "3", note: "" } },
    { subject: "correction", id: "1:group", to: { variable: "group", row: 1, from: "x", to: "y", note: "" } },
    {
      subject: "filter",
      id: "out",
      to: { id: "out", name: "Out", reason: "", everywhere: true, conditions: [{ kind: "not-rows", rows: [2, 3] }] },
    },
  ]);
  const staged = await replace("code,q1,group\nB,2,z\nD,4,x\nA,1,x\n", "code");
  expect(staged.differences).toMatchObject({
    rowsBefore: 3,
    rowsAfter: 3,
    added: { count: 1, rows: [2] },
    removed: { count: 1, rows: [3] },
    changedCells: 1,
    cells: [{ variable: "group", row: 1, from: "y", to: "z" }],
  });
  take(staged);
  const { study } = load();
  expect(study.corrections.map((c) => [c.variable, c.row])).toEqual(
    expect.arrayContaining([
      ["q1", 1],
      ["group", 3],
    ]),
  );
  expect(study.filters[0]!.conditions).toEqual([{ kind: "not-rows", rows: [1] }]);
  expect(staged.correctionsIdle).toBe(0);
});

test("a file that lacks a used column, or whose codes do not tell respondents apart, is refused and leaves nothing behind", async () => {
  editStudy(db, id, 1, [
    {
      subject: "scale",
      id: "s",
      to: Scale.parse({ id: "s", name: "S", items: [{ variable: "q1" }] }),
    },
  ]);
  const before = db.select().from(datasets).all().length;
  await expect(replace("code,group\nA,x\n", null)).rejects.toMatchObject({
    code: "columns-missing",
    message: expect.stringMatching(/scale "S" uses "q1"/),
  });
  await expect(replace("code,q1,group\nA,1,x\nA,2,x\n", "code")).rejects.toMatchObject({
    code: "key-not-unique",
    message: expect.stringMatching(/row 2/),
  });
  await expect(replace("x,q1,group\n1,1,x\n", "code")).rejects.toMatchObject({ code: "no-such-key" });
  expect(db.select().from(datasets).all()).toHaveLength(before);
  const unused = await replace("code,q1\nA,1\n", null); // nothing stands on group
  expect(unused.differences.columnsMissing).toEqual(["group"]);
  take(unused);
  expect(load().study.codebook.map((v) => v.name)).toEqual(["code", "q1"]);
});

test("what was looked at and not taken is swept; what the record names is kept", async () => {
  const first = load().study.responses!.dataset;
  const left = await append("code,q1,group\nD,5,x\n");
  const taken = await append("code,q1,group\nE,5,x\n");
  take(taken);
  const responses = responsesRepository(db);
  responses.abandonUnheld(first);
  responses.sweep(new Date());
  expect(
    db
      .select()
      .from(datasets)
      .all()
      .map((d) => d.id)
      .sort(),
  ).toEqual([first, taken.dataset].sort());
  expect(() => editStudy(db, id, load().revision, left.edits)).toThrow(/no dataset/);
  expect(() => editStudy(db, id, load().revision, [{ subject: "responses", to: { dataset: first, fileName: "x", rows: 99 } }])).toThrow(
    /do not fit/,
  );
  await sweepUploads(folder, Date.now() + 2 * 24 * 3600_000);
  await expect(arrive("a\n1\n")).resolves.toBeDefined();
});

test("law: the differences are what comparing every cell by eye would find, however rows move", () => {
  const cell = fc.constantFrom("1", "2", "", "word");
  const rows = fc.uniqueArray(fc.record({ code: fc.constantFrom("A", "B", "C", "D", "E"), q: cell, r: cell }), {
    selector: (r) => r.code,
    minLength: 1,
  });
  fc.assert(
    fc.property(rows, rows, (before, after) => {
      const of = (list: typeof before) => {
        const columns = new Map<string, ResponseColumn>(
          (["code", "q", "r"] as const).map((name) => [
            name,
            columnOf(
              name,
              list.map((row) => row[name]),
            ),
          ]),
        );
        return { rows: list.length, names: [...columns.keys()], column: (name: string) => columns.get(name)! };
      };
      const differences = compareResponses(of(before), of(after), matchRows(of(before), of(after), "code"), "code");
      const both = after.flatMap((now) => before.filter((old) => old.code === now.code).map((old) => [old, now] as const));
      const differ = both.flatMap(([old, now]) => (["q", "r"] as const).filter((name) => old[name] !== now[name]));
      expect(differences.changedCells).toBe(differ.length);
      expect(differences.cells).toHaveLength(differ.length);
      expect([differences.added.count, differences.removed.count]).toEqual([after.length - both.length, before.length - both.length]);
    }),
  );
});
