import { readFileSync } from "node:fs";
import path from "node:path";
import { KEPT } from "@/study/kinds/kinds";
import { objectsOf } from "@/study/kinds/standing";
import { applyEdits, editsBetween } from "@/study/model/edit";
import { NewerDocumentError, STUDY_VERSION, upgradeObject, upgradeStudy } from "@/study/model/upgrade";
import { type Database, openDatabase } from "./database";
import { studiesRepository } from "./repositories/studies-repository";
import { changes, datasets, revisions, studies } from "./schema";
import { studyAt } from "./study-door";

/** Rows of the database as version 1 wrote them: a study that holds every kind there was, and its trail. */
const STORED = JSON.parse(readFileSync(path.join(process.cwd(), "src/server/test-support/document-version-1.json"), "utf8"));

let db: Database;
beforeEach(() => {
  db = openDatabase(":memory:");
  const id: string = STORED.study.datasetId;
  db.insert(datasets).values({ id, state: "ready", fileName: "fixture.csv", bytes: 1, sha256: "", rows: STORED.dataset.rows, delimiter: ",", decimal: "." }).run(); // prettier-ignore
  db.insert(studies).values(STORED.study).run();
  db.insert(revisions).values(STORED.revisions).run();
  db.insert(changes).values(STORED.changes).run();
});

test("a study of version 1 is read for ever, with everything that it holds", () => {
  const { study, revision } = studiesRepository(db).load(STORED.study.id);
  const stored = JSON.parse(STORED.study.document);
  expect(revision).toBe(STORED.study.revision);
  for (const kind of KEPT.filter(({ list }) => list in stored)) {
    const ids = objectsOf(study, kind).map((object) => kind.idOf(object));
    expect(ids).toEqual(stored[kind.list].map((object: unknown) => kind.idOf(object)));
    expect(ids.length).toBeGreaterThan(0);
  }
  expect(study.ladders[0]).toMatchObject({ cluster: "class", intervals: { by: "bca", replicates: 2000 }, respondents: "room" });
});

test("its trail leads back to the first day, and from there to today again", () => {
  const { id, revision } = STORED.study;
  const today = studiesRepository(db).load(id).study;
  const first = studyAt(db, id, 1);
  expect([first.scales, first.ladders, first.filters, first.corrections]).toEqual([[], [], [], []]);
  for (let at = 1; at <= revision; at++) {
    const then = studyAt(db, id, at);
    expect(applyEdits(then, editsBetween(then, today)).study).toEqual(today);
  }
});

test("what an earlier version stored passes one step a version, object by object; a newer document is refused by its version", () => {
  const kinds = [
    {
      kind: "thing",
      list: "things",
      upgrades: { 1: (old: any) => ({ ...old, size: 1 }), 3: (old: any) => ({ ...old, size: old.size * 10 }) },
    },
    { kind: "plain", list: "plains" },
  ];
  const document = { version: 1, name: "n", things: [{ id: "a" }, { id: "b" }], plains: [{ id: "c" }] };
  const at4 = { version: 4, name: "n", things: [{ id: "a", size: 10 }, { id: "b", size: 10 }], plains: [{ id: "c" }] }; // prettier-ignore
  expect(upgradeStudy(document, { kinds, to: 4 })).toEqual(at4);
  expect(upgradeStudy(at4, { kinds, to: 4 })).toEqual(at4);
  expect(upgradeObject("thing", { id: "a", size: 7 }, 3, { kinds, to: 4 })).toEqual({ id: "a", size: 70 });
  expect(upgradeObject("thing", null, 1, { kinds, to: 4 })).toBeNull();
  expect(() => upgradeStudy({ version: STUDY_VERSION + 1 })).toThrow(NewerDocumentError);
  db.update(revisions)
    .set({ version: STUDY_VERSION + 1 })
    .run();
  expect(() => studiesRepository(db).revisions(STORED.study.id, { before: null, most: 5 })).toThrow(/newer version/);
});
