import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { Readable } from "node:stream";
import fc from "fast-check";
import { type Database, openDatabase } from "@/server/database";
import { importAsStudy } from "@/server/import-responses";
import { seenRepository } from "@/server/repositories/seen-repository";
import { SeenResult } from "@/study/model/seen-result";
import { fingerprint } from "./fingerprint";
import { SeenStore } from "./seen-store";

let db: Database;
let id: string;
beforeAll(async () => {
  db = openDatabase(":memory:");
  const folder = mkdtempSync(path.join(tmpdir(), "beta-step-"));
  ({ id } = await importAsStudy(db, Readable.from([Buffer.from("a\n1\n2\n")]), { name: "x.csv", expected: null }, folder));
  rmSync(folder, { recursive: true });
});

/** The real record behind the store, without a socket between. */
const visit = () =>
  new SeenStore(id, seenRepository(db).list(id), async (_, init) =>
    seenRepository(db).put(id, SeenResult.parse(JSON.parse(String(init.body)))),
  );
const seen = (inputs: string, n: number): SeenResult => ({
  kind: "ladder",
  id: "l",
  inputs,
  numbers: [{ name: "N", value: n }],
  revision: 2,
  at: "2026-11-24T03:00:00.000Z",
});

test("a result is out of date once its inputs differ from those last looked at, until it is looked at again, over visits", () => {
  const first = visit();
  expect(first.outdated({ kind: "ladder", id: "l" }, "one")).toBe(false); // never looked at
  first.look(seen("one", 10));
  expect([first.outdated({ kind: "ladder", id: "l" }, "one"), first.outdated({ kind: "ladder", id: "l" }, "two")]).toEqual([false, true]);
  expect(first.outdated({ kind: "scale", id: "l" }, "two")).toBe(false);
  const second = visit();
  expect(second.outdated({ kind: "ladder", id: "l" }, "two")).toBe(true);
  expect(SeenStore.earlier(second.earlierSnapshot(), { kind: "ladder", id: "l" })).toBeNull();
  let told = 0;
  second.subscribe(() => told++);
  second.look(seen("two", 8));
  second.look(seen("two", 8)); // looking again is nothing new
  expect([told, second.outdated({ kind: "ladder", id: "l" }, "two")]).toEqual([1, false]);
  expect(SeenStore.earlier(second.earlierSnapshot(), { kind: "ladder", id: "l" })).toEqual(seen("one", 10));
  expect(seenRepository(db).list(id)).toEqual([seen("two", 8)]);
});

test("what changes while somebody looks at it is nothing to tell them; the mark is set all the same", () => {
  const store = visit();
  store.look({ ...seen("three", 8), id: "m" });
  store.look({ ...seen("four", 9), id: "m" }, true);
  expect(SeenStore.earlier(store.earlierSnapshot(), { kind: "ladder", id: "m" })).toBeNull();
  expect(store.outdated({ kind: "ladder", id: "m" }, "four")).toBe(false);
});

test("law: the same text has the same mark; a change anywhere gives another", () => {
  fc.assert(
    fc.property(fc.string({ minLength: 1, maxLength: 60 }), fc.nat(), fc.string({ minLength: 1, maxLength: 3 }), (text, at, other) => {
      const place = at % text.length;
      const changed = text.slice(0, place) + other + text.slice(place + 1);
      expect(fingerprint(text)).toBe(fingerprint(`${text}`));
      expect(fingerprint(text) === fingerprint(changed)).toBe(text === changed);
    }),
    { numRuns: 2000 },
  );
});
