import { newCodebook } from "@/files/codebook/read-codebook";
import { planMarkdown } from "@/files/plan-markdown";
import { analysis, planSum } from "../../analyse/plan-analysis";
import { Hypothesis } from "../../model/hypothesis";
import { Ladder } from "../../model/ladder";
import { deviations, Plan, type Plannable, planText, plannedOf } from "../../model/plan";
import { RespondentFilter } from "../../model/respondent-filter";
import { Scale } from "../../model/scale";
import { Study } from "../../model/study";
import { Theory } from "../../model/theory";
import { deskOf, ladderOf } from "../../test-support/desk";
import { deviationRows, deviationTable, planSays } from "./plan-words";

const item = (name: string) => ({ name, kind: "item", range: { low: 1, high: 5 } });
const filter = RespondentFilter.parse({ id: "adults", name: "Adults", conditions: [{ kind: "between", variable: "age", low: 18, high: null }] }); // prettier-ignore
const base = Study.parse({
  format: "beta-step-study",
  version: 1,
  name: "Harbour | choir",
  codebook: [{ name: "y", label: "Joy" }, { name: "x" }, { name: "age", label: "Age" }, { name: "never" }, ...["c1", "c2", "c3"].map(item)],
  scales: [Scale.parse({ id: "calm", name: "Calm", items: [{ variable: "c1" }, { variable: "c2", reversed: true }] })],
  filters: [filter],
  ladders: [{ ...ladderOf(["age"], ["calm", "x"]), respondents: "adults" }],
  hypotheses: [Hypothesis.parse({ id: "h", ladder: "l", rests: { on: "coefficient", column: [{ variable: "calm" }] }, direction: "+", before: true })], // prettier-ignore
  theories: [Theory.parse({ id: "theory", delta: 0.1 })],
});
const planned = plannedOf(base);
const at = "2026-11-28T12:00:00.000Z";
const plan = Plan.parse({ id: "p", at, rows: 0, document: planned, sha256: planSum({ at, rows: 0, document: planned }) });
const told = (now: Plannable) => deviationRows(deviations(planned, plannedOf(now)), planned, plannedOf(now)).map(({ about, of, planned: was, done }) => `${about} | ${of} | ${was} | ${done}`); // prettier-ignore
const ladder = (own: object) => ({ ...base, ladders: [Ladder.parse({ ...base.ladders[0], ...own })] });

describe("what was done otherwise", () => {
  test("is nothing while nothing is, whatever is named or looked at otherwise", () => {
    expect(told(base)).toEqual([]);
    expect(told(ladder({ name: "Another name", metric: "raw" }))).toEqual([]);
    expect(told({ ...base, hypotheses: [{ ...base.hypotheses[0]!, text: "Calm helps" }] })).toEqual([]);
    // variables behind nothing that was planned are not of the plan
    expect(planned.codebook.map((v) => v.name)).toEqual(["y", "x", "age", "c1", "c2"]);
  });
  test.each<[string, () => Plannable, string]>([
    ["errors", () => ladder({ errors: "hc3" }), "Errors and intervals | L, errors | classical | HC3"],
    ["intervals", () => ladder({ intervals: { by: "bca", replicates: 2000 } }), "Errors and intervals | L, intervals | normal theory | BCa, 2\u202f000 replicates"], // prettier-ignore
    ["a term", () => ladder({ steps: [base.ladders[0]!.steps[0], { id: "s1", terms: [{ components: ["calm"] }, { components: ["x"], off: true }] }] }), "Terms | L, step 2 | Calm, x | Calm"], // prettier-ignore
    ["a step", () => ladder({ steps: [...base.ladders[0]!.steps, { id: "s2", terms: [{ components: ["calm", "x"] }] }] }), "Terms | L, step 3 | no such step | Calm × x"], // prettier-ignore
    ["a filter", () => ({ ...base, filters: [{ ...filter, conditions: [{ kind: "between", variable: "age", low: 21, high: null }] }] }), "Who is in | Adults | keeps those whose Age is at least 18 | keeps those whose Age is at least 21"], // prettier-ignore
    ["an item", () => ({ ...base, scales: [{ ...base.scales[0]!, items: base.scales[0]!.items.map((i) => ({ ...i, reversed: false })) }] }), "Items | Calm | c1, c2 (reversed) | c1, c2"], // prettier-ignore
    ["a coding", () => ({ ...base, codebook: base.codebook.map((v) => (v.name === "c1" ? { ...v, range: { low: 0, high: 5 } } : v)) }), "How answers are read | c1, declared answers | 1 to 5 | 0 to 5"], // prettier-ignore
    ["a direction", () => ({ ...base, hypotheses: [{ ...base.hypotheses[0]!, direction: "-" as const }] }), "Hypotheses | H1 | Calm goes with more Joy (last step) | Calm goes with less Joy (last step)"], // prettier-ignore
    ["a hypothesis left out", () => ({ ...base, hypotheses: [] }), "Hypotheses | H1 | Calm goes with more Joy | not done"],
    [
      "the level",
      () => ({ ...base, theories: [Theory.parse({ id: "theory", alpha: 0.1, delta: 0.1 })] }),
      "Level and family | α | .05 | .10",
    ],
  ])("%s", (_, now, row) => expect(told(now())).toEqual([row]));
  test("the sample of a ladder, and the filter that nothing uses any more", () =>
    expect(told(ladder({ respondents: null }))).toEqual([
      "Who is in | Adults | keeps those whose Age is at least 18 | not done",
      "Who is in | L | respondents in “Adults” | all respondents",
    ]));
  test("what nobody had planned stands beside what was", () => {
    const second = Ladder.parse({ ...base.ladders[0]!, id: "m", name: "Second", respondents: null });
    const h = Hypothesis.parse({ id: "k", ladder: "m", rests: { on: "change" } });
    expect(told({ ...base, ladders: [...base.ladders, second], hypotheses: [...base.hypotheses, h] })).toEqual([
      "Terms | Second | not planned | Age; then Calm, x",
      "Hypotheses | H2 | not planned | Calm and x together add to what predicts Joy",
    ]);
  });
});

test("the sum is of what the plan says and of nothing else: another order of fields has the same, another word another", () => {
  const reversed = Object.fromEntries(Object.entries(planned).reverse()) as typeof planned;
  expect(planText({ at, rows: 0, document: reversed })).toBe(planText(plan));
  expect(plan.sha256).toMatch(/^[0-9a-f]{64}$/);
  const desk = deskOf({ y: ["1"] });
  const holds = (own: Partial<Plan>) => analysis.run({ plan: { ...plan, ...own }, done: planned }, desk).holds;
  expect([holds({}), holds({ at: "2026-11-29T12:00:00.000Z" }), holds({ document: { ...planned, theory: { ...planned.theory, alpha: 0.01 } } })]).toEqual([true, false, false]); // prettier-ignore
  expect(planSays(plan, { status: "told", holds: false, deviations: [] })).toContain("its sum does not match");
});

test("as a text it says all that was fixed, and no mark of a name is taken for one of the text", () => {
  const text = planMarkdown(base.name, plan);
  expect(text).toContain("# Plan: Harbour \\| choir");
  expect(text).toContain(`SHA-256 ${plan.sha256}`);
  expect(text).toContain("| H1 | Calm goes with more Joy | β of Calm, step 2 | to lie above 0 | as for all |");
  expect(text).toContain("c1, c2 reversed");
  expect(text).toContain("before there were any answers");
  expect(deviationTable(plan, []).note).toContain("None.");
});

describe("a codebook of variables that nobody knows yet", () => {
  test("typed lines, one a variable, though a word of theirs is a heading elsewhere", async () => {
    const { variables, faults } = await newCodebook("C1, I sing, item, 1, 5\nage, Age, number\nvoice, Voice, category, , , low; high\n");
    expect(faults).toEqual([]);
    expect(variables.map(({ name, kind }) => `${name} ${kind}`)).toEqual(["C1 item", "age number", "voice category"]);
    expect(variables[0]).toMatchObject({ label: "I sing", range: { low: 1, high: 5 } });
    expect(variables[2]!.levels.map((l) => l.value)).toEqual(["low", "high"]);
  });
  test("with headings, twice the same name is one, and what cannot be read says where", async () => {
    const { variables, faults } = await newCodebook("name;wording;kind\nq1;Once;item\nq1;Twice;item\nq2;Other;nonsense\n");
    expect(variables.map((v) => v.name)).toEqual(["q1", "q2"]);
    expect(faults).toHaveLength(1);
    expect(faults[0]).toMatch(/^Row 4 \(q2\)/);
  });
});
