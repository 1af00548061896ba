import { randomStream } from "@/core/random/random-stream";
import { Ladder } from "../model/ladder";
import { Residuals } from "../model/residuals";
import { bentPredictors, pictureNotes, residualFindings, standingOut, whatTheResidualsSay } from "../report/ladder/residual-words";
import { pullersWords, verdictsThatTurn, whatWithoutSays } from "../report/ladder/without-words";
import { plain } from "../report/words";
import { deskOf, ladderOf } from "../test-support/desk";
import { analyseLadder } from "./analyse-ladder";
import { analyseResiduals } from "./analyse-residuals";
import type { WithoutPullers } from "./without-pullers";

/** Residuals of y on x, made up as asked. */
function looked(
  n: number,
  y: (x: number, e: number, i: number) => number,
  over: object = {},
  far = false,
  own: object = {},
  more: Record<string, string[]> = {},
) {
  const stream = randomStream(4);
  const x = Array.from({ length: n }, (_, i) => (far && i === 7 ? 5 : stream.normal()));
  const desk = deskOf({ x: x.map(String), y: x.map((v, i) => String(y(v, stream.normal(), i))), ...more });
  const ladder = Ladder.parse({ ...ladderOf(["x"]), ...over });
  const result = analyseResiduals({ residuals: Residuals.parse({ id: "r", ladder: "l", ...own }), ladder }, desk);
  if (result.status === "refused") return { refusal: result.refusal };
  return {
    told: result,
    ladder,
    desk,
    found: residualFindings(result, ladder, (name) => name).map(({ what, matters }) => `${what}${matters ? "!" : ""}`),
  };
}

describe("what is seen, and what it affects", () => {
  test("well-behaved residuals change nothing", () => {
    const { found, told, ladder } = looked(200, (x, e) => x + e);
    expect(found).toEqual([]);
    expect(plain(whatTheResidualsSay(told!, ladder!, (name) => name)[0]!)).toBe("Nothing here changes what you may conclude.");
    expect(told!.outside).toBeLessThan(0.2);
  });
  test("a bend touches the coefficients, an unequal spread classical errors only", () => {
    expect(looked(200, (x, e) => x + x * x + e).found).toContain("bend!");
    const fan = (x: number, e: number) => x + e * Math.exp(x);
    expect(looked(300, fan).found).toContain("spread!");
    expect(looked(300, fan, { errors: "hc3" }).found).toContain("spread");
  });
  test("a shape that is not normal matters in a small sample without a bootstrap, and in no large one", () => {
    const skewed = (x: number, e: number) => x + Math.exp(1.2 * e);
    expect(looked(60, skewed).found).toContain("shape!");
    expect(looked(60, skewed, { intervals: { by: "bca" } }).found).toContain("shape");
    expect(looked(400, skewed).found).toContain("shape");
  });
  test("one who pulls is told, and stands first among those to look at", () => {
    const { found, told } = looked(80, (x, e, i) => (i === 7 ? 40 : x + e), {}, true);
    expect(found).toContain("pull!");
    expect(standingOut(told!.cases, told!.n)[0]!.row).toBe(8);
  });
  test("without those above the mark is the ladder filtered to the others, and nobody is left out by looking", () => {
    const { told, ladder, desk } = looked(80, (x, e, i) => (i === 7 ? 40 : x + e), {}, true);
    if (!told!.without || "refusal" in told!.without) throw new Error("it is told");
    const { rows, coefficients, step } = told!.without;
    expect(rows[0]).toBe(8);
    expect(rows).toHaveLength(told!.cooks.above);
    const filter = { id: "f", name: "F", reason: "", everywhere: false, conditions: [{ kind: "not-rows" as const, rows }] };
    const study = { ...desk!.study, filters: [filter] };
    const by = analyseLadder(study, { ...ladder!, respondents: "f" }, desk!.responses);
    if (by.status === "refused") throw new Error("it is fitted");
    expect(coefficients[0]!.without).toEqual(by.fit.steps[0]!.coefficients[0]);
    expect(step.without).toMatchObject({ n: 80 - rows.length, R2: by.fit.steps[0]!.model.R2, p: by.fit.steps[0]!.change.p });
    expect(step.with.n).toBe(80);
    // the one who moves the slope most is the one whose leaving moves it most: every row left out in turn
    const b = coefficients[0]!.with.b.estimate;
    const moves = Array.from({ length: 80 }, (_, i) => {
      const one = { ...filter, conditions: [{ kind: "not-rows" as const, rows: [i + 1] }] };
      const left = analyseLadder({ ...study, filters: [one] }, { ...ladder!, respondents: "f" }, desk!.responses);
      const { estimate, se } = left.status === "refused" ? { estimate: b, se: 1 } : left.fit.steps[0]!.coefficients[0]!.b;
      return Math.abs(b - estimate) / se!;
    });
    expect(coefficients[0]!.mover!.row).toBe(1 + moves.indexOf(Math.max(...moves)));
  });
  test("a verdict that hangs on one respondent is told", () => {
    const { told, ladder } = looked(80, (_, e, i) => (i === 7 ? 40 : e), {}, true);
    if (!told!.without || "refusal" in told!.without) throw new Error("it is told");
    expect(verdictsThatTurn(told!.without, 0.05)).toHaveLength(1);
    expect(plain(whatWithoutSays(told!.without, ladder!, (name) => name))).toMatch(
      /; x would (turn its sign|not lie below p = \.05 any more), what the step adds would not lie below p = \.05 any more\.$/,
    );
  });
  test("those who move one coefficient most are those above 2/√n of its DFBETAS, and those who move the step are the five whose leaving does", () => {
    const asked = (pulls: object) => looked(80, (x, e, i) => (i === 7 ? 9 : x + e), {}, true, { pulls }).told!.without as WithoutPullers;
    const slope = asked({ by: "coefficient", column: [{ variable: "x" }] });
    expect(slope.rows.every((row) => Math.abs(slope.movers.find((one) => one.row === row)?.value ?? 1) > 2 / Math.sqrt(80))).toBe(true);
    expect(slope.movers[0]!.row).toBe(slope.coefficients[0]!.mover!.row);
    expect(slope.movers[0]!.value).toBe(slope.coefficients[0]!.mover!.errors);
    const step = asked({ by: "change" });
    expect(step.rows).toEqual(step.movers.slice(0, 5).map(({ row }) => row));
    expect(plain(pullersWords(step, (name) => name))).toBe("5 respondents who move what the step adds most");
    expect(plain(pullersWords(slope, (name) => name))).toMatch(/ who move b of x by more than 2\/√n of its standard error$/);
    const none = asked({ by: "coefficient", column: [{ variable: "gone" }] });
    expect(none).toMatchObject({ refusal: { code: "not-in-step" } });
  });
  test("who is predicted by their own answer alone is named, and has no residual to be judged", () => {
    const only = Array.from({ length: 60 }, (_, i) => (i === 12 ? "alone" : ["one", "two"][i % 2]!));
    const desk = deskOf({ y: Array.from({ length: 60 }, (_, i) => String(Math.sin(i * 7) + i / 30)), only });
    const result = analyseResiduals({ residuals: Residuals.parse({ id: "r", ladder: "l" }), ladder: ladderOf(["only"]) }, desk);
    if (result.status === "refused") throw new Error(result.refusal.code);
    expect(result.alone).toEqual([13]);
    expect(result.cases[12]!.studentized).toBeNull();
    expect(
      whatTheResidualsSay(result, ladderOf(["only"]), (name) => name)
        .map(plain)
        .join(" "),
    ).toContain("1 respondent is predicted by nothing but their own answer (row 13; leverage 1)");
    expect(pictureNotes(result)).toHaveLength(5);
  });
  test("a perfect fit is refused with a reason", () => expect(looked(30, (x) => 2 * x + 1).refusal).toMatchObject({ code: "perfect-fit" }));
});

describe("what they are seen along", () => {
  const cohort = Array.from({ length: 120 }, (_, i) => ["spring", "autumn"][i % 2]!);
  test("a category: level by level, means of residuals that add up to nothing, and the wider level told", () => {
    const { told } = looked(120, (x, e, i) => x + e * (i % 2 ? 3 : 1), {}, false, { along: "cohort" }, { cohort });
    const levels = told!.levels!;
    expect(levels.map(({ level }) => level)).toEqual(["spring", "autumn"]);
    expect(levels.reduce((sum, { n, mean }) => sum + n * mean, 0)).toBeCloseTo(0, 10);
    const said = whatTheResidualsSay(told!, ladderOf(["x"]), (name) => name)
      .map(plain)
      .join(" ");
    expect(said).toMatch(/their SD is \d\.\d\d in autumn and \d\.\d\d in spring\./);
    expect(told!.smooth.map(({ residual }) => residual)).toEqual(levels.map(({ mean }) => mean));
  });
  test("the order of the rows: neighbours that go together are found, and a cluster allows for them", () => {
    const drift = (x: number, e: number, i: number) => x + e + 2 * Math.sin(i / 6);
    const { told, found } = looked(120, drift, {}, false, { rows: true });
    expect(found).toContain("neighbours!");
    expect(told!.cases.map(({ x, row }) => x - row).every((d) => d === 0)).toBe(true);
    expect(looked(120, (x, e) => x + e, {}, false, { rows: true }).found).not.toContain("neighbours!");
    expect(looked(120, drift).told!.neighbours).toBeNull();
  });
  test("bins hold everyone, and the predictor that bends is named", () => {
    const { told } = looked(200, (x, e) => x + x * x + e);
    expect(told!.histogram.counts.reduce((a, b) => a + b, 0)).toBe(200);
    expect(bentPredictors(told!).map(({ variable }) => variable)).toEqual(["x"]);
    expect(
      whatTheResidualsSay(told!, ladderOf(["x"]), (name) => `<${name}>`)
        .map(plain)
        .join(" "),
    ).toContain("a square or a logarithm of <x> may tell it");
  });
});
