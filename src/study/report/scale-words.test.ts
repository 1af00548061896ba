import { randomStream } from "@/core/random/random-stream";
import { analyseScale } from "../analyse/analyse-scale";
import { Scale } from "../model/scale";
import { plain } from "./words";
import { Study, titleOf } from "../model/study";
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
  const [watch] = scaleWatches(wrong.scale, wrong.analysis.strips, wrong.analysis).filter((w) => w.fixes?.[0]?.do === "turn");
  expect(watch).toMatchObject({ fixes: [{ do: "turn", items: ["against"] }] });
  expect(watch!.words).toContain("It is keyed as asked: check its wording.");
  const right = withAgainst(true);
  expect(right.analysis.reliability.alpha!.alpha!).toBeGreaterThan(0.7);
  expect(scaleWatches(right.scale, right.analysis.strips, right.analysis).filter((w) => w.fixes?.[0]?.do === "turn")).toEqual([]);
});

test("answers outside the declared range are named with a code to declare; words in cells are counted", () => {
  const { scale, analysis } = analysed({});
  const watches = scaleWatches(scale, analysis.strips, analysis);
  expect(watches.find((w) => w.fixes?.[0]?.do === "missing-code")).toMatchObject({
    fixes: [{ variable: "q2", code: "77" }],
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
  expect(plain(methodSentence(scale, analysis))).toBe(
    `Ease is the mean of 3 items (against reverse-keyed) for respondents who answered at least 60 % of them (M = ${mean!.toFixed(2)}, SD = ${sd!.toFixed(2)}; Cronbach's α = ${share(alpha!)}, 95 % CI [${share(lower!)}, ${share(upper!)}]).`,
  );
});

describe("what else is pointed out", () => {
  const random = randomStream(6);
  const m = 90;
  const trait = Array.from({ length: m }, () => random.normal());
  const likert = (x: number, high: number) =>
    Math.max(1, Math.min(high, Math.round((high + 1) / 2 + (high / 4) * x + 0.5 * random.normal())));
  const column = (high: number, sign = 1) => trait.map((x) => String(likert(sign * x, high)));
  const data = {
    a: column(5),
    b: column(5),
    wide: column(9),
    hard: trait.map(() => String(1 + random.below(5))),
    never: column(5, -1),
    still: trait.map(() => "3"),
    gap: column(5).map((x, i) => (i % 4 === 0 ? "" : x)),
    g: trait.map((_, i) => (i % 2 === 0 ? "x" : "y")),
  };
  const own = sourceOf(data);
  const labels: Record<string, string> = { hard: "I do not mind", never: "I never mind" };
  const whole = Study.parse({
    format: "beta-step-study",
    version: 1,
    name: "s",
    codebook: [
      ...Object.keys(data).slice(0, -1).map((name) => ({ name, kind: "item", label: labels[name] ?? "", range: { low: 1, high: name === "wide" ? 9 : 5 } })), // prettier-ignore
      {
        name: "g",
        label: "Room",
        kind: "category",
        levels: [
          { value: "x", label: "large" },
          { value: "y", label: "small" },
        ],
      },
    ],
    scales: [{ id: "other", name: "Other", items: [{ variable: "b" }] }],
  });
  const look = (items: (string | object)[], over: object = {}) => {
    const scale = Scale.parse({ id: "s", name: "Ease", items: items.map((i) => (typeof i === "string" ? { variable: i } : i)), ...over });
    const result = analyseScale(whole, scale, own);
    if (result.status !== "scored") throw new Error(result.refusal.code);
    const watches = scaleWatches(scale, result.analysis.strips, result.analysis, whole);
    return {
      scale,
      analysis: result.analysis,
      watch: (id: string) => watches.find((w) => w.id === id),
      said: whatTheScaleSays(scale, result.analysis, (name, level) => titleOf(whole, name, level)).join(" "),
    };
  };

  test("a wording that denies is pointed out where the answers do not speak for the item, and not where they do", () => {
    expect(look(["a", "b", "hard"]).watch("wording hard")).toMatchObject({ fixes: [{ do: "turn", items: ["hard"] }] });
    const turned = look(["a", "b", { variable: "never", reversed: true }]);
    expect(turned.watch("wording never")).toBeUndefined();
    const wrong = look(["a", "b", "never"]);
    expect(wrong.watch("wording never")).toBeUndefined(); // said once already, by the answers
    expect(wrong.watch("key never")).toMatchObject({ fixes: [{ do: "turn", items: ["never"] }] });
  });

  test("unlike ranges, shared items, items that do not vary and rules that lose respondents each have their words", () => {
    expect(look(["a", "wide"]).watch("unlike")).toMatchObject({ fixes: [{ do: "weigh-equally" }] });
    expect(look(["a", "wide"], { rule: "weighted", weigh: "z" }).watch("unlike")).toBeUndefined();
    expect(look(["a", "b"]).watch("shared")!.words).toMatch(/^b serves Other as well/);
    expect(look(["a", "b", "still"]).watch("constant")!.words).toMatch(/the same answer to still/);
    expect(look(["a", "b", "gap"], { rule: "weighted" }).watch("unscored")!.words).toContain(
      "A mean of the answered items would keep more.",
    );
    expect(look(["a", "b", "gap"]).watch("unscored")).toBeUndefined();
    const copy = look(["a", "b", "wide"]);
    expect(copy.watch("singular")).toBeUndefined();
  });

  test("two items are told by Spearman and Brown; groups by the lowest and highest alpha", () => {
    const two = look(["a", "b"]);
    const r = two.analysis.reliability.alpha!.meanInterItemR!;
    expect(two.said).toContain(`Spearman–Brown coefficient, ${((2 * r) / (1 + r)).toFixed(2).slice(1)},`);
    const groups = look(["a", "b", "wide"], { byGroup: "g" });
    expect(groups.analysis.groups!.map(({ level, n }) => [level, n])).toEqual([["x", 45], ["y", 45]]); // prettier-ignore
    expect(groups.said).toMatch(/Between groups α runs from \.\d\d \((large|small)\) to \.\d\d \((large|small)\)/);
  });

  test.each<[object, RegExp]>([
    [
      { rule: "weighted", weigh: "z", weightsFrom: "somewhere" },
      /^Ease is the weighted sum of z-scores of 3 items, weights from somewhere, for respondents who answered all of them \(M = 0\.00/,
    ],
    [{ rule: "regression" }, /the regression score of the factor of 3 items \(maximum likelihood\), for/],
    [{ rule: "sum", answeredShare: 0.5 }, /the sum of 3 items for respondents who answered at least 50 % of them/],
  ])("%j has words of its own for a method section", (over, words) => {
    const { scale, analysis } = look(["a", "b", "wide"], over);
    expect(plain(methodSentence(scale, analysis))).toMatch(words);
  });
});
