import { randomStream } from "@/core/random/random-stream";
import { addedCsv } from "@/files/added-csv";
import { Added } from "../model/added";
import { addedTable, bends, whatIsAdded } from "../report/ladder/added-words";
import { refusalWords } from "../report/refusals";
import { plain } from "../report/words";
import { cells, deskOf, ladderOf } from "../test-support/desk";
import { analyseAdded } from "./analyse-added";
import { analyseLadder } from "./analyse-ladder";

const N = 250;
const title = (name: string, level?: string | null) => (level == null ? `<${name}>` : `<${name}: ${level}>`);
const stream = randomStream(41);
const draw = () => Array.from({ length: N }, () => stream.normal());
const [x, e, z] = [draw(), draw(), draw()];
const near = x.map((v, i) => v + 0.3 * z[i]!);
const data = {
  y: cells(N, (i) => 2 * x[i]! + 0.8 * x[i]! ** 2 + 0.5 * near[i]! + e[i]!),
  x: cells(N, (i) => x[i]!),
  near: cells(N, (i) => near[i]!),
  site: cells(N, (i) => ["hill", "dale"][i % 2]!),
};
const LADDER = ladderOf(["site"], ["x", "near"]);
const desk = deskOf(data);

function told(own: object = {}, ladder = LADDER) {
  const added = Added.parse({ id: "a", ladder: "l", ...own });
  const found = analyseAdded({ added, ladder }, desk);
  if (found.status === "refused") throw new Error(refusalWords(found.refusal, title).what);
  return { found, said: whatIsAdded(found, added.as, title).map(plain).join(" ") };
}

test("law: least squares through a cloud have the slope of the ladder, in SDs its β; both sides lie about 0", () => {
  const fitted = analyseLadder(desk.study, LADDER, desk.responses);
  if (fitted.status === "refused") throw new Error(fitted.refusal.code);
  const { coefficients } = fitted.fit.steps[1]!;
  for (const as of ["added", "component"]) {
    const { found } = told({ as });
    expect(found.columns.map(({ column }) => column)).toEqual(coefficients.map(({ column }) => column));
    for (const { points, slope, column } of found.columns) {
      expect(points).toHaveLength(N);
      const sum = (of: (p: { x: number; y: number }) => number) => points.reduce((total, point) => total + of(point), 0);
      expect(sum((p) => p.x * p.y) / sum((p) => p.x * p.x)).toBeCloseTo(slope, 10);
      expect(sum((p) => p.x)).toBeCloseTo(0, 8);
      const { beta } = coefficients.find((one) => one.column === column)!;
      if (column === "x") expect(slope).toBeCloseTo(beta!.estimate, 10);
    }
  }
});

test("the cloud of who shares most with others is narrow, and a bend is found where it was made", () => {
  const { found, said } = told();
  const own = (name: string) => found.columns.find(({ column }) => column === name)!;
  const spread = (name: string) => Math.sqrt(own(name).points.reduce((sum, p) => sum + p.x ** 2, 0) / (N - 1));
  expect(spread("near")).toBeCloseTo(own("near").ownSd, 10);
  expect(own("near").ownSd).toBeLessThan(0.5);
  expect(said).toContain("leave less than half of an SD");
  expect(bends(own("x"))).toBe(true);
  expect(own("site[dale]").bend).toBeNull();
  expect(said).toMatch(/<x>.* bends?:/);
  expect(own("x").lowest).toBe(Math.min(...x));
});

test("two rivals stand alone, compared by their slopes in SDs; table and CSV have both", () => {
  const { found, said } = told({ columns: [[{ variable: "near" }], [{ variable: "x" }]] });
  expect(found.columns.map(({ column }) => column)).toEqual(["near", "x"]);
  expect(said).toMatch(/^Beside all others one SD of <x> goes with .* one of <near> with/);
  expect(addedTable(found, "added", "L", title).sections[0]!.rows.map((row) => row[0])).toEqual(["<near>", "<x>"]);
  const lines = addedCsv(found).trim().split("\r\n");
  expect(lines).toHaveLength(1 + 2 * N);
  expect(Number(lines[1]!.split(",")[2])).toBe(found.columns[0]!.points[0]!.x);
});

test("a rival that is not in the step is named", () => {
  expect(() => told({ columns: [[{ variable: "x" }]], step: 1 })).toThrow("<x> has no coefficient in step 1.");
});
