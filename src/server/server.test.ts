import { mkdtempSync, readdirSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { Readable } from "node:stream";
import { eq } from "drizzle-orm";
import { inverseEdit } from "@/study/model/edit";
import { cellText } from "@/study/model/response-column";
import { Scale } from "@/study/model/scale";
import { type Database, openDatabase } from "./database";
import { NotFoundError, StaleRevisionError, StoredShapeError } from "./errors";
import { foreignRequest } from "./http/door";
import { importAsStudy } from "./import-responses";
import { firstNumbersRepository } from "./repositories/first-numbers-repository";
import { keptRepository } from "./repositories/kept-repository";
import { responsesRepository } from "./repositories/responses-repository";
import { studiesRepository } from "./repositories/studies-repository";
import { chunks, columns, datasets, studies } from "./schema";
import { editStudy } from "./study-door";

let db: Database;
let folder: string;
beforeEach(() => {
  db = openDatabase(":memory:");
  folder = mkdtempSync(path.join(tmpdir(), "beta-step-"));
});
afterEach(() => rmSync(folder, { recursive: true }));

const bring = (text: string, expected: number | null = null, name = "my_answers.csv") =>
  importAsStudy(db, Readable.from([Buffer.from(text)]), { name, expected }, folder);
const CSV = "id,q1,q2\nr1,1,5\nr2,,x\nr3,4,-9\n";
const recorded = (id: string) =>
  studiesRepository(db)
    .revisions(id, { before: null, most: 100 })
    .reverse()
    .flatMap((r) => r.changes.map((change) => ({ revision: r.revision, ...change })));
const counts = () => [studies, datasets, columns, chunks].map((table) => db.select().from(table).all().length);

test("an import makes a study named after its file, with columns that come out as they went in", async () => {
  const { id, study, revision } = await bring(CSV);
  const datasetId = study.responses!.dataset;
  expect([study.name, revision]).toEqual(["my answers", 1]);
  const responses = responsesRepository(db);
  expect(responses.facts(datasetId)).toEqual({ id: datasetId, fileName: "my_answers.csv", rows: 3, columns: ["id", "q1", "q2"] });
  const [q2, q1] = responses.columns(datasetId, ["q2", "q1"]);
  expect([0, 1, 2].map((row) => cellText(q2!, row))).toEqual(["5", "x", "-9"]);
  expect([0, 1, 2].map((row) => cellText(q1!, row))).toEqual(["1", null, "4"]);
  expect(responses.cells(datasetId, ["q2", "id"], [2, 0])).toEqual([
    ["-9", "r3"],
    ["5", "r1"],
  ]);
  expect(responses.cells(datasetId, ["q1"], [1, 99])).toEqual([[null], [null]]);
  expect(recorded(id)).toMatchObject([{ subject: "responses", from: null, to: { fileName: "my_answers.csv", rows: 3 } }]);
});

test.each([
  ["a bad line at its end", `${CSV}r4,1\n`, null],
  ["no rows", "a,b\n", null],
  ["an upload cut short", CSV, 999],
])("after %s nothing half-imported stays", async (_, text, expected) => {
  await expect(bring(text, expected)).rejects.toThrow();
  expect(counts()).toEqual([0, 0, 0, 0]);
  expect(readdirSync(path.join(folder, "uploads"))).toEqual([]);
});

test("an import that is stopped while it reads leaves nothing", async () => {
  const stop = new AbortController();
  const rows = Array.from({ length: 200_000 }, (_, i) => `r${i},${i}`).join("\n");
  const upload = Readable.from([Buffer.from(`id,x\n${rows}\n`)]);
  const importing = importAsStudy(db, upload, { name: "long.csv", expected: null }, folder, stop.signal);
  const first = setInterval(() => {
    if (db.select({ chunk: chunks.chunk }).from(chunks).all().length > 0) stop.abort(); // it is in the middle of the file
  }, 5);
  await expect(importing).rejects.toMatchObject({ name: "AbortError" });
  clearInterval(first);
  expect(counts()).toEqual([0, 0, 0, 0]);
});

test("an import that a crash left half done is swept when the database is opened", () => {
  const file = path.join(folder, "db.sqlite");
  const before = openDatabase(file);
  responsesRepository(before).begin("half", "x.csv");
  responsesRepository(before).addChunks("half", [{ position: 0, chunk: 0, values: new Float64Array(2), states: new Uint8Array(2) }]);
  const after = openDatabase(file);
  responsesRepository(after).sweepReading();
  expect([after.select().from(datasets).all(), after.select().from(chunks).all()]).toEqual([[], []]);
});

describe("the one door", () => {
  const scale = Scale.parse({ id: "s", name: "S", items: [{ variable: "q1" }, { variable: "q2" }] });

  test("an edit is saved with what changed from what to what, and its inverse brings the study back", async () => {
    const { id, study } = await bring(CSV);
    editStudy(db, id, 1, [{ subject: "scale", id: "s", to: scale }]);
    editStudy(db, id, 2, [{ subject: "scale", id: "s", to: { ...scale, rule: "sum" } }]);
    const repository = studiesRepository(db);
    const changes = recorded(id).slice(1);
    expect(changes.map((c) => [c.revision, c.subject, c.id, c.from, c.to])).toEqual([
      [2, "scale", "s", null, scale],
      [3, "scale", "s", scale, { ...scale, rule: "sum" }],
    ]);
    for (const change of changes.reverse()) {
      const { revision } = repository.load(id);
      editStudy(db, id, revision, [inverseEdit({ subject: "scale", id: change.id, from: change.from, to: change.to, at: change.at })]);
    }
    expect(repository.load(id).study).toEqual(study);
  });

  test("an edit on an older state is refused and changes nothing", async () => {
    const { id } = await bring(CSV);
    editStudy(db, id, 1, [{ subject: "name", to: "First" }]);
    expect(() => editStudy(db, id, 1, [{ subject: "name", to: "Second" }])).toThrow(StaleRevisionError);
    expect(studiesRepository(db).load(id)).toMatchObject({ revision: 2, study: { name: "First" } });
    expect(recorded(id)).toHaveLength(2);
  });

  test("an edit that would break the study leaves neither study nor record changed", async () => {
    const { id } = await bring(CSV);
    expect(() =>
      editStudy(db, id, 1, [
        { subject: "name", to: "X" },
        { subject: "scale", id: "gone", to: null },
      ]),
    ).toThrow(/no scale "gone"/);
    expect(studiesRepository(db).load(id)).toMatchObject({ revision: 1, study: { name: "my answers" } });
    expect(recorded(id)).toHaveLength(1);
  });
});

test("intervals that were worked out are kept under their key, the newest two hundred of a study, and go with it", async () => {
  const [{ id }, other] = [await bring(CSV), await bring(CSV)];
  const kept = keptRepository(db);
  const key = (k: number) => k.toString(16).padStart(16, "0");
  const interval = { estimate: 0.2, lower: 0.1, upper: 0.3, method: "bca" as const, clamped: false, needed: 43 };
  const intervals = (redrawn: number) => ({
    replicates: 1000,
    redrawn,
    units: 3,
    intervals: [{ figure: { kind: "R2" as const, step: 0 }, interval, spread: { edges: [0.1, 0.3], counts: [1000] } }],
    differences: [],
  });
  jest.useFakeTimers({ now: 0, doNotFake: ["nextTick", "setImmediate", "queueMicrotask"] });
  try {
    for (let k = 0; k < 202; k++) {
      jest.setSystemTime(k * 1000);
      kept.put(id, { key: key(k), intervals: intervals(k) });
    }
    kept.put(other.id, { key: key(0), intervals: intervals(7) });
    kept.put(id, { key: key(5), intervals: intervals(500) });
  } finally {
    jest.useRealTimers();
  }
  expect([kept.find(id, key(0)), kept.find(id, key(1))]).toEqual([null, null]);
  expect(kept.find(id, key(2))).toEqual({ key: key(2), intervals: intervals(2) });
  expect(kept.find(id, key(5))!.intervals.redrawn).toBe(500);
  expect(kept.find(other.id, key(0))!.intervals.redrawn).toBe(7);
  db.delete(studies).where(eq(studies.id, id)).run();
  expect(kept.find(id, key(5))).toBeNull();
});

test("a ladder's numbers as a page has worked them out are found under their key alone, the newest of each, and go with the study", async () => {
  const [{ id }, other] = [await bring(CSV), await bring(CSV)];
  const first = firstNumbersRepository(db);
  const of = (ladder: string, key: string) => ({ kind: "ladder" as const, id: ladder, key });
  first.put(id, { ...of("a", "now"), result: "of a" });
  first.put(id, { ...of("b", "now"), result: "of b" });
  first.put(other.id, { ...of("a", "now"), result: "of another study" });
  expect([first.find(id, of("a", "now")), first.find(id, of("b", "now")), first.find(id, of("a", "before"))]).toEqual([
    "of a",
    "of b",
    null,
  ]);
  first.put(id, { ...of("a", "later"), result: "of a, later" });
  expect([first.find(id, of("a", "now")), first.find(id, of("a", "later"))]).toEqual([null, "of a, later"]);
  db.delete(studies).where(eq(studies.id, id)).run();
  expect([first.find(id, of("a", "later")), first.find(other.id, of("a", "now"))]).toEqual([null, "of another study"]);
});

test("what is not there, and what is no longer a study, is told as such without its contents", async () => {
  expect(() => studiesRepository(db).load("nobody")).toThrow(NotFoundError);
  const { id } = await bring(CSV);
  db.update(studies).set({ document: '{"name":"private words"}' }).run();
  const error: unknown = (() => {
    try {
      return studiesRepository(db).load(id);
    } catch (e) {
      return e;
    }
  })();
  expect(error).toBeInstanceOf(StoredShapeError);
  expect((error as Error).message).not.toMatch(/private/);
});

describe("requests from elsewhere", () => {
  const ask = (method: string, headers: Record<string, string>) =>
    foreignRequest(new Request("http://x/", { method, headers: { host: "127.0.0.1:3000", ...headers } }), undefined);
  test.each<[string, string, Record<string, string>, boolean]>([
    ["a read on this machine", "GET", {}, true],
    ["a write from our page", "POST", { origin: "http://127.0.0.1:3000" }, true],
    ["a write from another page", "POST", { origin: "http://evil.example" }, false],
    ["a write from another port", "POST", { origin: "http://127.0.0.1:9" }, false],
    ["a write from an opaque origin", "POST", { origin: "null" }, false],
    ["a write by a program on this machine", "POST", {}, true],
    ["a browser's write without an origin", "POST", { "sec-fetch-site": "cross-site" }, false],
    ["a name elsewhere that points at us", "GET", { host: "evil.example" }, false],
  ])("%s", (_, method, headers, welcome) => expect(ask(method, headers) === null).toBe(welcome));
});
