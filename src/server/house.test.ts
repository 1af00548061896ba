import { spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { Readable } from "node:stream";
import Sqlite from "better-sqlite3";
import { backUp, backupDays, restoreBackup } from "./backups";
import { closeDatabase, connection, database, DATABASE_FILE, openDatabase } from "./database";
import { claimFolder, leaveFolder } from "./folder-lock";
import { houseKey, keyCookie, makeKey } from "./house-key";
import { turnedAway } from "./http/door";
import { faultOf, route } from "./http/route";
import { BodyTooLargeError, readJson } from "./http/read-json";
import { importAsStudy } from "./import-responses";
import { responsesRepository } from "./repositories/responses-repository";
import { firstNumbersRepository } from "./repositories/first-numbers-repository";
import { studiesRepository } from "./repositories/studies-repository";
import { storageFault } from "./storage-faults";
import { editStudy, studyAt } from "./study-door";
import { copyStudy, putStudyAway, renameStudy } from "./study-list";
import { deleteStudy, eraseStudy, sweepDeleted, takeStudyBack } from "./study-end";
import { saveUpload } from "./uploads";
import { withdrawRespondent } from "./withdrawal";
import { EditSet } from "@/study/model/edit";
import { undoable } from "@/study/model/history";
import { RespondentFilter } from "@/study/model/respondent-filter";
import { cellText } from "@/study/model/response-column";

let folder: string;
const before = process.env.BETA_STEP_DATA;
const held = globalThis as { betaStepDatabase?: { db: ReturnType<typeof openDatabase> }; betaStepKey?: string };
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), "beta-step-house-"));
  process.env.BETA_STEP_DATA = folder;
});
afterEach(() => {
  leaveFolder();
  if (held.betaStepDatabase) closeDatabase(held.betaStepDatabase.db);
  delete held.betaStepDatabase;
  delete held.betaStepKey;
  process.env.BETA_STEP_DATA = before;
  if (before === undefined) delete process.env.BETA_STEP_DATA;
  rmSync(folder, { recursive: true, force: true });
});

const SECRET = "Nobody-else-wrote-this";
const CSV = `code,age,word\n${Array.from({ length: 50 }, (_, k) => `c${k},${20 + (k % 40)},${SECRET}-${k}`).join("\n")}\n`;
const bring = (text = CSV, name = "answers.csv") =>
  importAsStudy(database(), Readable.from([Buffer.from(text)]), { name, expected: null }, folder);
/** Whether a text lies anywhere in the files of the folder. */
const lies = (text: string): string[] =>
  (readdirSync(folder, { recursive: true }) as string[]).filter(
    (name) => statSync(path.join(folder, name)).isFile() && readFileSync(path.join(folder, name)).includes(text),
  );
const faultCode = (work: () => unknown): string | undefined => {
  try {
    work();
    return undefined;
  } catch (error) {
    return storageFault(error)?.code;
  }
};

describe("the door", () => {
  const ask = (headers: Record<string, string>) =>
    turnedAway(new Request("http://x/", { headers: { host: "127.0.0.1:3000", ...headers } }));

  test("opens to the key alone: as a cookie, or as a bearer's token", () => {
    makeKey();
    const key = houseKey()!;
    const cookie = (value: string) => ({ cookie: `other=1; ${keyCookie(key)}=${value}` });
    expect([ask({}), ask(cookie("x")), ask(cookie(`${key}x`)), ask({ authorization: "Bearer x" })].map((away) => away?.status)).toEqual([
      401, 401, 401, 401,
    ]);
    expect([ask(cookie(key)), ask({ authorization: `Bearer ${key}` })]).toEqual([null, null]);
    expect(ask({ ...cookie(key), host: "evil.example" })?.status).toBe(403);
  });

  test("the key is made once, is the owner's alone, and outlives a restart", () => {
    makeKey();
    const key = houseKey();
    delete held.betaStepKey;
    makeKey();
    expect([houseKey(), statSync(path.join(folder, "key")).mode & 0o777]).toEqual([key, 0o600]);
    process.env.BETA_STEP_KEY = "off";
    expect([houseKey(), ask({})]).toEqual([null, null]);
    delete process.env.BETA_STEP_KEY;
  });

  test("further names of this machine are those of BETA_STEP_HOSTS", () => {
    process.env.BETA_STEP_KEY = "off";
    process.env.BETA_STEP_HOSTS = "lab.example, Other.Example";
    expect(["lab.example", "other.example:8443", "example", ""].map((host) => ask({ host })?.code ?? "in")).toEqual([
      "in",
      "in",
      "foreign-request",
      "foreign-request",
    ]);
    delete process.env.BETA_STEP_HOSTS;
    delete process.env.BETA_STEP_KEY;
  });
});

describe("requests and answers have limits", () => {
  test("a body is read no further than its route takes, announced or not", async () => {
    let sent = 0;
    const endless = new ReadableStream<Uint8Array>({
      pull(controller) {
        sent += 1000;
        controller.enqueue(new Uint8Array(1000).fill(32));
      },
    });
    const request = new Request("http://x/", { method: "POST", body: endless, duplex: "half" } as RequestInit);
    await expect(readJson(request, EditSet, 10_000)).rejects.toBeInstanceOf(BodyTooLargeError);
    expect(sent).toBeLessThan(20_000);
    const announced = new Request("http://x/", { method: "POST", body: "[]", headers: { "content-length": "99999" } });
    await expect(readJson(announced, EditSet, 10_000)).rejects.toThrow(/10 kB/);
  });

  test("20,000 broken edits are told by the first few", () => {
    const parsed = EditSet.safeParse(Array.from({ length: 20_000 }, () => ({ subject: "scale", id: 3, to: { name: 1 } })));
    const { message, status } = faultOf("test", parsed.error);
    expect([status, message.length < 1500, /and \d+ more places/.test(message)]).toEqual([400, true, true]);
  });

  test("answers are kept by no browser and are what they say they are", async () => {
    process.env.BETA_STEP_KEY = "off";
    const answer = await route("test", () => Response.json({}))(new Request("http://x/", { headers: { host: "localhost" } }), {
      params: Promise.resolve({}),
    });
    delete process.env.BETA_STEP_KEY;
    expect([answer.headers.get("cache-control"), answer.headers.get("x-content-type-options")]).toEqual(["no-store", "nosniff"]);
  });
});

describe("the data folder", () => {
  test("folder and files are the owner's alone", async () => {
    rmSync(folder, { recursive: true });
    await bring();
    expect([statSync(folder).mode & 0o777, statSync(path.join(folder, DATABASE_FILE)).mode & 0o777]).toEqual([0o700, 0o600]);
  });

  test("one server at a time; another process is told, and comes in when the first has ended however it ended", () => {
    const claim = `const { claimFolder } = await import("@/server/folder-lock");
      try { claimFolder(${JSON.stringify(folder)}); process.stdout.write("in"); } catch (error) { process.stdout.write(error.code); }
      process.kill(process.pid, "SIGKILL");`;
    const other = () => spawnSync(process.execPath, ["--import", "tsx", "--input-type=module", "-e", claim], { encoding: "utf8" }).stdout;
    claimFolder(folder);
    expect(other()).toBe("folder-in-use");
    leaveFolder();
    expect([other(), other()]).toEqual(["in", "in"]);
  });

  test("a folder that is moved or replaced while in use is noticed before anything is said to be saved; put back, it goes on", async () => {
    const { id } = await bring();
    renameSync(folder, `${folder}-moved`);
    expect(faultCode(() => database())).toBe("folder-moved");
    mkdirSync(folder);
    closeDatabase(openDatabase(path.join(folder, DATABASE_FILE)));
    expect(faultCode(() => database())).toBe("folder-moved");
    rmSync(folder, { recursive: true });
    renameSync(`${folder}-moved`, folder);
    expect(editStudy(database(), id, 1, [{ subject: "name", to: "Goes on" }]).revision).toBe(2);
  });

  test.each<[string, string, (file: string) => void]>([
    ["empty", "database-empty", (file) => writeFileSync(file, "")],
    ["no database", "database-damaged", (file) => writeFileSync(file, "a letter to the editor".repeat(100))],
    ["cut in the middle", "database-damaged", (file) => writeFileSync(file, readFileSync(file).subarray(0, 9000))],
    [
      "of a newer program",
      "database-newer",
      (file) => void new Sqlite(file).exec("insert into __drizzle_migrations (hash, created_at) values ('x', 9e15)").close(),
    ],
  ])("a file that is %s is refused in a sentence and left as it is", (_, code, spoil) => {
    const file = path.join(folder, DATABASE_FILE);
    closeDatabase(openDatabase(file), { alone: true });
    spoil(file);
    const bytes = readFileSync(file);
    expect(faultCode(() => studiesRepository(openDatabase(file)).list())).toBe(code);
    expect(readFileSync(file).equals(bytes)).toBe(true);
  });

  test.each([
    ["SQLITE_FULL", "disk-full", 507],
    ["ENOSPC", "disk-full", 507],
    ["SQLITE_READONLY_DBMOVED", "folder-closed", 503],
    ["SQLITE_IOERR_WRITE", "disk-fault", 503],
    ["SQLITE_CORRUPT_VTAB", "database-damaged", 500],
  ])("%s is told as %s", (sqlite, code, status) => {
    const error = Object.assign(new Error("value 42"), { code: sqlite });
    expect(faultOf("test", new Error("wrapped", { cause: error }))).toMatchObject({ code, status });
    expect(faultOf("test", error).message).not.toMatch(/42/);
  });

  test("an unknown error is no fault of the store", () => expect(storageFault(new Error("x"))).toBeNull());
});

describe("backups", () => {
  const day = (k: number) => new Date(Date.UTC(2026, 10, k, 12));

  test("one a day, the last seven kept; restored, the study is as it was, and what stood there is kept", async () => {
    const { id } = await bring();
    for (let k = 1; k <= 9; k++)
      expect([await backUp(connection(), folder, day(k)), await backUp(connection(), folder, day(k))]).toEqual([true, false]);
    expect(backupDays(folder)).toEqual([9, 8, 7, 6, 5, 4, 3].map((k) => `2026-11-0${k}`));
    editStudy(database(), id, 1, [{ subject: "name", to: "After the backup" }]);
    closeDatabase(held.betaStepDatabase!.db);
    delete held.betaStepDatabase;
    const aside = restoreBackup(folder, "2026-11-05");
    expect(studiesRepository(database()).load(id).study.name).toBe("answers");
    const replaced = openDatabase(aside!);
    expect(studiesRepository(replaced).load(id).study.name).toBe("After the backup");
    closeDatabase(replaced);
  });

  test("a damaged backup, or a day without one, changes nothing", async () => {
    await bring();
    await backUp(connection(), folder, day(1));
    const file = path.join(folder, "backups", "beta-step-2026-11-01.sqlite");
    writeFileSync(file, readFileSync(file).subarray(0, 9000));
    expect(() => restoreBackup(folder, "2026-11-01")).toThrow(/damaged/);
    expect(() => restoreBackup(folder, "2026-11-02")).toThrow(/no backup of 2026-11-02/);
    expect(() => restoreBackup(folder, "../../x")).toThrow(/no backup/);
    expect(studiesRepository(database()).list()).toHaveLength(1);
  });
});

describe("the end of a study", () => {
  test("deleted, it is in no list and takes no edits; taken back, it is as it was", async () => {
    const { id, study } = await bring();
    deleteStudy(database(), id);
    expect([studiesRepository(database()).list(), studiesRepository(database()).deleted().length]).toEqual([[], 1]);
    expect(() => editStudy(database(), id, 1, [{ subject: "name", to: "x" }])).toThrow(/no study/);
    takeStudyBack(database(), id);
    expect(studiesRepository(database()).load(id).study).toEqual(study);
    expect(() => takeStudyBack(database(), id)).toThrow(/no study/);
  });

  test("erased, no answer lies in any file: database, log, backups, what a restored one replaced, uploads; another study stays whole", async () => {
    const { id } = await bring();
    const other = await bring("a,b\n1,2\n", "other.csv");
    const responses = studiesRepository(database()).load(id).study.responses!;
    const mended = { row: 1, variable: "word", from: `${SECRET}-0`, to: `${SECRET}-mended`, note: "" };
    editStudy(database(), id, 1, [{ subject: "correction", id: "1:word", to: mended }]);
    await saveUpload(Readable.from([Buffer.from(CSV)]), { name: "answers.csv", expected: null }, folder);
    await backUp(connection(), folder);
    writeFileSync(
      path.join(folder, `${DATABASE_FILE}.before-x`),
      readFileSync(path.join(folder, "backups", readdirSync(path.join(folder, "backups"))[0]!)),
    );
    expect(lies(SECRET).length).toBeGreaterThanOrEqual(4);
    deleteStudy(database(), id);
    await eraseStudy(database(), id, folder);
    expect(lies(SECRET)).toEqual([]);
    expect(() => responsesRepository(database()).facts(responses.dataset)).toThrow(/no dataset/);
    expect(responsesRepository(database()).facts(other.study.responses!.dataset).rows).toBe(1);
  });

  test("two weeks after it was deleted it is erased, not before", async () => {
    const { id } = await bring();
    deleteStudy(database(), id, new Date("2026-11-01T00:00:00Z"));
    await sweepDeleted(database(), new Date("2026-11-14T23:00:00Z"), folder);
    expect(studiesRepository(database()).deleted()).toHaveLength(1);
    await sweepDeleted(database(), new Date("2026-11-15T01:00:00Z"), folder);
    expect([studiesRepository(database()).deleted(), lies(SECRET)]).toEqual([[], []]);
  });
});

test("an edit for a variable that no column stands behind is refused", async () => {
  const { id, study } = await bring();
  const ghost = { ...study.codebook[0]!, name: "ghost" };
  expect(() => editStudy(database(), id, 1, [{ subject: "variable", id: "ghost", to: ghost, at: 0 }])).toThrow(/lack ghost/);
});

describe("a respondent who withdraws", () => {
  /** The third respondent is the only one with this word and this code. */
  const rows = Array.from({ length: 9 }, (_, k) => `c${k},${20 + k},${k === 2 ? SECRET : `word ${k % 3}`}`);
  const file = (lines: string[]) => `code,age,word\n${lines.join("\n")}\n`;

  test("is erased from every file; the study is what it would be without, and says that one withdrew", async () => {
    const { id, study } = await bring(file(rows));
    await saveUpload(Readable.from([Buffer.from(file(rows))]), { name: "answers.csv", expected: null }, folder);
    const correction = (row: number, from: string, to: string) => ({
      subject: "correction" as const,
      id: `${row}:word`,
      to: { row, variable: "word", from, to, note: "" },
    });
    editStudy(database(), id, 1, [correction(3, SECRET, `${SECRET}-mended`), correction(9, "word 2", "mended")]);
    const filter = { id: "f", name: "F", conditions: [{ kind: "not-rows", rows: [1, 3, 5] }], everywhere: true };
    editStudy(database(), id, 2, [{ subject: "filter", id: "f", to: RespondentFilter.parse(filter) }]);
    const values = [SECRET, "word 1"].map((written, k) => ({ written, value: k + 1 }));
    const reading = { id: "r", name: "R", variables: ["word"], rule: { kind: "words" as const, values } };
    editStudy(database(), id, 3, [{ subject: "reading", id: "r", to: reading }]);
    await backUp(connection(), folder);
    const worked = { kind: "ladder" as const, id: "l", key: "k" };
    firstNumbersRepository(database()).put(id, { ...worked, result: SECRET });
    const saved = await withdrawRespondent(database(), id, 4, 3, folder);

    expect(lies(SECRET)).toEqual([]);
    expect(firstNumbersRepository(database()).find(id, worked)).toBeNull();
    const names = ["code", "age", "word"];
    const answers = (dataset: string) =>
      responsesRepository(database())
        .columns(dataset, names)
        .map((column) => Array.from(column.values, (_, row) => cellText(column, row)));
    const without = await bring(file(rows.filter((_, k) => k !== 2)));
    expect(answers(saved.study.responses!.dataset)).toEqual(answers(without.study.responses!.dataset));
    expect(saved.study.responses).toMatchObject({ rows: 8, withdrawn: 1, fileName: study.responses!.fileName });
    expect(saved.study.corrections).toMatchObject([{ row: 8, to: "mended" }]);
    expect(saved.study.filters[0]!.conditions).toMatchObject([{ rows: [1, 4] }]);
    expect(saved.study.readings).toMatchObject([{ rule: { values: [{ written: "word 1" }] } }]);
    const trail = studiesRepository(database()).revisions(id, { before: null, most: 9 });
    expect(trail[0]).toMatchObject({ revision: 5, how: "withdrawal", changes: [] });
    expect(trail[0]!.when).toMatch(/^\d{4}-/);
  });

  test("cannot be brought back: nothing before is taken back or gone back to; what comes after is", async () => {
    const { id } = await bring(file(rows));
    editStudy(database(), id, 1, [{ subject: "name", to: "Before" }]);
    await withdrawRespondent(database(), id, 2, 1, folder);
    const repository = () => studiesRepository(database());
    expect(undoable(repository().marks(id))).toEqual({ undo: null, redo: null });
    expect(() => studyAt(database(), id, 2)).toThrow(/no revision/);
    editStudy(database(), id, 3, [{ subject: "name", to: "After" }]);
    expect(undoable(repository().marks(id)).undo).toBe(4);
    expect(studyAt(database(), id, 3)).toMatchObject({ name: "Before", responses: { rows: 8 } });
  });

  test("of a row that is not there, or on a state that is not the newest, nobody is erased", async () => {
    const { id } = await bring(file(rows));
    await expect(withdrawRespondent(database(), id, 1, 10, folder)).rejects.toThrow(/no respondent/);
    await expect(withdrawRespondent(database(), id, 7, 1, folder)).rejects.toThrow(/another window/);
    expect(studiesRepository(database()).load(id)).toMatchObject({ revision: 1, study: { responses: { rows: 9 } } });
  });
});

test("a study is renamed on its trail, copied onto the same responses, put away; what ends one leaves the copy whole", async () => {
  const { id } = await bring();
  renameStudy(database(), id, "First wave");
  expect(studiesRepository(database()).revisions(id, { before: null, most: 1 })[0]!.changes).toMatchObject([
    { subject: "name", to: "First wave" },
  ]);
  const copies = [copyStudy(database(), id), copyStudy(database(), id)];
  expect(copies.map(({ study }) => study.name)).toEqual(["First wave (copy)", "First wave (copy 2)"]);
  const { study } = studiesRepository(database()).load(id);
  expect(copies[0]!.study).toEqual({ ...study, name: "First wave (copy)" });
  putStudyAway(database(), id, true);
  const list = () => Object.fromEntries(studiesRepository(database()).list().map((line) => [line.name, line.putAway])); // prettier-ignore
  expect(list()).toEqual({ "First wave": true, "First wave (copy)": false, "First wave (copy 2)": false });
  putStudyAway(database(), id, false);
  expect(list()["First wave"]).toBe(false);
  deleteStudy(database(), id);
  expect(() => putStudyAway(database(), id, true)).toThrow("study");
  expect(studiesRepository(database()).besides(id, study.responses!.dataset).map(({ name }) => name)).toEqual(["First wave (copy)", "First wave (copy 2)"]); // prettier-ignore
  await eraseStudy(database(), id, folder);
  const [age] = responsesRepository(database()).columns(copies[0]!.study.responses!.dataset, ["age"]);
  expect(age!.values).toHaveLength(50);
});
