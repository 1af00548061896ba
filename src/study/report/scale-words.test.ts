import { analyseScale } from "../analyse/analyse-scale";
import { Scale } from "../model/scale";
import { Study } from "../model/study";
import { sourceOf } from "../test-support/columns";
import { methodSentence, scaleWatches, whatTheScaleSays } from "./scale-words";

const n = 60;
const cells = (f: (i: number) => number | string) => Array.from({ length: n }, (_, i) => String(f(i)));
const trait = (i: number) => 3 + 1.6 * Math.sin(i * 1.7);
const answer = (i: number, k: number) => Math.min(5, Math.max(1, Math.round(trait(i) + 0.7 * Math.sin(i * 9.1 + k * 2))));
const source = sourceOf({
  q1: cells((i) => answer(i, 1)),
  q2: cells((i) => (i === 4 ? 77 : answer(i, 2))),
  q3: cells((i) => (i === 0 ? "" : i === 1 ? "often" : answer(i, 3))),
  against: cells((i) => 6 - answer(i, 4)),
});
const study = Study.parse({
  format: "beta-step-study",
  version: 1,
  name: "s",
  codebook: ["q1", "q2", "q3", "against"].map((name) => ({ name, kind: "item", range: { low: 1, high: 5 } })),
});
const analysed = (over: object) => {
  const scale = Scale.parse({
    id: "s",
    name: "Ease",
    answeredShare: 0.6,
    items: ["q1", "q2", "q3"].map((variable) => ({ variable })),
    ...over,
  });
  const result = analyseScale(study, scale, source);
  if (result.status !== "scored") throw new Error("refused");
  return { scale, analysis: result.analysis };
};
const withAgainst = (reversed: boolean) =>
  analysed({ items: [...["q1", "q3"].map((variable) => ({ variable })), { variable: "against", reversed }] });

test("an item that runs against the others is named, with what alpha would be without it; turned round, it is not", () => {
  const wrong = withAgainst(false);
  const { alpha, perItem } = wrong.analysis.reliability.alpha!;
  expect(alpha!).toBeLessThan(0.5);
  const sentence = whatTheScaleSays(wrong.scale, wrong.analysis)[1]!;
  expect(sentence).toContain("against goes with the rest at −.");
  expect(sentence).toContain(`without it α would be ${perItem[2]!.alphaWithout!.toFixed(2).slice(1)}`);
  const [watch] = scaleWatches(wrong.scale, wrong.analysis.strips, wrong.analysis).filter((w) => w.turn);
  expect(watch).toMatchObject({ turn: ["against"] });
  expect(watch!.words).toContain("It is keyed as asked: check its wording.");
  const right = withAgainst(true);
  expect(right.analysis.reliability.alpha!.alpha!).toBeGreaterThan(0.7);
  expect(scaleWatches(right.scale, right.analysis.strips, right.analysis).filter((w) => w.turn)).toEqual([]);
});

test("answers outside the declared range are named with a code to declare; words in cells are counted", () => {
  const { scale, analysis } = analysed({});
  const watches = scaleWatches(scale, analysis.strips, analysis);
  expect(watches.find((w) => w.missingCode)).toMatchObject({
    missingCode: { variable: "q2", code: "77" },
    words: "q2 holds 77 once, outside the declared answers. It counts as it stands.",
  });
  expect(watches.map((w) => w.words)).toContain("q3 holds words in 1 cell; they count as missing.");
});

test("who is scored from fewer items, and who is not scored, is said", () => {
  const lenient = analysed({});
  expect(whatTheScaleSays(lenient.scale, lenient.analysis).at(-1)).toBe(
    "2 respondents are scored from fewer than all items; nobody is left without a score.",
  );
  const strict = analysed({ answeredShare: 1 });
  expect(whatTheScaleSays(strict.scale, strict.analysis).at(-1)).toBe("2 respondents have too few answers for a score.");
});

test("the sentence for a method section names rule, items, keying, share and alpha; no ω of a Heywood case", () => {
  const { scale, analysis } = withAgainst(true);
  const { mean, sd } = analysis.description;
  const { alpha, lower, upper } = analysis.reliability.alpha!;
  expect(analysis.reliability.factor!.heywood).toHaveLength(1);
  const share = (x: number) => x.toFixed(2).slice(1);
  expect(methodSentence(scale, analysis)).toBe(
    `Ease is the mean of 3 items (against reverse-keyed) for respondents who answered at least 60 % of them (M = ${mean!.toFixed(2)}, SD = ${sd!.toFixed(2)}; Cronbach's α = ${share(alpha!)}, 95 % CI [${share(lower!)}, ${share(upper!)}]).`,
  );
});
