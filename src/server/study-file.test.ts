import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { Readable } from "node:stream";
import { strFromU8, unzipSync } from "fflate";
import { packStudyFile, type StudyFileParts } from "@/files/study-file/pack";
import { loadAnalyses, resultsDocument } from "@/study/analyse/results-document";
import {
  resultsWithoutRespondents,
  shuffledCopy,
  studyWithoutRespondents,
  tellingTexts,
  wholeStudy,
} from "@/study/analyse/travelling-study";
import { Ladder } from "@/study/model/ladder";
import { cellText, CellState, type ResponseColumn } from "@/study/model/response-column";
import { RespondentFilter } from "@/study/model/respondent-filter";
import { Scale } from "@/study/model/scale";
import { Study } from "@/study/model/study";
import { type Database, openDatabase } from "./database";
import { importAsStudy } from "./import-responses";
import { responsesRepository } from "./repositories/responses-repository";
import { studiesRepository } from "./repositories/studies-repository";
import { studyFileFacts, takeStudyFile } from "./study-file";
import { editStudy } from "./study-door";
import { saveUpload } from "./uploads";

let db: Database;
let folder: string;
beforeEach(() => {
  db = openDatabase(":memory:");
  folder = mkdtempSync(path.join(tmpdir(), "beta-step-file-"));
});
afterEach(() => rmSync(folder, { recursive: true }));

const N = 60;
/** Numbers that nobody else has, so that one that gets out is found; in a decimal comma; words with all the signs that files trip over. */
const secret = (i: number, k: number) => (1000 + ((i * 7919 + k * 104729) % 9973) + (i + 1) / 128).toFixed(6).replace(".", ",");
const words = (i: number) => `zebra-${i} said "=SUM(A1)", then\nleft; 'ok'`;
const csv = [
  "code;site;x;m;y;q1;q2;q3;told;seven",
  ...Array.from({ length: N }, (_, i) => [`RSP-${String(i).padStart(4, "0")}`, ["park", "yard"][i % 2], secret(i, 1), secret(i, 2), secret(i, 3), 1 + (i % 5), 1 + ((i * 3) % 5), 1 + ((i * 7) % 5), `"${words(i).replaceAll('"', '""')}"`, i % 9 === 0 ? "" : "007"].join(";")), // prettier-ignore
].join("\n");

/** A study of such a file with a scale, a filter that needs its words, and a ladder. */
async function prepared() {
  const saved = await importAsStudy(db, Readable.from([Buffer.from(csv)]), { name: "visits.csv", expected: null }, folder);
  const steps = [{ id: "a", terms: [{ components: ["x"] }, { components: ["site"] }] }, { id: "b", terms: [{ components: ["m"] }, { components: ["x", "m"] }] }]; // prettier-ignore
  const add = (edits: Parameters<typeof editStudy>[3]) => editStudy(db, saved.id, studiesRepository(db).load(saved.id).revision, edits);
  add([{ subject: "filter", id: "told", to: RespondentFilter.parse({ id: "told", name: "Said something else", everywhere: true, conditions: [{ kind: "values", variable: "told", equals: [words(3)], not: true }] }) }]); // prettier-ignore
  add([{ subject: "correction", id: "5:q1", to: { row: 5, variable: "q1", from: "5", to: "2" } }] as never);
  add([
    {
      subject: "scale",
      id: "calm",
      to: Scale.parse({ id: "calm", name: "Calm", items: ["q1", "q2", "q3"].map((variable) => ({ variable })) }),
    },
    { subject: "ladder", id: "l", to: Ladder.parse({ id: "l", name: "Visits", outcome: "y", steps }) },
  ]);
  const { study } = studiesRepository(db).load(saved.id);
  const responses = responsesRepository(db);
  const { columns: names } = responses.facts(study.responses!.dataset);
  const columns = responses.columns(study.responses!.dataset, names);
  return { study, columns, id: saved.id };
}

const resultsOf = async (study: Study, columns: readonly ResponseColumn[]) =>
  JSON.parse(JSON.stringify(resultsDocument(study, (name) => columns.find((c) => c.name === name), await loadAnalyses()))) as Record<string, unknown>; // prettier-ignore
const parts = (own: Partial<StudyFileParts> & Pick<StudyFileParts, "kind" | "study" | "columns" | "results" | "codebook">): StudyFileParts => ({ name: "Visits", source: "visits.csv", withdrawn: 0, made: "2026-11-28T20:00:00.000Z", trail: null, text: "# Visits", page: "<h1>Visits</h1>", ...own }); // prettier-ignore
const written = (of: StudyFileParts) => {
  const file = path.join(folder, `${of.kind}.zip`);
  writeFileSync(file, Buffer.concat(packStudyFile(of)));
  return file;
};
const arrived = async (file: string) => saveUpload(Readable.from([await import("node:fs").then((fs) => fs.readFileSync(file))]), { name: "v.zip", expected: null }, folder); // prettier-ignore
const cellsOf = (column: ResponseColumn) => Array.from(column.states, (_, row) => cellText(column, row));

test("a whole study comes back cell by cell, whatever is in its cells", async () => {
  const { study, columns } = await prepared();
  const results = await resultsOf(study, columns);
  const whole = parts({ kind: "whole", study: wholeStudy(study), columns, codebook: study.codebook, results });
  const file = written(whole);
  expect((await studyFileFacts(file)).said[0]).toContain(`It holds ${N} respondents with all answers`);
  const opened = await takeStudyFile(db, await arrived(file));
  const again = responsesRepository(db).columns(opened.study.responses!.dataset, columns.map((c) => c.name)); // prettier-ignore
  columns.forEach((column, k) => {
    expect(cellsOf(again[k]!)).toEqual(cellsOf(column));
    expect([...again[k]!.states]).toEqual([...column.states]);
    expect(again[k]!.decimal).toBe(column.decimal);
  });
  expect({ ...opened.study, responses: null }).toEqual({ ...study, responses: null });
}, 60_000);

test("no answer, code or word of any respondent is in a copy without them, and its numbers are worked out again", async () => {
  const { study, columns } = await prepared();
  const results = await resultsOf(study, columns);
  const counts = (name: string) => {
    const all = cellsOf(columns.find((c) => c.name === name)!);
    return new Map(
      [...new Set(all)].flatMap((value) => (value === null ? [] : [[value, all.filter((one) => one === value).length] as const])),
    );
  };
  const without = studyWithoutRespondents(study, counts);
  const file = written(parts({ kind: "without-respondents", study: without, columns: [], codebook: without.codebook, results: resultsWithoutRespondents(results, tellingTexts(study, counts)) })); // prettier-ignore
  const texts = Object.entries(unzipSync(await import("node:fs").then((fs) => fs.readFileSync(file)))).map(([name, bytes]) => [name, strFromU8(bytes)] as const); // prettier-ignore
  const told = new Set(columns.filter((c) => ["code", "x", "m", "y", "told"].includes(c.name)).flatMap((c) => cellsOf(c)));
  for (const [name, text] of texts)
    for (const answer of told) {
      for (const way of [answer!, answer!.replace(",", "."), JSON.stringify(answer).slice(1, -1)]) expect({ name, way, there: text.includes(way) }).toEqual({ name, way, there: false }); // prettier-ignore
    }
  expect(texts.map(([name]) => name)).not.toContain("responses.csv");
  // and no list in it is as long as there are respondents
  const longest = (value: unknown): number => (Array.isArray(value) ? Math.max(value.length, ...value.map(longest)) : value !== null && typeof value === "object" ? Math.max(0, ...Object.values(value).map(longest)) : 0); // prettier-ignore
  for (const [name, text] of texts) if (name.endsWith(".json")) expect(longest(JSON.parse(text))).toBeLessThan(N / 2);
  expect((await studyFileFacts(file)).said.at(-1)).toBe("22 numbers (b, SE, β, R², ΔR²) of 1 ladder were worked out again from n, means, SDs and correlations, and agree."); // prettier-ignore
  const opened = await takeStudyFile(db, await arrived(file));
  expect(opened.study.responses).toMatchObject({ rows: 0 });
  expect(opened.study.ladders[0]!.name).toBe("Visits");
}, 60_000);

test("a copy under shuffled codes holds the chosen variables of the same respondents, in another order, and what needs others is not in it", async () => {
  const { study, columns } = await prepared();
  const { study: copied, columns: shuffled, leftOut } = shuffledCopy(study, columns, ["x", "m", "y", "site", "code", "q1"], 77);
  // the filter that holds for all looks at what they said, so that this comes along
  expect(shuffled.map((c) => c.name).sort()).toEqual(["code", "m", "q1", "site", "told", "x", "y"]);
  expect(leftOut).toEqual(["Scale Calm"]);
  const rowOf = (of: readonly ResponseColumn[], row: number) => ["x", "m", "y", "site"].map((name) => cellText(of.find((c) => c.name === name)!, row)).join("|"); // prettier-ignore
  const [before, after] = [columns, shuffled].map((of) => Array.from({ length: N }, (_, row) => rowOf(of, row)));
  expect(after).not.toEqual(before);
  expect(after!.toSorted()).toEqual(before!.toSorted());
  const codes = cellsOf(shuffled.find((c) => c.name === "code")!);
  expect(new Set(codes).size).toBe(N);
  for (const code of codes) expect(code).toMatch(/^R\d\d$/);
  // corrections are in the answers, so that they cannot be told
  expect(copied.corrections).toEqual([]);
  const q1 = shuffled.find((c) => c.name === "q1")!;
  expect(cellsOf(q1).filter((v) => v === "2")).toHaveLength(cellsOf(columns.find((c) => c.name === "q1")!).filter((v) => v === "2").length + 1); // prettier-ignore
  expect([...q1.states].every((state) => state === CellState.number)).toBe(true);
  const [one, other] = [await resultsOf(study, columns), await resultsOf(copied, shuffled)] as { ladders: { l: { steps: Record<string, { model: { R2: number } }> } } }[]; // prettier-ignore
  expect(other!.ladders.l.steps["2"]!.model.R2).toBeCloseTo(one!.ladders.l.steps["2"]!.model.R2, 12);
});

test("a plan without answers travels as one, and opens as one", async () => {
  const study = Study.parse({ format: "beta-step-study", version: 1, name: "Plan", codebook: [{ name: "x" }, { name: "y" }] });
  const file = written(parts({ kind: "whole", study, columns: ["x", "y"].map((name) => ({ name, values: new Float64Array(0), states: new Uint8Array(0), texts: [] })), codebook: study.codebook, results: {} })); // prettier-ignore
  const opened = await takeStudyFile(db, await arrived(file));
  expect(opened.study.responses).toMatchObject({ rows: 0, fileName: "visits.csv" });
  expect(responsesRepository(db).facts(opened.study.responses!.dataset).columns).toEqual(["x", "y"]);
});

test("what names a code, or a level that only few have, is not in a copy without respondents, nor what stands on it", () => {
  const level = (value: string, label = "") => ({ value, label });
  const steps = [{ id: "a", terms: [{ components: ["x"] }] }];
  const study = Study.parse({
    format: "beta-step-study",
    version: 1,
    name: "S",
    codebook: [{ name: "who", kind: "code" }, { name: "x" }, { name: "y" }, { name: "site", kind: "category", levels: [level("park"), level("annex", "The annexe")] }], // prettier-ignore
    ladders: [
      { id: "kept", name: "Kept", outcome: "y", filter: { variable: "who", equals: ["RSP-0007"] }, steps },
      { id: "rare", name: "Rare", outcome: "y", categories: [{ variable: "site", reference: "annex" }], steps },
    ],
    probes: [{ id: "p", ladder: "rare", focal: "x", moderators: [{ variable: "y" }] }],
    blocks: [
      { id: "b1", what: { kind: "prose", text: [["Those of The annexe differ."]] } },
      { id: "b2", what: { kind: "prose", text: [["All differ."]] } },
    ],
  });
  const counts = (name: string) => new Map(name === "who" ? [["RSP-0007", 1]] : name === "site" ? [["park", 40], ["annex", 2]] : []); // prettier-ignore
  const copy = studyWithoutRespondents(study, counts);
  expect(JSON.stringify(copy)).not.toMatch(/RSP-0007|annex/);
  expect([copy.ladders, copy.probes, copy.blocks].map((all) => all.map(({ id }) => id))).toEqual([["kept"], [], ["b2"]]);
  const results = { ladders: { kept: { status: "fitted", settings: { filter: { equals: ["RSP-0007"] } } }, rare: { status: "fitted", steps: { 1: { coef: { "site[annex]": { b: 1 } } } } } } }; // prettier-ignore
  expect(resultsWithoutRespondents(results, tellingTexts(study, counts))["ladders"]).toEqual({ kept: { status: "fitted", settings: { filter: null }, sample: {} } }); // prettier-ignore
});

test("a reading that several columns share goes along with those that were chosen", () => {
  const column = (name: string): ResponseColumn => ({
    name,
    values: new Float64Array(2),
    states: new Uint8Array(2).fill(CellState.text),
    texts: ["agree"],
  });
  const reading = { id: "r", name: "Agreement", variables: ["q1", "q2"], answers: [{ written: "agree", value: 1 }] };
  const study = { ...Study.parse({ format: "beta-step-study", version: 1, name: "S", codebook: [{ name: "q1" }, { name: "q2" }] }), readings: [reading] } as unknown as Study; // prettier-ignore
  const { study: copied, leftOut } = shuffledCopy(study, [column("q1"), column("q2")], ["q1"], 1);
  expect(copied.readings.map((r) => r.variables)).toEqual([["q1"]]);
  expect(leftOut).toEqual([]);
});
