import { randomStream } from "@/core/random/random-stream";
import { shiftCsv } from "@/files/shift-csv";
import { Shift } from "../model/shift";
import { refusalWords } from "../report/refusals";
import { shiftTable, whatTheShiftSays } from "../report/ladder/shift-words";
import { plain } from "../report/words";
import { cells, deskOf, ladderOf } from "../test-support/desk";
import { analyseLadder } from "./analyse-ladder";
import { analyseShift } from "./analyse-shift";

const N = 300;
const title = (name: string, level?: string | null) => (level == null ? `<${name}>` : `<${name}: ${level}>`);
const stream = randomStream(77);
const draw = () => Array.from({ length: N }, () => stream.normal());

function shifted(data: Record<string, number[] | string[]>, ladder = ladderOf(["x"], ["n", "m"]), own: object = {}) {
  const desk = deskOf(Object.fromEntries(Object.entries(data).map(([name, list]) => [name, cells(N, (i) => list[i]!)])));
  const shift = Shift.parse({ id: "s", ladder: "l", column: [{ variable: "x" }], ...own });
  return { found: analyseShift({ shift, ladder }, desk), desk, ladder };
}
function told(...given: Parameters<typeof shifted>) {
  const { found, ...rest } = shifted(...given);
  if (found.status === "refused") throw new Error(found.refusal.code);
  return { ...rest, found, said: whatTheShiftSays(found, rest.ladder.metric, title).map(plain).join(" ") };
}
const [x, e1, e2, e3] = [draw(), draw(), draw(), draw()];
const n = x.map((v, i) => v + 0.6 * e1[i]!);
const m = e2;

describe("what it looks like", () => {
  test("overlap: the newcomer that says the same takes it, with a caution about working through it", () => {
    const { found, said } = told({ x, n, m, y: n.map((v, i) => v + 0.5 * e3[i]!) });
    expect(found.pattern).toBe("overlap");
    expect(found.through).toEqual(["n"]);
    expect(found.newcomers.find(({ key }) => key === "n")!.share).toBeGreaterThan(0.9);
    expect(said).toContain("This is overlap: <x> and <n> say partly the same about the outcome.");
    expect(said).toContain("if <x> worked through <n>");
  });
  test("classical suppression: a newcomer without a relation of its own brings it out", () => {
    const y = e3;
    const noisy = y.map((v, i) => v + 1.5 * e1[i]!);
    const { found, said } = told({ x: noisy, n: e1, m, y: y.map((v, i) => v + 0.4 * e2[i]!) });
    expect(Math.abs(found.newcomers.find(({ key }) => key === "n")!.zeroOrder!)).toBeLessThan(0.1);
    expect(found.pattern).toBe("classical");
    expect(said).toContain("classical suppression: <n>");
  });
  test("negative suppression: a sign turns beside the newcomer", () => {
    const { found, said } = told({ x, n, m, y: n.map((v, i) => 2 * v - 1.2 * x[i]! + 0.3 * e3[i]!) });
    expect(found.pattern).toBe("negative");
    expect(Math.sign(found.before.b.estimate)).not.toBe(Math.sign(found.after.b.estimate));
    expect(said).toContain("negative suppression");
  });
  test("reciprocal suppression: two that go against each other and both for the outcome", () => {
    const other = x.map((v, i) => -0.7 * v + 0.7 * e1[i]!);
    const { found } = told({ x, n: other, m, y: x.map((v, i) => v + 1.1 * other[i]! + 0.3 * e3[i]!) });
    expect(found.pattern).toBe("reciprocal");
  });
  test("little: no more than its standard error, and nothing is made of it", () => {
    const { found, said } = told({ x, n: e1, m, y: x.map((v, i) => v + e3[i]!) });
    expect(found.pattern).toBe("small");
    expect(said).toContain("no more than its standard error");
  });
});

test("law: what newcomers take is b before less b after as the ladder has them; the unit of the outcome changes neither shares nor pattern", () => {
  const data = { x, n, m, y: n.map((v, i) => v + 0.4 * m[i]! + 0.5 * e3[i]!) };
  const { found, desk, ladder } = told(data);
  const fitted = analyseLadder(desk.study, ladder, desk.responses);
  if (fitted.status === "refused") throw new Error(fitted.refusal.code);
  const [b0, b1] = fitted.fit.steps.map((step) => step.coefficients[0]!);
  expect(found.newcomers.reduce((sum, one) => sum + one.taken, 0)).toBeCloseTo(b0!.b.estimate - b1!.b.estimate, 11);
  expect(found.newcomers.reduce((sum, one) => sum + one.takenBeta!, 0)).toBeCloseTo(b0!.beta!.estimate - b1!.beta!.estimate, 11);
  const tenfold = told({ ...data, y: data.y.map((v) => 10 * v + 3) }).found;
  expect(tenfold.pattern).toBe(found.pattern);
  tenfold.newcomers.forEach((one, k) => expect(one.share).toBeCloseTo(found.newcomers[k]!.share!, 10));
});

test("a category is one newcomer, a product with it is told as another meaning, and both are in table and CSV", () => {
  const group = Array.from({ length: N }, (_, i) => ["hill", "dale", "coast"][i % 3]!);
  const data = { x: x.map((v, i) => v + (i % 3)), group, n, y: x.map((v, i) => v + 2 * (i % 3) + e3[i]!) };
  const { found, said, ladder } = told(data, ladderOf(["x"], ["group", "n", "x*n"]));
  expect(found.newcomers.map(({ key }) => key)).toEqual(["group", "n", "x*n"]);
  expect(found.newcomers[0]!.zeroOrder).toBeNull();
  expect(said).toContain("means another thing than before");
  const table = shiftTable(found, ladder, title);
  expect(table.sections[0]!.rows.at(-1)![0]).toBe("Change");
  const lines = shiftCsv(found).trim().split("\r\n");
  expect(lines).toHaveLength(4);
  expect(lines.slice(1).reduce((sum, line) => sum + Number(line.split(",")[1]), 0)).toBeCloseTo(
    found.before.b.estimate - found.after.b.estimate,
    11,
  );
});

describe("what cannot be had is a sentence", () => {
  const data = { x, n, m, y: n };
  const refused = (ladder: ReturnType<typeof ladderOf>, own: object = {}) => {
    const { found } = shifted({ ...data, y: n.map((v, i) => v + e3[i]!) }, ladder, own);
    if (found.status !== "refused") throw new Error("it is told");
    return refusalWords(found.refusal, title).what;
  };
  test("a predictor that came later", () => expect(refused(ladderOf(["x"], ["n"]), { column: [{ variable: "n" }] })).toBe("<n> has no coefficient in both steps.")); // prettier-ignore
  test("a step that brings nothing", () => expect(refused(ladderOf(["x"], []))).toBe("Step 2 brings nothing that could have changed a coefficient.")); // prettier-ignore
  test("the only step there is", () => expect(refused(ladderOf(["x", "n"]))).toMatch(/^Step 1 brings nothing/));
});
