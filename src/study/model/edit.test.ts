import fc from "fast-check";
import { applyEdits, type Edit, EditRefusedError, inverseEdit } from "./edit";
import { Comparison } from "./comparison";
import { Ladder } from "./ladder";
import { Scale } from "./scale";
import { Structure } from "./structure";
import { Study } from "./study";

const scale = (id: string, ...items: string[]) => Scale.parse({ id, name: `Scale ${id}`, items: items.map((variable) => ({ variable })) });
const ladder = (id: string, outcome: string | null, ...terms: string[]) =>
  Ladder.parse({ id, name: id, outcome, steps: [{ id: "s1", terms: terms.map((t) => ({ components: [t] })) }] });
const start = Study.parse({
  format: "beta-step-study",
  version: 1,
  name: "Start",
  codebook: ["a", "b", "c"].map((name) => ({ name })),
  scales: [scale("s", "a", "b"), scale("t", "c")],
  ladders: [ladder("l", "c", "s"), ladder("m", null)],
});

const editOf: fc.Arbitrary<Edit> = fc.oneof(
  fc
    .string({ minLength: 1 })
    .filter((s) => s.trim() !== "")
    .map((to): Edit => ({ subject: "name", to: to.trim() })),
  fc
    .constantFrom("a", "b", "c")
    .chain((id) =>
      fc
        .string()
        .map((label): Edit => ({ subject: "variable", id, to: { ...start.codebook.find((v) => v.name === id)!, label: label.trim() } })),
    ),
  fc
    .tuple(fc.constantFrom("s", "t", "u"), fc.boolean(), fc.nat(3))
    .map(([id, keep, at]): Edit => ({ subject: "scale", id, to: keep ? scale(id, "b") : null, at })),
  fc
    .tuple(fc.constantFrom("l", "m", "n"), fc.boolean(), fc.nat(3))
    .map(([id, keep, at]): Edit => ({ subject: "ladder", id, to: keep ? ladder(id, "a", "b") : null, at })),
);

test("any edits that go through can be taken back, last first, to exactly what was there", () => {
  let through = 0;
  fc.assert(
    fc.property(fc.array(editOf, { minLength: 1, maxLength: 6 }), (edits) => {
      try {
        const { study, changes } = applyEdits(start, edits);
        through++;
        expect(applyEdits(study, [...changes].reverse().map(inverseEdit)).study).toEqual(start);
      } catch (error) {
        if (!(error instanceof EditRefusedError)) throw error;
      }
    }),
    { numRuns: 300 },
  );
  expect(through).toBeGreaterThan(50);
});

test("a comparison is edited like a ladder, and keeps the ladders it names", () => {
  const models = [
    { name: "L", ladder: "l" },
    { name: "M", ladder: "m" },
  ];
  const comparison = Comparison.parse({ id: "c", name: "C", models });
  const { study, changes } = applyEdits(start, [{ subject: "comparison", id: "c", to: comparison }]);
  expect(study.comparisons).toEqual([comparison]);
  expect(() => applyEdits(study, [{ subject: "ladder", id: "m", to: null }])).toThrow(/names a ladder "m" that is not there/);
  expect(applyEdits(study, changes.map(inverseEdit)).study).toEqual(start);
});

test("a structure is edited like a scale, kept apart from names of results, and keeps the scale whose score it looks at", () => {
  const structure = Structure.parse({ id: "s", name: "Three", items: ["a", "b", "t"] });
  const { study, changes } = applyEdits(start, [{ subject: "structure", id: "s", to: structure }]);
  expect(study.structures).toEqual([structure]);
  expect(() => applyEdits(study, [{ subject: "scale", id: "t", to: null }])).toThrow(/structure "Three" uses "t"/);
  expect(() => applyEdits(study, [{ subject: "structure", id: "s", to: { ...structure, items: ["a", "a", "b"] } }])).toThrow(/twice/);
  expect(applyEdits(study, changes.map(inverseEdit)).study).toEqual(start);
});

test("a change records what was there and what became of it", () => {
  const { changes } = applyEdits(start, [{ subject: "scale", id: "t", to: null }]);
  expect(changes).toEqual([{ subject: "scale", id: "t", from: start.scales[1], to: null, at: 1 }]);
});

test.each<[string, Edit, RegExp]>([
  ["removing a scale a ladder uses", { subject: "scale", id: "s", to: null }, /ladder "l" uses "s"/],
  ["removing what is not there", { subject: "ladder", id: "nobody", to: null }, /no ladder "nobody"/],
  ["a scale of an item that is not in the codebook", { subject: "scale", id: "u", to: scale("u", "zz") }, /"zz"/],
  ["a scale with the name of a variable", { subject: "scale", id: "a", to: scale("a", "b") }, /used twice/],
  ["a variable under another name", { subject: "variable", id: "a", to: { ...start.codebook[0]!, name: "A" } }, /keeps the name/],
  ["a variable that is not there", { subject: "variable", id: "q", to: { ...start.codebook[0]!, name: "q" } }, /no variable "q"/],
])("%s is refused with the reason", (_, edit, reason) => {
  expect(() => applyEdits(start, [edit])).toThrow(EditRefusedError);
  expect(() => applyEdits(start, [edit])).toThrow(reason);
});

test("several edits take effect all or none", () => {
  const edits: Edit[] = [
    { subject: "name", to: "Other" },
    { subject: "scale", id: "s", to: null },
  ];
  expect(() => applyEdits(start, edits)).toThrow(EditRefusedError);
  const both = applyEdits(start, [
    { subject: "ladder", id: "l", to: null },
    { subject: "scale", id: "s", to: null },
  ]);
  expect([both.study.scales.length, both.study.ladders.length]).toEqual([1, 1]);
  expect(start.scales).toHaveLength(2);
});

test("twenty thousand edits in one set take effect within the time of a handful of sorts, and are taken back alike", () => {
  const edits = Array.from({ length: 20_000 }, (_, k): Edit => {
    const to = { row: k + 1, variable: "a", from: "1", to: "2", note: "" };
    return { subject: "correction", id: `${k + 1}:a`, to };
  });
  const before = Study.parse({
    format: "beta-step-study",
    version: 1,
    name: "x",
    responses: { dataset: "d", fileName: "f", rows: 1 },
    codebook: [{ name: "a" }],
  });
  const { study, changes } = applyEdits(before, edits);
  expect(study.corrections).toHaveLength(20_000);
  expect(applyEdits(study, [...changes].reverse().map(inverseEdit)).study).toEqual(before);
});

test("a circle of thousands is told by its first few, and a row of thousands that stand on one another is refused", () => {
  const row = (k: number, from: string) => ({ name: `d${k}`, recipe: { kind: "formula", formula: `${from} + 1` } });
  const study = (last: string) => ({
    format: "beta-step-study",
    version: 1,
    name: "x",
    responses: { dataset: "d", fileName: "f", rows: 1 },
    codebook: [{ name: "a" }, ...Array.from({ length: 3000 }, (_, k) => ({ name: `d${k}` }))],
    derived: Array.from({ length: 3000 }, (_, k) => row(k, k === 0 ? last : `d${k - 1}`)),
  });
  const told = (last: string) =>
    Study.safeParse(study(last))
      .error!.issues.map((issue) => issue.message)
      .join(" ");
  expect(told("d2999")).toMatch(/that is a circle/);
  expect(told("d2999").length).toBeLessThan(1000);
  expect(told("a")).toMatch(/more than 400 deep/);
});
