import fc from "fast-check";
import { ladderOf } from "../test-support/desk";
import { applyEdits } from "./edit";
import { exploratoryMark, joinedRows, rowsAsLetters } from "./exploratory";
import { Study } from "./study";

const rows = fc.uniqueArray(fc.integer({ min: 1, max: 5000 }), { minLength: 1, maxLength: 60 }).map((list) => list.sort((a, b) => a - b));
const marked = (searched: readonly number[]) => ({ ...ladderOf(["x"]), exploratory: "chosen by a search among 3", searchedOn: rowsAsLetters(searched) }); // prettier-ignore

test("law: how many respondents of a ladder chose it is how many rows it shares with the search", () => {
  fc.assert(
    fc.property(rows, rows, (searched, used) => {
      const shared = used.filter((row) => searched.includes(row)).length;
      const mark = exploratoryMark(marked(searched), used)!;
      if (shared === 0) expect(mark).toMatchObject({ kind: "on-others", used: used.length });
      else expect(mark).toMatchObject({ kind: "exploratory", shared, used: used.length });
    }),
  );
});

test("law: a search on what a search has chosen counts the respondents of both", () => {
  fc.assert(
    fc.property(rows, rows, rows, (one, other, used) => {
      const both = { ...ladderOf(["x"]), exploratory: "s", searchedOn: joinedRows(rowsAsLetters(one), rowsAsLetters(other)) };
      expect(exploratoryMark(both, used)).toEqual(
        exploratoryMark({ ...both, searchedOn: rowsAsLetters([...new Set([...one, ...other])]) }, used),
      );
    }),
  );
});

test("before its respondents are known it is exploratory, never a test on others", () => {
  expect(exploratoryMark(marked([1, 2]), [])).toMatchObject({ kind: "exploratory", used: 0 });
});

test("no change takes it off: not writing it, nor writing it otherwise; a ladder without it stays without", () => {
  const codebook = ["x", "y"].map((name) => ({ name }));
  const study = Study.parse({
    format: "beta-step-study",
    version: 1,
    name: "s",
    codebook,
    ladders: [marked([1, 2]), { ...ladderOf(["x"]), id: "free" }],
  });
  const edited = (id: string, to: object) => {
    const ladder = study.ladders.find((l) => l.id === id)!;
    return applyEdits(study, [{ subject: "ladder", id, to: { ...ladder, ...to } }]).study.ladders.find((l) => l.id === id)!;
  };
  const kept = edited("l", { exploratory: "", searchedOn: "", name: "Renamed" });
  expect(kept).toMatchObject({ name: "Renamed", exploratory: "chosen by a search among 3" });
  expect(exploratoryMark(kept, [2, 3])).toMatchObject({ kind: "exploratory", shared: 1 });
  expect(edited("l", { exploratory: "confirmed" }).exploratory).toBe("chosen by a search among 3");
  expect(edited("free", { name: "Free" }).exploratory).toBe("");
});
