import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { Readable } from "node:stream";
import { understandFile } from "@/files/reading/understand-file";
import { cellText, markOf } from "@/study/model/response-column";
import { Variable } from "@/study/model/variable";
import { beginPlan, PlannedStudy } from "./begin-plan";
import { type Database, openDatabase } from "./database";
import { stageAppend } from "./further-responses";
import { responsesRepository } from "./repositories/responses-repository";
import { studiesRepository } from "./repositories/studies-repository";
import { editStudy, studyAt } from "./study-door";
import { saveUpload } from "./uploads";

let db: Database;
let folder: string;
beforeEach(() => {
  db = openDatabase(":memory:");
  folder = mkdtempSync(path.join(tmpdir(), "beta-step-"));
});
afterEach(() => rmSync(folder, { recursive: true }));

const codebook = [
  Variable.parse({ name: "calm", label: "I stay calm", kind: "item", range: { low: 1, high: 5 } }),
  Variable.parse({ name: "hours", kind: "number" }),
  Variable.parse({ name: "voice", kind: "category", levels: ["low", "high"].map((value) => ({ value, label: "" })) }),
];
const load = (id: string) => studiesRepository(db).load(id);
const arrive = async (id: string, text: string) => {
  const upload = await saveUpload(Readable.from([Buffer.from(text)]), { name: "answers.csv", expected: null }, folder);
  const staged = await stageAppend(db, id, upload, (await understandFile(upload.path)).options);
  if (staged.kind !== "append") throw new Error(staged.kind);
  return staged;
};

test("a plan is a study of a codebook without a row; its answers come in as the first, by the plan's codebook", async () => {
  const { id, study } = await beginPlan(db, { name: "Second wave", codebook });
  expect(study.responses).toMatchObject({ rows: 0, fileName: "no answers yet" });
  expect(responsesRepository(db).columns(study.responses!.dataset, ["hours"])[0]!.values).toHaveLength(0);
  const staged = await arrive(id, "hours;voice;calm;extra\n2,5;low;4;a\n3,25;high;6;b\n");
  expect(staged.report).toMatchObject({ rowsBefore: 0, rowsAdded: 2, columnsOnlyBefore: [], columnsOnlyNow: ["extra"], wordsNow: [] });
  editStudy(db, id, load(id).revision, staged.edits);
  const after = load(id).study;
  expect(after.responses).toMatchObject({ rows: 2, fileName: "answers.csv" });
  expect(after.codebook.slice(0, 3)).toEqual(codebook);
  expect(after.codebook[3]!.name).toBe("extra");
  const [hours] = responsesRepository(db).columns(after.responses!.dataset, ["hours"]);
  expect(Array.from(hours!.values)).toEqual([2.5, 3.25]);
  // written as its own file writes it
  expect(markOf(hours!)).toBe(",");
  // taken back, the plan is as it was
  expect(studyAt(db, id, 1)).toEqual(study);
});

test("what the plan names and the file lacks is told, and stays without an answer", async () => {
  const { id } = await beginPlan(db, { name: "Second wave", codebook });
  const staged = await arrive(id, "hours,Voice\n1,low\n");
  expect(staged.report).toMatchObject({ columnsOnlyBefore: ["calm", "voice"], nearNames: [{ known: "voice", found: "Voice" }] });
  editStudy(db, id, load(id).revision, staged.edits);
  const [calm] = responsesRepository(db).columns(load(id).study.responses!.dataset, ["calm"]);
  expect(cellText(calm!, 0)).toBeNull();
});

test("a plan without a variable, or with one twice, is refused, and nothing of it stays", async () => {
  expect(PlannedStudy.safeParse({ name: "Empty", codebook: [] }).success).toBe(false);
  await expect(beginPlan(db, { name: "Twice", codebook: [codebook[0]!, codebook[0]!] })).rejects.toThrow();
  expect(studiesRepository(db).list()).toEqual([]);
});
