import { randomStream } from "@/core/random/random-stream";
import { importanceCsv } from "@/files/importance-csv";
import { Importance } from "../model/importance";
import { importanceTable, whatImportanceSays } from "../report/ladder/importance-table";
import { plain } from "../report/words";
import { cells, deskOf, ladderOf } from "../test-support/desk";
import { analyseImportance } from "./analyse-importance";
import { analyseLadder } from "./analyse-ladder";
import { resampledImportance } from "./importance-intervals";
import { joinedImportance } from "./joined-importance";

const N = 150;
const stream = randomStream(51);
const draw = () => Array.from({ length: N }, () => stream.normal());
const [c, x, z, e] = [draw(), draw(), draw(), draw()];
const m = x.map((v, i) => 0.6 * v + z[i]!);
const desk = deskOf({
  y: cells(N, (i) => c[i]! + x[i]! + 0.4 * m[i]! + 0.5 * x[i]! * m[i]! + e[i]!),
  c: cells(N, (i) => c[i]!),
  x: cells(N, (i) => x[i]!),
  m: cells(N, (i) => m[i]!),
  z: cells(N, (i) => z[i]!),
});
const LADDER = ladderOf(["c"], ["x", "m"], ["x*m", "z"]);
const asked = (own: object = {}) => ({ importance: Importance.parse({ id: "i", ladder: "l", ...own }), ladder: LADDER });
function told(own: object = {}) {
  const found = analyseImportance(asked(own), desk);
  if (found.status === "refused") throw new Error(found.refusal.code);
  return found;
}
const fitted = analyseLadder(desk.study, LADDER, desk.responses);
const steps = fitted.status === "fitted" ? fitted.fit.steps : [];

test("shares of terms and of whole steps add up to what they explain beyond the controls", () => {
  for (const [own, controls] of [
    [{}, 0],
    [{ controls: 1 }, 1],
    [{ together: "steps" }, 0],
    [{ together: "steps", controls: 1 }, 1],
  ] as const) {
    // prettier-ignore
    const { terms, of } = told(own);
    const before = controls === 0 ? 0 : steps[0]!.model.R2;
    expect(of.controlsR2).toBeCloseTo(before, 12);
    expect(terms.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(steps[2]!.model.R2 - before, 12);
  }
});

test("a step enters only after those that its products are made of: with one order the shares are the ladder's own changes", () => {
  const { terms, of } = told({ together: "steps", controls: 1 });
  expect(of.orders).toBe(1);
  expect(terms.map(({ key }) => key)).toEqual(["step 2", "step 3"]);
  terms.forEach(({ share }, k) => expect(share).toBeCloseTo(steps[k + 1]!.change.change, 12));
  expect(
    whatImportanceSays(told({ together: "steps" }), (name) => name)
      .map(plain)
      .join(" "),
  ).toContain("Step 2 has the largest share");
});

test("intervals: pieces in any order are one, they hold the shares, and table and CSV have them", () => {
  const question = asked({ controls: 1, resamples: 200 });
  const [first, rest] = [
    resampledImportance(question, desk, { first: 0, count: 60 }),
    resampledImportance(question, desk, { first: 60, count: 140 }),
  ];
  const intervals = joinedImportance([rest, first])!;
  expect(intervals).toEqual(joinedImportance([resampledImportance(question, desk, { first: 0, count: 200 })]));
  const found = told({ controls: 1 });
  found.terms.forEach(({ share, key }) => {
    const at = intervals.terms.indexOf(key);
    expect(intervals.lower[at]!).toBeLessThan(share);
    expect(intervals.upper[at]!).toBeGreaterThan(share);
  });
  const table = importanceTable(found, "L", (name) => name, intervals);
  expect(table.head.map(plain)).toContain("95 % interval");
  expect(table.sections[0]!.rows.every((row) => row.length === table.head.length)).toBe(true);
  expect(plain(table.note)).toContain("percentiles of 200 resamples");
  const rows = importanceCsv(found, intervals).trim().split("\r\n").map((line) => line.split(",")); // prettier-ignore
  expect(Number(rows[1]![rows[0]!.indexOf("share_lower")])).toBe(intervals.lower[0]);
});
