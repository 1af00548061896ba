import { applyEdits, type Edit, EditRefusedError, inverseEdit } from "../model/edit";
import { soundnessFaults } from "../model/soundness";
import { Study } from "../model/study";
import { StudyColumns } from "../prepare/study-columns";
import { sourceOf } from "../test-support/columns";
import { FILE, wholeStudy } from "../test-support/whole-study";
import { askedKind, KEPT, TOLD } from "./kinds";
import { asked, objectsOf, touchedBy, usedBy } from "./standing";

const sha256 = "0".repeat(64);
const theory = wholeStudy.theories[0]!;
/** One object at least of every kind that a study can hold. */
const study = Study.parse({
  ...wholeStudy,
  codebook: [...wholeStudy.codebook, { name: "late", kind: "number" }],
  corrections: [{ variable: "age", row: 3, from: FILE["age"]![2], to: "33" }],
  readings: [{ id: "words", name: "Words", variables: ["other"], rule: { kind: "amounts", decimal: ".", unit: "", spans: "none" } }],
  derived: [{ name: "late", recipe: { kind: "formula", formula: "age - 20" } }],
  comparisons: [{ id: "two", name: "Two", models: [{ name: "one", ladder: "l", step: 1 }, { name: "other", ladder: "l", step: 2 }] }],
  residuals: [{ id: "r", ladder: "l" }],
  shifts: [{ id: "w", ladder: "l", step: 3, column: [{ variable: "x" }] }],
  added: [{ id: "a", ladder: "l", step: 2 }],
  powers: [{ id: "n", hypothesis: "h1" }],
  plans: [{ id: "plan", at: "2026-01-02T03:04:05Z", rows: 0, sha256, document: { codebook: [], scales: [], derived: [], filters: [], ladders: [], hypotheses: [], powers: [], theory } }],
  blocks: [{ id: "block", what: { kind: "table", of: { kind: "coefficients", ids: ["l"] } } }],
}); // prettier-ignore
const file = Object.keys(FILE);
const everything = KEPT.flatMap((kind) => objectsOf(study, kind).map((object) => ({ kind, object, id: kind.idOf(object), key: `${kind.kind} ${kind.idOf(object)}` }))); // prettier-ignore
const edit = (kind: string, id: string, to: unknown, at?: number) => ({ subject: kind, id, to, ...(at === undefined ? {} : { at }) }) as Edit; // prettier-ignore

test("the study of these laws is sound and holds an object of every kind: a new kind gets one here", () => {
  expect(soundnessFaults(study)).toEqual([]);
  expect(KEPT.filter((kind) => objectsOf(study, kind).length === 0).map(({ kind }) => kind)).toEqual([]);
});

test("law: an object that others stand on cannot be taken out, and it is said which; any other can, and comes back where it stood", () => {
  const workedOut = new Set(study.derived.map(({ name }) => name));
  for (const { kind, id, key } of everything) {
    if (kind.kind === "variable" && workedOut.has(id)) continue; // goes with its recipe
    const users = usedBy(study, { kind: ["variable", "scale", "derived"].includes(kind.kind) ? "name" : kind.kind, id }).filter((one) => `${one.kind} ${one.id}` !== key); // prettier-ignore
    let changed: ReturnType<typeof applyEdits> | null = null;
    let refusal = "";
    try {
      changed = applyEdits(study, [edit(kind.kind, id, null), ...(kind.kind === "derived" ? [edit("variable", id, null)] : [])]);
    } catch (error) {
      if (!(error instanceof EditRefusedError)) throw error;
      refusal = error.message;
    }
    if (changed) {
      expect([key, objectsOf(changed.study, kind).length]).toEqual([key, objectsOf(study, kind).length - 1]);
      expect(applyEdits(changed.study, [...changed.changes].reverse().map(inverseEdit)).study).toEqual(study);
    } else {
      expect([key, users.length]).not.toEqual([key, 0]);
      expect([key, users.some((one) => refusal.includes(`"${one.name}"`))]).toEqual([key, true]);
    }
  }
});

test("law: an object parses to itself, and the study that holds all of them too, as it comes from JSON", () => {
  for (const { kind, object, key } of everything) expect([key, kind.schema.parse(JSON.parse(JSON.stringify(object)))]).toEqual([key, object]); // prettier-ignore
  expect(Study.parse(JSON.parse(JSON.stringify(study)))).toEqual(study);
});

test("law: what an object names touches its numbers when it changes, and is said to be used by it", () => {
  for (const { kind, object, key } of everything) {
    const needs = kind.needs(object, study);
    const told = TOLD.some((one) => one.kind === kind.kind);
    // a variable's own row, recipe and corrections are a part of it
    for (const { name } of needs.names) {
      const uses = usedBy(study, { kind: "name", id: name }).map((one) => `${one.kind} ${one.id}`);
      if (!["variable", "derived", "correction"].includes(kind.kind)) expect([key, name, uses.includes(key)]).toEqual([key, name, true]);
      const subject = study.scales.some((s) => s.id === name) ? "scale" : "variable";
      const touched = touchedBy(study, [{ subject, id: name, from: null }]).map((one) => `${one.kind} ${one.id}`);
      if (told) expect([key, name, touched.includes(key)]).toEqual([key, name, true]);
    }
    for (const ref of needs.objects ?? []) expect(usedBy(study, ref).map((one) => `${one.kind} ${one.id}`)).toContain(key);
  }
});

describe("law: the few columns and settings that a job takes along give the numbers that the whole study gives", () => {
  const responses = sourceOf(FILE);
  const rows = FILE["age"]!.length;
  const run = async (name: string, object: unknown, bare: boolean) => {
    const { spec, context, columns } = asked(name, object, study, file);
    const has = new Set(columns);
    const source = bare ? (column: string) => (has.has(column) ? responses(column) : undefined) : responses;
    const own = bare ? context : study;
    const { analysis } = await askedKind(name).load();
    return analysis.run(spec, { study: own, responses: source, columns: new StudyColumns(own, source), rows, objects: () => [], progress: () => {}, shelf: () => new Map() }); // prettier-ignore
  };
  const told = everything.filter(({ kind }) => TOLD.some((one) => one.kind === kind.kind));
  test.each(told.map(({ key, ...one }) => [key, one] as const))("%s", async (_, { kind, object }) => {
    const [bare, whole] = [await run(kind.kind, object, true), await run(kind.kind, object, false)];
    expect(bare).toEqual(whole);
    const headline = askedKind(kind.kind).headline!(bare);
    expect(headline).toEqual(askedKind(kind.kind).headline!(whole));
    for (const { value } of headline ?? []) expect(value === null || Number.isFinite(value)).toBe(true);
  });
});
