import { analyseComparison } from "../../analyse/analyse-comparison";
import { Comparison } from "../../model/comparison";
import { Ladder } from "../../model/ladder";
import { Study } from "../../model/study";
import { sourceOf } from "../../test-support/columns";
import { plain } from "../words";
import { comparisonSays } from "./comparison-words";

const wave = (i: number, k: number) => (Math.sin((i + 1) * (k + 3) * 12.9898) * 43758.5453) % 1;
const cells = (f: (i: number) => number) => Array.from({ length: 80 }, (_, i) => String(f(i)));
const source = sourceOf({
  y: cells((i) => 3 * wave(i, 1) + wave(i, 2) + wave(i, 9)),
  a: cells((i) => wave(i, 1)),
  b: cells((i) => wave(i, 2)),
  c: cells((i) => wave(i, 5)),
});
const study = Study.parse({
  format: "beta-step-study",
  version: 1,
  name: "s",
  codebook: ["y", "a", "b", "c"].map((name) => ({ name })),
});
const says = (...models: string[][]) => {
  const ladders = models.map((terms, k) =>
    Ladder.parse({ id: `l${k}`, name: `M${k + 1}`, outcome: "y", steps: [{ id: "s", terms: terms.map((t) => ({ components: [t] })) }] }),
  );
  const comparison = Comparison.parse({ id: "c", name: "C", models: ladders.map((l) => ({ name: l.name, ladder: l.id })) });
  const result = analyseComparison(study, comparison, ladders, source);
  if (result.status !== "compared") throw new Error(result.refusal.code);
  return { words: comparisonSays(result).map(plain), result };
};

test("a ladder that holds another says what it adds, with its test; which one is larger does not hang on the order", () => {
  const { words, result } = says(["a"], ["a", "b"]);
  const { change, F, df } = result.pairs[0]!.nested!;
  expect(words[0]).toMatch(/^By AIC M2 is preferred, \d+\.\d\d ahead of M1; its Akaike weight among these is over \.99\.$/);
  expect(words[1]).toBe(
    `M2 holds all of M1 and adds ΔR² = .${String(Math.round(change * 1000)).padStart(3, "0")}, F(${df.join(", ")}) = ${F!.toFixed(2)}, p < .001.`,
  );
  expect(says(["a", "b"], ["a"]).words[1]).toMatch(/^M1 holds all of M2 and adds/);
});

test("ladders that do not hold one another have no p, but a distance in predictions and in BIC", () => {
  const { words } = says(["a", "c"], ["b", "c"]);
  expect(words[1]).toMatch(
    /^M1 and M2 do not hold one another: no p value\. Their predictions differ by \d\.\d\d SD of the outcome on average, at most \d\.\d\d\. BIC favours M1 \(log10 of the Bayes factor \d+\.\d\d\)\.$/,
  );
});

test("two that are about as good are told to be so, and three are all compared", () => {
  const { words } = says(["a", "b"], ["a", "b"], ["c"]);
  expect(words[0]).toBe("By AIC M1 and M2 are about as good (ΔAIC = 0.00).");
  expect(words.filter((said) => /hold one another|holds all of/.test(said))).toHaveLength(3);
  expect(words.join(" ")).not.toMatch(/prove|cause|effect/);
});

test("rivals: what each adds to the other with its test, and which predicts respondents held out better, fold by fold", () => {
  const { words, result } = says(["a", "c"], ["b", "c"]);
  expect(words[2]).toMatch(
    /^What only M1 has adds ΔR² = \.\d{3} to M2 \(F\(1, 76\) = [\d.]+, p < \.001\); what only M2 has adds \.\d{3} to M1 \(F\(1, 76\)/,
  );
  const [m1, m2] = result.models.map((m) => m.heldOut!);
  const better = m1!.byFold.filter((error, f) => error < m2!.byFold[f]!).length;
  expect(words.at(-1)).toContain(`in ${m1!.rmse! < m2!.rmse! ? better : 10 - better} of 10 folds.`);
});
