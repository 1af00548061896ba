import { Ladder } from "../model/ladder";
import { Scale } from "../model/scale";
import { Study } from "../model/study";
import { sourceOf } from "../test-support/columns";
import { analyseLadder } from "./analyse-ladder";
import { analyseScale } from "./analyse-scale";
import type { WorkedOut } from "../kinds/kind";
import { type Analyses, loadAnalyses, resultsDocument } from "./results-document";

let analyses: Analyses;
beforeAll(async () => {
  analyses = await loadAnalyses();
});
const resultsOf = (of: Study, from: typeof source, worked?: ReadonlyMap<string, WorkedOut>): any =>
  resultsDocument(of, from, analyses, worked);

const n = 24;
const cells = (f: (i: number) => number | string) => Array.from({ length: n }, (_, i) => String(f(i)));
const answer = (i: number, k: number) => 1 + (Math.floor(Math.abs(Math.sin(i * 7.1 + k)) * 40 + i) % 5);
const source = sourceOf({
  q1: cells((i) => answer(i, 0)),
  q2: cells((i) => (i === 5 ? 55 : answer(i, 1))),
  q3: cells((i) => (i < 2 ? "" : answer(i, 2))),
  x: cells((i) => i * i),
  y: cells((i) => answer(i, 0) + i),
  group: cells((i) => (i % 2 ? "odd" : "even")),
  team: cells((i) => (i === 7 ? "" : `t${i % 6}`)),
  week: cells((i) => n - i),
  twice: cells((i) => i >> 1),
  fold: cells((i) => i % 4),
});
const item = (name: string) => ({ name, kind: "item", range: { low: 1, high: 5 } });
const study = Study.parse({
  format: "beta-step-study",
  version: 1,
  name: "s",
  codebook: [
    item("q1"),
    item("q2"),
    item("q3"),
    { name: "x" },
    { name: "y" },
    { name: "group", kind: "category" },
    ...["week", "twice", "fold"].map((name) => ({ name })),
    { name: "team", kind: "code" },
  ],
  scales: [{ id: "q", name: "Q", answeredShare: 0.6, items: [{ variable: "q1" }, { variable: "q2" }, { variable: "q3", reversed: true }] }],
});
const ladder = (over: object) =>
  Ladder.parse({
    id: "l",
    name: "L",
    outcome: "y",
    steps: [
      { id: "a", terms: [{ components: ["x"] }] },
      { id: "b", terms: [{ components: ["q"] }] },
    ],
    ...over,
  });

test("a scale's score enters a ladder by its id; who has no score is lost by that name", () => {
  const strict = { ...study, scales: [{ ...study.scales[0]!, answeredShare: 1 }] };
  const result = analyseLadder(strict, ladder({}), source);
  expect(result.status).toBe("fitted");
  expect(result.sample).toMatchObject({ rows: n, used: n - 2, missingByVariable: { q: 2, x: 0, y: 0 } });
  expect(result.sample!.rowsUsed[0]).toBe(3);
});

test("a filter keeps respondents by what the file says", () => {
  const result = analyseLadder(study, ladder({ filter: { variable: "group", equals: ["odd"] } }), source);
  expect(result.sample).toMatchObject({ keptByFilter: n / 2, used: n / 2 });
});

test.each([
  [{ outcome: null }, "no-outcome"],
  [{ steps: [{ id: "a" }] }, "no-terms"],
  [{ outcome: "x" }, "outcome-among-predictors"],
  [{ filter: { variable: "group", equals: ["neither"] } }, "too-few-cases"],
  [{ outcome: "gone" }, "missing-column"],
  [{ outcome: "group" }, "outcome-is-category"],
  [{ cluster: "gone" }, "missing-column"],
  [{ filter: { variable: "gone", equals: ["x"] } }, "missing-column"],
])("%p is refused as %s, as data", (over, code) => {
  expect(analyseLadder(study, ladder(over), source)).toMatchObject({ status: "refused", refusal: { code } });
});

test("a scale's sheet: counts add up, answers out of range are told apart, strips show answers as asked", () => {
  const result = analyseScale(study, study.scales[0]!, source);
  if (result.status !== "scored") throw new Error("refused");
  const { analysis } = result;
  expect([analysis.complete, analysis.prorated, analysis.unscored]).toEqual([n - 2, 2, 0]);
  expect(analysis.histogram!.counts.reduce((a, b) => a + b)).toBe(n);
  expect(analysis.strips[1]!.outside).toEqual([{ value: 55, count: 1 }]);
  expect(analysis.strips[2]).toMatchObject({ missing: 2, outside: [] });
  expect(analysis.reliability.alpha!.n).toBe(n - 2);
});

test("a scale that reverses an item without a range is refused and still shows its answers", () => {
  const bare = { ...study, codebook: study.codebook.map((v) => ({ ...v, range: null })) };
  const result = analyseScale(bare, study.scales[0]!, source);
  expect(result).toMatchObject({ status: "refused", refusal: { code: "undeclared-range", details: { items: ["q3"] } } });
  expect(result.status === "refused" && result.strips).toHaveLength(3);
});

test("a scale of one item has scores and no reliability", () => {
  const result = analyseScale(study, Scale.parse({ id: "one", name: "One", items: [{ variable: "q1" }] }), source);
  expect(result.status === "scored" && result.analysis.reliability).toEqual({ alpha: null, factor: null, factorRefusal: null });
});

test("the results document holds no NaN and survives JSON as it is", () => {
  const document = resultsOf({ ...study, ladders: [ladder({}), ladder({ id: "empty", outcome: null })] }, source);
  expect(JSON.parse(JSON.stringify(document))).toEqual(document);
  expect(document.ladders.empty).toMatchObject({ status: "refused", refusal: { code: "no-outcome" } });
  expect(document.scales.q!.status).toBe("scored");
});

test("a ladder whose replicates were not drawn says so; drawn ones stand under the names of their figures", () => {
  const asked = ladder({ intervals: { by: "bca", replicates: 1000 }, seed: 3 });
  const results = (worked?: ReadonlyMap<string, WorkedOut>): any =>
    resultsOf({ ...study, ladders: [asked] }, source, worked).ladders.l.bootstrap;
  expect(results()).toEqual({ available: false, reason: "not-drawn" });
  const interval = { estimate: 0.2, lower: 0.1, upper: 0.3, method: "bca" as const, clamped: false, needed: 40 };
  const spread = { edges: [0, 1], counts: [1000] };
  const figures = [
    { kind: "R2", step: 0 },
    { kind: "part", step: 1, column: "a*b" },
    { kind: "marginalMean", step: 1, variable: "group", level: "odd" },
    { kind: "contrast", step: 1, variable: "group", level: "odd", minus: "even" },
    { kind: "difference", step: 1, first: "a", second: "b" },
  ] as const;
  const intervals = { replicates: 1000, redrawn: 4, units: 30, intervals: figures.map((figure) => ({ figure, interval, spread })), differences: [{ ...interval, first: "a", second: "b", p: 0.04, pHolm: 0.08 }] }; // prettier-ignore
  const found = results(new Map([["ladder l", { intervals }]]));
  expect(found).toMatchObject({ by: "bca", replicates: 1000, seed: 3, units: 30, redrawn: 4 });
  expect(Object.keys(found.intervals)).toEqual(["step1.R2", "step2.part.a*b", "step2.marginalMean.group.odd", "step2.contrast.group.odd - even", "step2.difference.a - b"]); // prettier-ignore
  expect(found.beta_differences["a - b"]).toMatchObject({ p: 0.04, p_holm: 0.08, lower: 0.1 });
  expect(found.intervals["step1.R2"]).toEqual(interval);
});

describe("settings that change the sample or the errors", () => {
  test("a cluster variable must be answered; the errors allow for its clusters", () => {
    const result = analyseLadder(study, ladder({ cluster: "team" }), source);
    if (result.status !== "fitted") throw new Error("refused");
    expect(result.sample).toMatchObject({ used: n - 1, missingByVariable: { team: 1 } });
    expect(result.fit).toMatchObject({ errors: "cluster", steps: [{ clusters: 6 }, { clusters: 6 }] });
    expect(result.fit.steps[0]!.change.df).toEqual([1, 5]);
  });

  test("a variable that must also be answered costs its cases and enters nothing", () => {
    const result = analyseLadder(study, ladder({ alsoComplete: ["team"] }), source);
    expect(result.sample).toMatchObject({ used: n - 1, missingByVariable: { team: 1 } });
    expect(result.status === "fitted" && result.fit.steps[1]!.model.p).toBe(2);
  });

  test("a category enters by its levels; HC3 is what the tables then show", () => {
    const spec = {
      errors: "hc3",
      categories: [{ variable: "group", reference: "odd" }],
      steps: [{ id: "a", terms: [{ components: ["group"] }] }],
    };
    const result = analyseLadder(study, ladder(spec), source);
    if (result.status !== "fitted") throw new Error("refused");
    expect(result.fit.steps[0]!.coefficients.map((c) => c.column)).toEqual(["group[even]"]);
    expect(result.fit.errors).toBe("hc3");
  });
});

describe("what the results document says of the order and of folds", () => {
  const results = (over: object): any => resultsOf({ ...study, ladders: [ladder(over)] }, source).ladders.l;

  test.each([
    [null, "no-order-stated"],
    [{ by: "variable", variable: "twice" }, "order-has-ties"],
    [{ by: "variable", variable: "team" }, "order-is-no-number"],
  ])("order %p: no Durbin–Watson, with the reason", (order, reason) => {
    expect(results({ order })).toMatchObject({ durbin_watson: null, durbin_watson_permutation: { reason } });
  });

  test("by the rows of the file, or against them: the same d, as neighbours stay neighbours", () => {
    const [rows, backwards] = [{ by: "rows" }, { by: "variable", variable: "week" }].map((order) => results({ order }).durbin_watson);
    expect(rows["2"]).toBeGreaterThan(0);
    expect(backwards["2"]).toBeCloseTo(rows["2"], 10);
  });

  test("every step has its p; above 20,000 respondents the last one alone, and the others say so", () => {
    const permutation = results({ order: { by: "rows" } }).durbin_watson_permutation;
    expect([permutation["1"].permutations, permutation["2"].permutations]).toEqual([1999, 1999]);
    const many = 20_001;
    const long = (f: (i: number) => number) => Array.from({ length: many }, (_, i) => f(i).toFixed(3));
    const data = sourceOf({ y: long((i) => Math.sin(i * 12.9898)), x: long((i) => Math.cos(i * 78.233)), week: long((i) => i) });
    const spec = { order: { by: "rows" }, steps: [{ id: "a", terms: [{ components: ["x"] }] }, { id: "b" }] };
    const large: any = resultsOf(
      { ...study, codebook: study.codebook.filter((v) => ["x", "y"].includes(v.name)), scales: [], ladders: [ladder(spec)] },
      data,
    ).ladders.l;
    expect(large.durbin_watson["1"]).toBeGreaterThan(0);
    expect(large.durbin_watson_permutation).toMatchObject({
      "1": { p: null, reason: "last-step-only-in-large-samples" },
      "2": { permutations: 199 },
    });
    expect(large.influence).toEqual({ available: false, reason: "too-many-cases-to-list", most: 20_000 });
  });

  test("folds are those given, or ten by the seed; a variable with gaps or of one value makes none", () => {
    expect(results({ folds: "fold" }).comparison.cross_validation_folds).toMatchObject({ folds: 4, by: "fold", seed: null });
    expect(results({ seed: 9 }).comparison.cross_validation_folds).toMatchObject({ folds: 10, by: "seed", seed: 9 });
    const gaps = results({ folds: "team" }).comparison;
    expect(gaps.cross_validation_folds).toEqual({ reason: "folds-have-gaps" });
    expect(gaps.cross_validation).toEqual({ "step 1": null, "step 2": null });
    const one = results({ folds: "group", filter: { variable: "group", equals: ["odd"] } }).comparison;
    expect(one.cross_validation_folds).toEqual({ reason: "one-fold" });
  });
});

describe("no number of the results is NaN or infinite", () => {
  const codebook = ["y", "x", "flat", "huge", "tiny", "exact", "one", "rare", "few"].map((name) => ({
    name,
    kind: ["one", "rare"].includes(name) ? "category" : "number",
  }));
  const wave = (i: number) => Math.sin(i * 12.9898) + i / 50;
  const data = sourceOf({
    y: cells((i) => wave(i) + Math.cos(i)),
    x: cells(wave),
    flat: cells(() => 4),
    huge: cells((i) => (wave(i + 5) + Math.sqrt(i)) * 1e160),
    tiny: cells((i) => wave(i + 9) * 1e-160),
    exact: cells((i) => 2 * wave(i) - 1),
    one: cells(() => "all"),
    rare: cells((i) => (i === 3 ? "alone" : i % 2 ? "odd" : "even")),
    few: cells((i) => (i < 5 ? wave(i + 2) : "")),
  });
  const walk = (value: unknown, path: string): string[] => {
    if (typeof value === "number") return Number.isFinite(value) ? [] : [path];
    if (value === null || typeof value !== "object") return [];
    return Object.entries(value).flatMap(([key, inside]) => walk(inside, `${path}/${key}`));
  };

  test.each<[string, object]>([
    ["a constant predictor and a category of one level", { steps: ["flat", "one", "x"] }],
    ["nothing but what does not vary", { steps: ["flat", "one"] }],
    ["sizes at the ends of double precision", { steps: ["huge", "tiny", "huge*tiny", "x"] }],
    ["squares beyond double precision", { steps: ["huge", "huge*huge"] }],
    ["a perfect fit", { outcome: "exact", steps: ["x", "rare"] }],
    ["a level of one respondent, with everything robust", { steps: ["rare", "x", "x*rare"], errors: "hc3", cluster: "rare" }],
    ["p + 2 respondents", { steps: ["few", "x", "tiny"] }],
    ["p + 1 respondents", { steps: ["few", "x", "tiny", "huge"] }],
    ["an outcome whose squares overflow", { outcome: "huge", steps: ["x"] }],
    ["an outcome whose squares vanish", { outcome: "tiny", steps: ["x"] }],
  ])("%s", (_, { steps, ...over }: any) => {
    const hostile = Study.parse({
      ...{ format: "beta-step-study", version: 1, name: "h", codebook },
      ladders: [
        ladder({
          order: { by: "rows" },
          ...over,
          steps: steps.map((term: string, k: number) => ({ id: `s${k}`, terms: [{ components: term.split("*") }] })),
        }),
      ],
    });
    const document = resultsOf(hostile, data);
    expect(walk(document, "")).toEqual([]);
    const { status, refusal }: any = document.ladders.l;
    expect(status === "fitted" || ["too-few-cases", "out-of-range", "non-finite-value"].includes(refusal.code)).toBe(true);
  });
});

describe("comparisons between ladders", () => {
  const other = (over: object) => ladder({ id: "m", name: "M", steps: [{ id: "a", terms: [{ components: ["q"] }] }], ...over });
  const compare = (second: object, models: object[] = [{}, {}]): any => {
    const [one, two] = models;
    const both = [
      { name: "A", ladder: "l", ...one },
      { name: "B", ladder: "m", ...two },
    ];
    const all = { ...study, ladders: [ladder({}), other(second)], comparisons: [{ id: "c", name: "C", models: both }] };
    return resultsOf(Study.parse(all), source).comparisons.c;
  };

  test("the last step is compared unless another is named; what is nested is tested", () => {
    const { status, models, pairs } = compare({ alsoComplete: ["x"] });
    expect([status, models.A.p, models.B.p]).toEqual(["compared", 2, 1]);
    expect(pairs["A over B"].nested).toMatchObject({ larger: "A", df1: 1 });
    expect(compare({ alsoComplete: ["x"] }, [{ step: 1 }, {}]).pairs["A over B"].nested).toBeNull();
  });

  test("unlike samples, unlike outcomes and a ladder that cannot be fitted are refused, with the reason as data", () => {
    expect(compare({ alsoComplete: ["team"] })).toMatchObject({
      status: "refused",
      refusal: { code: "unlike-models", details: { first: "A", second: "B", differ: "sample", values: [n, n - 1] } },
    });
    expect(compare({ outcome: "x" })).toMatchObject({ refusal: { details: { differ: "outcome", values: ["y", "x"] } } });
    expect(compare({ outcome: null })).toMatchObject({
      refusal: { code: "model-refused", details: { model: "B", refusal: { code: "no-outcome" } } },
    });
  });

  test.each<[object, RegExp]>([
    [
      {
        models: [
          { name: "A", ladder: "l" },
          { name: "B", ladder: "gone" },
        ],
      },
      /names a ladder "gone" that is not there/,
    ],
    [
      {
        models: [
          { name: "A", ladder: "l" },
          { name: "B", ladder: "l", step: 3 },
        ],
      },
      /has no step 3/,
    ],
    [
      {
        models: [
          { name: "A", ladder: "l" },
          { name: "A", ladder: "l" },
        ],
      },
      /a name of its own/,
    ],
    [{ folds: "q" }, /not in the codebook/],
  ])("%p is no comparison", (over, words) => {
    const models = [
      { name: "A", ladder: "l" },
      { name: "B", ladder: "l", step: 1 },
    ];
    const parsed = Study.safeParse({ ...study, ladders: [ladder({})], comparisons: [{ id: "c", name: "C", models, ...over }] });
    expect(parsed.error?.issues.map((issue) => issue.message).join(" ")).toMatch(words);
  });
});
