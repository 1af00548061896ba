import fc from "fast-check";
import { applyEdits, type Change, type Edit, editsBetween, EditRefusedError, inverseEdit } from "./edit";
import { type RevisionMark, undoable } from "./history";
import { Scale } from "./scale";
import { Study } from "./study";
import { Structure } from "./structure";
import { touchedBy, usedBy } from "../kinds/standing";

const start = Study.parse({
  format: "beta-step-study",
  version: 1,
  name: "0",
  responses: { dataset: "imported", fileName: "z", rows: 9 },
  codebook: ["a", "b", "c", "d"].map((name) => ({ name })),
  derived: [{ name: "d", recipe: { kind: "formula", formula: "a + b" } }],
  filters: [{ id: "f", name: "F", conditions: [{ kind: "between", variable: "c", low: 1, high: null }] }],
  scales: [
    Scale.parse({ id: "s", name: "S", items: [{ variable: "a" }, { variable: "b" }] }),
    Scale.parse({ id: "t", name: "T", items: [{ variable: "c" }] }),
  ],
  ladders: [
    { id: "l", name: "L", outcome: "c", steps: [{ id: "1", terms: [{ components: ["s"] }] }] },
    { id: "m", name: "M", outcome: "d", respondents: "f", steps: [{ id: "1" }] },
  ],
});
const correction = { variable: "a", row: 3, from: "1", to: "2", note: "" };
const anEdit: fc.Arbitrary<Edit> = fc.oneof(
  fc.integer({ min: 1, max: 99 }).map((n): Edit => ({ subject: "name", to: String(n) })),
  fc
    .tuple(fc.constantFrom("a", "b", "c"), fc.string({ maxLength: 5 }))
    .map(([id, label]): Edit => ({ subject: "variable", id, to: { ...start.codebook.find((v) => v.name === id)!, label: label.trim() } })),
  fc.boolean().map((keep): Edit => ({ subject: "correction", id: "3:a", to: keep ? correction : null })),
  fc.tuple(fc.constantFrom("x", "y"), fc.boolean(), fc.nat(2)).map(([id, keep, at]): Edit => ({
    subject: "scale",
    id,
    to: keep ? Scale.parse({ id, name: id, items: [{ variable: "c" }] }) : null,
    at,
  })),
  fc.constantFrom<Edit>(
    { subject: "scale", id: "t", to: null },
    { subject: "filter", id: "g", to: { id: "g", name: "G", reason: "", everywhere: true, conditions: [{ kind: "not-rows", rows: [1] }] } },
    { subject: "responses", to: { dataset: "later", fileName: "x", rows: 9 } },
  ),
);

/** A study kept with its record, as the server keeps it. */
class Kept {
  study = start;
  marks: RevisionMark[] = [{ revision: 1, how: "edit", of: null }];
  changes = new Map<number, Change[]>();
  private record(edits: Edit[], how: RevisionMark["how"], of: number | null) {
    const { study, changes } = applyEdits(this.study, edits);
    const revision = this.marks.length + 1;
    this.study = study;
    this.changes.set(revision, changes);
    this.marks.push({ revision, how, of });
  }
  edit(edit: Edit): boolean {
    try {
      this.record([edit], "edit", null);
      return true;
    } catch (error) {
      if (error instanceof EditRefusedError) return false;
      throw error;
    }
  }
  turn(how: "undo" | "redo"): boolean {
    const of = undoable(this.marks)[how];
    if (of === null) return false;
    this.record([...this.changes.get(of)!].reverse().map(inverseEdit), how, of);
    return true;
  }
}

test("law: undo and redo by the record behave as two stacks of states would, however edits and turns are mixed", () => {
  fc.assert(
    fc.property(fc.array(fc.oneof(anEdit, fc.constantFrom("undo" as const, "redo" as const)), { maxLength: 25 }), (acts) => {
      const kept = new Kept();
      const before: Study[] = [];
      let after: Study[] = [];
      for (const act of acts) {
        const now = kept.study;
        if (act === "undo") {
          const there = before.pop();
          expect(kept.turn("undo")).toBe(there !== undefined);
          if (there) after.push(now);
          if (there) expect(kept.study).toEqual(there);
        } else if (act === "redo") {
          const there = after.pop();
          expect(kept.turn("redo")).toBe(there !== undefined);
          if (there) before.push(now);
          if (there) expect(kept.study).toEqual(there);
        } else if (kept.edit(act)) {
          before.push(now);
          after = [];
        }
      }
    }),
    { numRuns: 300 },
  );
});

test("law: the edits between two states lead from one to the other, back again, and are none from a state to itself", () => {
  fc.assert(
    fc.property(fc.array(anEdit, { maxLength: 8 }), fc.array(anEdit, { maxLength: 8 }), (first, second) => {
      const walk = (edits: Edit[]) => {
        const kept = new Kept();
        kept.edit({ subject: "responses", to: { dataset: "first", fileName: "y", rows: 9 } });
        edits.forEach((edit) => kept.edit(edit));
        return kept.study;
      };
      const [a, b] = [walk(first), walk(second)];
      for (const [from, to] of [
        [a, b],
        [b, a],
      ] as const) {
        const edits = editsBetween(from, to);
        expect(edits.length === 0 ? from : applyEdits(from, edits).study).toEqual(to);
      }
      expect(editsBetween(a, a)).toEqual([]);
    }),
    { numRuns: 200 },
  );
});

test("a change touches what stands on it, through derived variables, scales and filters, and nothing else", () => {
  const touched = (subject: Change["subject"], id: string, from: unknown = {}) => {
    const all = touchedBy(start, [{ subject, id, from }]);
    return all.map((one) => one.name).join("");
  };
  expect(touched("variable", "a")).toBe("SLM"); // M through d
  expect(touched("correction", "4:c")).toBe("TLM"); // M through its filter
  expect(touched("derived", "d")).toBe("M");
  expect(touched("scale", "s")).toBe("SL");
  expect(touched("filter", "f")).toBe("M");
  expect(touched("filter", "gone", { everywhere: true })).toBe("STLM");
  expect(touched("responses", "study")).toBe("STLM");
  expect(touched("name", "study")).toBe("");
});

test("a change touches the structures whose items stand on it, or whose scales key them", () => {
  const { study } = applyEdits(start, [
    { subject: "structure", id: "x", to: Structure.parse({ id: "x", name: "X", items: ["a", "b", "t"] }) },
  ]);
  const of = (all: ReturnType<typeof touchedBy>) => all.flatMap(({ kind, name }) => (kind === "structure" ? [name] : []));
  const touched = (subject: Change["subject"], id: string) => of(touchedBy(study, [{ subject, id, from: {} }]));
  expect(touched("variable", "a")).toEqual(["X"]);
  expect(touched("variable", "c")).toEqual(["X"]); // an item of T, whose score is in it
  expect(touched("scale", "s")).toEqual(["X"]); // keys a and b
  expect(touched("structure", "x")).toEqual(["X"]);
  expect(touched("ladder", "l")).toEqual([]);
  const asked = applyEdits(study, [{ subject: "structure", id: "x", to: { ...study.structures[0]!, keying: "asked" } }]).study;
  expect(of(touchedBy(asked, [{ subject: "scale", id: "s", from: {} }]))).toEqual([]); // how s keys them does not matter
});

test("objects of different kinds may go by one id: a change of one leaves the other's numbers as they are, and both are said to use a filter", () => {
  const structure = Structure.parse({ id: "l", name: "X", items: ["a", "b", "c"], respondents: "f" });
  const { study } = applyEdits(start, [{ subject: "structure", id: "l", to: structure }]);
  const names = (subject: Change["subject"], id: string) => touchedBy(study, [{ subject, id, from: {} }]).map(({ kind, id: of }) => `${kind} ${of}`); // prettier-ignore
  expect(names("structure", "l")).toEqual(["structure l"]);
  expect(names("ladder", "l")).toEqual(["ladder l"]);
  expect(usedBy(study, { kind: "filter", id: "f" }).map(({ kind }) => kind)).toEqual(["structure", "ladder"]);
});
