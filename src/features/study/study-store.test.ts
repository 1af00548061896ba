import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { Readable } from "node:stream";
import { encodeColumns } from "@/files/column-bytes";
import { type Database, openDatabase } from "@/server/database";
import { StaleRevisionError } from "@/server/errors";
import { importAsStudy } from "@/server/import-responses";
import { responsesRepository } from "@/server/repositories/responses-repository";
import { studiesRepository } from "@/server/repositories/studies-repository";
import { editStudy, studyAt } from "@/server/study-door";
import { withdrawRespondent } from "@/server/withdrawal";
import { EditRefusedError } from "@/study/model/edit";
import { undoable } from "@/study/model/history";
import { Scale } from "@/study/model/scale";
import { ColumnStore } from "./column-store";
import { newId } from "@/study/model/new-id";
import { StudyStore } from "./study-store";

let db: Database;
let folder: string;
let id: string;
let datasetId: string;
let online: boolean;
let posts: number;
let answerLost: boolean;
/** The tab's storage, which outlives a reload. */
let shelf: Map<string, string>;
const tab = {
  getItem: (key: string) => shelf.get(key) ?? null,
  setItem: (key: string, value: string) => void shelf.set(key, value),
  removeItem: (key: string) => void shelf.delete(key),
};

/** The real door and repository behind the store, without a socket between. */
const send = async (url: string, init?: RequestInit): Promise<Response> => {
  if (!online) throw new TypeError("offline");
  if (init?.method !== "POST") return Response.json(answerTo(new URL(url, "http://x")));
  posts++;
  const { revision, edits, how, of, id: sent } = JSON.parse(String(init.body));
  try {
    const saved = editStudy(db, id, revision, edits, { how, of, id: sent });
    if (answerLost) {
      answerLost = false;
      throw new TypeError("offline");
    }
    return Response.json({ revision: saved.revision });
  } catch (error) {
    if (error instanceof StaleRevisionError) return Response.json({ code: error.code, message: error.message }, { status: 409 });
    if (error instanceof EditRefusedError) return Response.json({ code: error.code, message: error.message }, { status: 422 });
    throw error;
  }
};
/** What the routes of a study and its trail answer. */
function answerTo({ pathname, searchParams }: URL): unknown {
  const repository = studiesRepository(db);
  const [, revision] = /trail\/(\d+)$/.exec(pathname) ?? [];
  if (revision !== undefined) {
    const at = Number(revision);
    return { ...repository.revisions(id, { before: at + 1, most: 1 })[0]!, study: studyAt(db, id, at) };
  }
  const { study, revision: now } = repository.load(id);
  if (!pathname.endsWith("/trail")) return { study, revision: now };
  const before = searchParams.get("before");
  const revisions = repository.revisions(id, { before: before === null ? null : Number(before), most: Number(searchParams.get("most")) });
  return { revision: now, ...undoable(repository.marks(id)), revisions };
}
const open = () => {
  const saved = studiesRepository(db).load(id);
  return new StudyStore(id, saved.study, saved.revision, undefined, send, tab);
};
const stored = () => studiesRepository(db).load(id);

beforeEach(async () => {
  db = openDatabase(":memory:");
  folder = mkdtempSync(path.join(tmpdir(), "beta-step-"));
  const saved = await importAsStudy(db, Readable.from([Buffer.from("a,b\n1,2\n3,4\n")]), { name: "x.csv", expected: null }, folder);
  id = saved.id;
  datasetId = saved.study.responses!.dataset;
  online = true;
  posts = 0;
  answerLost = false;
  shelf = new Map();
  // what a store of one test would send again must not come into the next
  jest.useFakeTimers({ doNotFake: ["setImmediate", "queueMicrotask", "nextTick"] });
});
afterEach(() => {
  jest.useRealTimers();
  rmSync(folder, { recursive: true });
});

const scale = Scale.parse({ id: "s", name: "S", items: [{ variable: "a" }] });

test("an edit shows at once, is saved behind it in order, and can be taken back", async () => {
  const store = open();
  store.edit({ subject: "scale", id: "s", to: scale });
  store.edit({ subject: "scale", id: "s", to: { ...scale, rule: "sum" } });
  expect(store.snapshot()).toMatchObject({ unsaved: 2, canUndo: true, study: { scales: [{ rule: "sum" }] } });
  await store.settled();
  expect(store.snapshot()).toMatchObject({ unsaved: 0, fault: null });
  expect(stored()).toMatchObject({ revision: 3, study: { scales: [{ rule: "sum" }] } });
  expect(await Promise.all([store.undo(), store.undo(), store.undo()])).toEqual([true, true, false]);
  await store.settled();
  expect(stored().study.scales).toEqual([]);
  const later = open(); // a new visit goes on where the last one stopped
  expect([await later.redo(), await later.undo(), await later.redo(), await later.redo(), await later.redo()]).toEqual([
    true,
    true,
    true,
    true,
    false,
  ]);
  await later.settled();
  expect(stored().study.scales).toMatchObject([{ rule: "sum" }]);
  expect(await later.restore(2)).toBe(true);
  await later.settled();
  expect(stored().study.scales).toMatchObject([{ rule: "mean" }]);
  expect(await later.undo()).toBe(true);
  await later.settled();
  expect(stored().study.scales).toMatchObject([{ rule: "sum" }]);
});

test("law: until an undo is recorded the study is not said to be saved", async () => {
  const store = open();
  store.edit({ subject: "scale", id: "s", to: scale });
  await store.settled();
  const busy: boolean[] = [];
  store.subscribe(() => {
    const { unsaved, turning } = store.snapshot();
    busy.push(unsaved + turning > 0);
    // whenever the page may say that all is saved, the server has it
    if (unsaved + turning === 0) expect(stored().study.scales).toEqual([]);
  });
  const undone = store.undo();
  expect(busy).toEqual([true]);
  await undone;
  await store.settled();
  expect(busy.at(-1)).toBe(false);
});

test("an edit that the study's rules refuse changes nothing and says why", async () => {
  const store = open();
  expect(store.edit({ subject: "scale", id: "gone", to: null })).toBe(false);
  expect(store.snapshot().fault).toMatch(/no scale "gone"/);
  await store.settled();
  expect([posts, stored().revision]).toEqual([0, 1]);
  store.dismissFault();
  expect(store.snapshot().fault).toBeNull();
});

test("edits made in another window are taken in; only those that change the same object give way", async () => {
  const store = open();
  editStudy(db, id, 1, [{ subject: "name", to: "Elsewhere" }]);
  store.edit({ subject: "name", to: "Here" });
  store.edit({ subject: "scale", id: "s", to: scale });
  await store.settled();
  expect(store.snapshot()).toMatchObject({ study: { name: "Elsewhere", scales: [{ id: "s" }] }, unsaved: 0 });
  expect(store.snapshot().fault).toMatch(/another window/);
  expect(stored().study).toMatchObject({ name: "Elsewhere", scales: [{ id: "s" }] });
  store.edit({ subject: "name", to: "Here again" });
  await store.settled();
  expect(stored().study.name).toBe("Here again");
});

test("two windows that change different things hear nothing of each other", async () => {
  const [one, other] = [open(), open()];
  one.edit({ subject: "name", to: "One" });
  await one.settled();
  other.edit({ subject: "scale", id: "s", to: scale });
  await other.settled();
  expect([one.snapshot().fault, other.snapshot().fault]).toEqual([null, null]);
  expect(stored().study).toMatchObject({ name: "One", scales: [{ id: "s" }] });
  expect(other.snapshot()).toMatchObject({ study: stored().study, revision: 3, unsaved: 0 });
});

test("what stands on an edit that gave way gives way with it; responses that were exchanged elsewhere move rows, and all give way", async () => {
  const store = open();
  const gone = { ...scale, name: "Elsewhere" };
  editStudy(db, id, 1, [{ subject: "scale", id: "s", to: gone }]);
  store.edit({ subject: "scale", id: "s", to: scale });
  store.edit({ subject: "scale", id: "s", to: { ...scale, rule: "sum" } });
  await store.settled();
  expect(stored().study.scales).toEqual([gone]);
  editStudy(db, id, 2, [{ subject: "responses", to: stored().study.responses! }]);
  store.edit({ subject: "name", to: "Here" });
  await store.settled();
  expect([stored().revision, stored().study.name]).toEqual([3, "x"]);
});

test("an edit whose answer was lost is sent again and carried out once, and what came after it too", async () => {
  const store = open();
  answerLost = true;
  store.edit({ subject: "scale", id: "s", to: scale });
  store.edit({ subject: "scale", id: "s", to: null });
  await store.settled();
  expect(store.snapshot().unsaved).toBe(2);
  jest.advanceTimersByTime(3000);
  await store.settled();
  expect(store.snapshot()).toMatchObject({ unsaved: 0, fault: null, study: { scales: [] } });
  expect([stored().revision, recordedHow()]).toEqual([3, ["edit", "edit", "edit"]]);
});
const recordedHow = () =>
  studiesRepository(db)
    .marks(id)
    .map((mark) => mark.how);

test("after a reload an edit gives way to what another window has made of the same object meanwhile, and only that", async () => {
  const store = open();
  online = false;
  store.edit({ subject: "name", to: "Here" });
  store.edit({ subject: "scale", id: "s", to: scale });
  await store.settled();
  online = true;
  editStudy(db, id, 1, [{ subject: "name", to: "Elsewhere" }]);
  const reloaded = open();
  reloaded.resume();
  await reloaded.settled();
  expect(reloaded.snapshot().fault).toMatch(/another window/);
  expect(stored().study).toMatchObject({ name: "Elsewhere", scales: [{ id: "s" }] });
});

test("a respondent who is erased in another window moves rows: a correction that waits does not go to the next respondent", async () => {
  const store = open();
  online = false;
  const to = { variable: "a", row: 2, from: "3", to: "4", note: "" };
  store.edit({ subject: "correction", id: "2:a", to });
  await store.settled();
  online = true;
  await withdrawRespondent(db, id, 1, 1, folder);
  const reloaded = open();
  reloaded.resume();
  await reloaded.settled();
  expect([stored().study.corrections, reloaded.snapshot().unsaved, reloaded.snapshot().canUndo]).toEqual([[], 0, false]);
  expect(reloaded.snapshot().fault).toMatch(/another window/);
});

test.each([
  ["was carried out, but the answer was lost", true],
  ["never arrived", false],
])("after a reload, an edit that %s is there once", async (_, arrived) => {
  const store = open();
  if (arrived) answerLost = true;
  else online = false;
  store.edit({ subject: "name", to: "Typed" });
  store.edit({ subject: "scale", id: "s", to: scale });
  await store.settled();
  online = true;
  const reloaded = open();
  reloaded.resume();
  await reloaded.settled();
  expect(reloaded.snapshot()).toMatchObject({ unsaved: 0, fault: null, revision: 3, study: { name: "Typed", scales: [{ id: "s" }] } });
  expect([stored().revision, shelf.size]).toEqual([3, 0]);
});

test("law: an edit made at any moment while a reloaded page goes on with what was not saved is saved too", async () => {
  for (let moment = 0; moment < 60; moment++) {
    online = false;
    const store = open();
    store.edit({ subject: "name", to: `Typed ${moment}` });
    await store.settled();
    online = true;
    const reloaded = open();
    reloaded.resume();
    for (let k = 0; k < moment; k++) await Promise.resolve();
    const made = { ...scale, name: `Made ${moment}` };
    reloaded.edit({ subject: "scale", id: "s", to: made });
    await reloaded.settled();
    expect(reloaded.snapshot()).toMatchObject({ unsaved: 0, fault: null });
    expect(stored().study).toMatchObject({ name: `Typed ${moment}`, scales: [{ name: made.name }] });
  }
});

test("a refusal stays to be read while an earlier edit is still being saved", async () => {
  const store = open();
  store.edit({ subject: "name", to: "Saved behind it" });
  store.edit({ subject: "scale", id: "gone", to: null });
  await store.settled();
  expect(store.snapshot()).toMatchObject({ unsaved: 0, fault: expect.stringMatching(/no scale "gone"/) });
});

test("a fault of the house keeps the change on the page, with its sentence, until the house is well again", async () => {
  const saved = stored();
  let ill = true;
  const house = async (url: string, init?: RequestInit) =>
    ill && init?.method === "POST" ? Response.json({ code: "disk-full", message: "The disk is full." }, { status: 507 }) : send(url, init);
  const store = new StudyStore(id, saved.study, saved.revision, undefined, house, tab);
  store.edit({ subject: "name", to: "Saved later" });
  await store.settled();
  expect(store.snapshot()).toMatchObject({ unsaved: 1, study: { name: "Saved later" } });
  expect(store.snapshot().fault).toMatch(/^The disk is full. Your changes are kept/);
  ill = false;
  jest.advanceTimersByTime(3000);
  await store.settled();
  expect([store.snapshot().unsaved, store.snapshot().fault, stored().study.name]).toEqual([0, null, "Saved later"]);
});

test("while the server is away changes are kept, and saved when it is back", async () => {
  const store = open();
  online = false;
  store.edit({ subject: "name", to: "One" });
  await store.settled();
  expect(store.snapshot()).toMatchObject({ unsaved: 1, study: { name: "One" } });
  expect(store.snapshot().fault).toMatch(/kept on this page/);
  online = true;
  store.edit({ subject: "scale", id: "s", to: scale });
  await store.settled();
  expect(store.snapshot()).toMatchObject({ unsaved: 0, fault: null });
  expect(stored().study).toMatchObject({ name: "One", scales: [{ id: "s" }] });
});

test("columns asked for in one moment come in one request, and only once; a failed one is asked for again", async () => {
  const asked: string[] = [];
  let broken = false;
  const store = new ColumnStore(datasetId, async (url) => {
    asked.push(url);
    if (broken) return new Response(null, { status: 500 });
    const names = new URL(url, "http://x").searchParams.getAll("name");
    return new Response(encodeColumns(responsesRepository(db).columns(datasetId, names)));
  });
  const [[a], [b, again]] = await Promise.all([store.columns(["a"]), store.columns(["b", "a"])]);
  expect([a!.name, b!.name, asked.length]).toEqual(["a", "b", 1]);
  expect(again).toBe(a);
  const other = new ColumnStore(datasetId, async (url) => {
    if (broken) return new Response(null, { status: 500 });
    return new Response(encodeColumns(responsesRepository(db).columns(datasetId, new URL(url, "http://x").searchParams.getAll("name"))));
  });
  broken = true;
  await expect(other.columns(["a"])).rejects.toThrow();
  broken = false;
  expect((await other.columns(["a"]))[0]!.values).toEqual(Float64Array.from([1, 3]));
});

test("ids are readable and never taken twice", () => {
  expect([newId("Tutor support", []), newId("Tutor  Support!", ["tutor_support"]), newId("日本", []), newId("Émotion", [])]).toEqual([
    "tutor_support",
    "tutor_support_2",
    "object",
    "e_motion",
  ]);
});

test("what is taken back is what was last when it was asked for: a change made meanwhile stays, and the person is told", async () => {
  const store = open();
  store.edit({ subject: "name", to: "One" });
  await store.settled();
  const taking = store.undo();
  store.edit({ subject: "name", to: "Two" }); // before the server has said what there is to take back
  expect(await taking).toBe(false);
  await store.settled();
  expect([store.snapshot().study.name, stored().study.name]).toEqual(["Two", "Two"]);
  expect(store.snapshot().fault).toMatch(/another change was made/);
  expect(await store.undo()).toBe(true);
  await store.settled();
  expect(stored().study.name).toBe("One");
});

test("a change is saved at once, one after the other, in requests that outlive the page", async () => {
  const sent: (RequestInit | undefined)[] = [];
  const saved = stored();
  const store = new StudyStore(id, saved.study, saved.revision, undefined, (url, init) => {
    if (init?.method === "POST") sent.push(init);
    return send(url, init);
  });
  store.edit({ subject: "name", to: "One" });
  store.edit({ subject: "name", to: "Two" });
  expect([store.snapshot().study.name, store.snapshot().unsaved, sent.length]).toEqual(["Two", 2, 1]);
  expect(sent[0]).toMatchObject({ keepalive: true });
  await store.settled();
  expect([stored().study.name, store.snapshot().unsaved]).toEqual(["Two", 0]);
});

test("columns that are here are handed out without waiting; one that is missing means none", async () => {
  const store = new ColumnStore(datasetId, async (url) => {
    const names = new URL(url, "http://x").searchParams.getAll("name");
    return new Response(encodeColumns(responsesRepository(db).columns(datasetId, names)));
  });
  expect(store.ready(["a"])).toBeNull();
  await store.columns(["a"]);
  expect(store.ready(["a"])![0]!.values).toEqual(Float64Array.from([1, 3]));
  expect(store.ready(["a", "b"])).toBeNull();
  expect(store.ready([])).toEqual([]);
});
