import { randomStream } from "@/core/random/random-stream";
import { Ladder } from "../model/ladder";
import { Residuals } from "../model/residuals";
import { residualFindings, standingOut, whatTheResidualsSay } from "../report/ladder/residual-words";
import { verdictsThatTurn, whatWithoutSays } from "../report/ladder/without-words";
import { plain } from "../report/words";
import { deskOf, ladderOf } from "../test-support/desk";
import { analyseLadder } from "./analyse-ladder";
import { analyseResiduals } from "./analyse-residuals";

/** Residuals of y on x, made up as asked. */
function looked(n: number, y: (x: number, e: number, i: number) => number, over: object = {}, far = false) {
  const stream = randomStream(4);
  const x = Array.from({ length: n }, (_, i) => (far && i === 7 ? 5 : stream.normal()));
  const desk = deskOf({ x: x.map(String), y: x.map((v, i) => String(y(v, stream.normal(), i))) });
  const ladder = Ladder.parse({ ...ladderOf(["x"]), ...over });
  const result = analyseResiduals({ residuals: Residuals.parse({ id: "r", ladder: "l" }), ladder }, desk);
  if (result.status === "refused") return { refusal: result.refusal };
  return { told: result, ladder, desk, found: residualFindings(result, ladder).map(({ what, matters }) => `${what}${matters ? "!" : ""}`) };
}

describe("what is seen, and what it affects", () => {
  test("well-behaved residuals change nothing", () => {
    const { found, told, ladder } = looked(200, (x, e) => x + e);
    expect(found).toEqual([]);
    expect(plain(whatTheResidualsSay(told!, ladder!)[0]!)).toBe("Nothing here changes what you may conclude.");
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
  test("a perfect fit is refused with a reason", () => expect(looked(30, (x) => 2 * x + 1).refusal).toMatchObject({ code: "perfect-fit" }));
});
