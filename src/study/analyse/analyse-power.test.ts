import { randomStream } from "@/core/random/random-stream";
import { effectOf, powerOf, productReliability } from "@/core/planning/power";
import { Hypothesis } from "../model/hypothesis";
import type { Ladder } from "../model/ladder";
import { Power } from "../model/power";
import { Theory } from "../model/theory";
import { cells, deskOf, ladderOf } from "../test-support/desk";
import { analyseLadder } from "./analyse-ladder";
import { analysePower, type PowerResult, simulatedPower } from "./analyse-power";
import { joinedSamples } from "./joined-samples";

const N = 140;
const stream = randomStream(17);
const draw = () => Array.from({ length: N }, () => stream.normal());
const [x, m, z, e] = [draw(), draw(), draw(), draw()];
const data = {
  y: cells(N, (i) => 0.4 * x[i]! + 0.2 * m[i]! + e[i]!),
  x: cells(N, (i) => x[i]! + 0.5 * z[i]!),
  m: cells(N, (i) => m[i]!),
  z: cells(N, (i) => z[i]!),
  shift: cells(N, (i) => ["early", "late", "night"][i % 3]!),
};
const desk = deskOf(data);
const empty = deskOf(Object.fromEntries(Object.keys(data).map((name) => [name, []])));
for (const v of empty.study.codebook) v.kind = "number";
for (const { study } of [desk, empty])
  Object.assign(study.codebook.find((v) => v.name === "shift")!, { kind: "category", levels: ["early", "late", "night"].map((value) => ({ value, label: "" })) }); // prettier-ignore
const LADDER = ladderOf(["z", "shift"], ["x", "m"], ["x*m"]);
const on = (...names: string[]) => ({ on: "coefficient", column: names.map((variable) => ({ variable })) });
const asked = (rests: object, own: object = {}, ladder: Ladder | null = LADDER, h: object = {}) => ({
  power: Power.parse({ id: "p", hypothesis: "h", ...own }),
  hypothesis: Hypothesis.parse({ id: "h", ladder: "l", rests, ...h }),
  ladder,
  theory: Theory.parse({ id: "theory" }),
});
const planned = (result: PowerResult) => {
  if (result.status === "refused") throw new Error(result.why);
  return result;
};
const steps = () => {
  const found = analyseLadder(desk.study, LADDER, desk.responses);
  if (found.status === "refused") throw new Error(found.refusal.code);
  return found.fit.steps;
};

test("with data, n and R² are the sample's, and a predictor's own share is its tolerance", () => {
  const step = steps()[1]!;
  const found = planned(analysePower(asked(on("x"), {}, LADDER, { step: 2, delta: 0.15 }), desk));
  const c = step.coefficients.find(({ column }) => column === "x")!;
  expect(found).toMatchObject({ n: N, effect: 0.15, from: { n: "found", R2: "found", effect: "smallest", own: "found" }, test: { tested: 1, columns: 5, oneSided: false } }); // prettier-ignore
  expect(found.R2).toBe(step.model.R2);
  // SE² = (1 − R²)/(df·tolerance): with n − 1 in the variances both ways
  expect(found.own! / c.tolerance).toBeCloseTo((N - 1) / step.model.df[1] / ((N - 1) / step.model.df[1]), 9);
  expect(found.power).toBe(powerOf(N, effectOf(0.15 ** 2 * found.own!, found.R2), found.test));
});

test("what is detectable has the power that is wanted, and what is needed just reaches it", () => {
  for (const rests of [on("x"), on("x", "m"), { on: "change" }]) {
    const first = planned(analysePower(asked(rests, { power: 0.9, R2: 0.4 }), desk));
    const again = planned(analysePower(asked(rests, { power: 0.9, R2: 0.4, effect: first.detectable! }), desk));
    expect(again.power).toBeCloseTo(0.9, 7);
    expect(again.needed).toBeGreaterThanOrEqual(N - 1);
    expect(again.needed).toBeLessThanOrEqual(N + 1);
    const reached = planned(analysePower(asked(rests, { power: 0.9, R2: 0.4, n: first.needed! }), desk));
    const less = planned(analysePower(asked(rests, { power: 0.9, R2: 0.4, n: first.needed! - 1 }), desk));
    expect(reached.power).toBeGreaterThanOrEqual(0.9);
    expect(less.power).toBeLessThan(0.9);
  }
});

test("a step is tested with all its columns, a direction that stands before its result one-sided", () => {
  const change = planned(analysePower(asked({ on: "change" }, {}, LADDER, { step: 1 }), desk));
  expect(change.test).toMatchObject({ tested: 3, columns: 3 });
  const one = (h: object) => planned(analysePower(asked(on("x"), {}, LADDER, h), desk)).test.oneSided;
  expect([one({ direction: "+", before: true }), one({ direction: "+" }), one({ before: true })]).toEqual([true, false, false]);
});

test("before the data the codebook says how many columns there are, and the rest is assumed and said to be", () => {
  const found = planned(analysePower(asked(on("x", "m"), { r: 0.4, R2: 0.3, n: 250 }), empty));
  expect(found).toMatchObject({ n: 250, test: { columns: 6, tested: 1 }, from: { n: "said", R2: "said", effect: "usual", own: "usual" } });
  expect(found.own).toBeCloseTo(1 + 0.4 ** 2, 12);
  const bare = planned(analysePower(asked({ on: "change" }), empty));
  expect(bare.from).toEqual({ n: "usual", R2: "usual", effect: "usual", own: null });
});

test("a product that is measured with error loses what its reliability says", () => {
  const found = planned(analysePower(asked(on("x", "m"), { reliability: [0.8, 0.7], R2: 0.3, effect: 0.2 }), desk));
  const { product } = found;
  expect(product!.of).toBe(productReliability(0.8, 0.7, product!.r));
  expect(product!.power).toBe(powerOf(N, found.f2 * product!.of, found.test));
  expect(product!.needed!).toBeGreaterThan(found.needed!);
  // neither is a scale: nothing is known of them
  expect(planned(analysePower(asked(on("x", "m")), desk)).product).toBeNull();
  expect(planned(analysePower(asked(on("x"), { reliability: [0.8, 0.7] }), desk)).product).toBeNull();
});

test("what cannot be planned says why", () => {
  const why = (result: PowerResult) => (result.status === "refused" ? result.why : "planned");
  expect(why(analysePower(asked({ on: "open" }), desk))).toBe("rests");
  expect(why(analysePower(asked(on("x"), {}, null), desk))).toBe("ladder");
  expect(why(analysePower(asked(on("gone")), desk))).toBe("nothing");
  expect(why(analysePower(asked(on("x"), {}, LADDER, { step: 7 }), desk))).toBe("step");
  expect(planned(analysePower(asked(on("x"), { n: 5 }), desk))).toMatchObject({ power: null, halfWidth: null, detectable: null });
  expect(why(analysePower(asked(on("x"), { effect: 0.9, R2: 0.1 }), desk))).toBe("too-much");
  expect(why(analysePower(asked({ on: "change" }, { effect: 0.5, R2: 0.2 }), desk))).toBe("too-much");
  expect(simulatedPower(asked({ on: "open" }), desk, { first: 0, count: 10 })).toBeNull();
});

test("drawn samples agree with what is reckoned, and ranges of them add up", () => {
  const question = asked(on("x", "m"), { R2: 0.3, effect: 0.2, r: 0.3, n: 150 });
  const exact = planned(analysePower(question, empty)).power!;
  const pieces = [0, 400, 800].map((first) => simulatedPower(question, empty, { first, count: 400 }));
  const drawn = joinedSamples(pieces)!;
  expect(drawn).toMatchObject({ samples: 1200, failed: 0, n: 150, left: 1200 * 150 });
  expect(Math.abs(drawn.held / 1200 - exact)).toBeLessThan(3.5 * Math.sqrt((exact * (1 - exact)) / 1200) + 0.015);
  expect(joinedSamples([null])).toBeNull();
});
