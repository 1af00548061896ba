import { describe as describeValues } from "@/core/describe/description";
import { lowess } from "@/core/describe/lowess";
import type { Desk } from "../kinds/kind";
import { Groups } from "../model/groups";
import { Ladder } from "../model/ladder";
import { Look } from "../model/look";
import { Study } from "../model/study";
import { StudyColumns } from "../prepare/study-columns";
import { sourceOf } from "../test-support/columns";
import { analyseGroups } from "./analyse-groups";
import { analyseLadder } from "./analyse-ladder";
import { analyseLook } from "./analyse-look";
import { analysePair } from "./analyse-pair";
import { analyseScale } from "./analyse-scale";

/** What is told of one group is what is told of its respondents alone, by another way through the house: a filter. */
const N = 160;
const wave = (i: number, k: number) => Math.round(1000 * Math.sin((i + 1) * k * 1.7 + k * k)) / 500;
const site = (i: number) => ["north", "south", "west"][(i * i) % 3 === 0 ? 0 : 1 + (i % 2)]!;
const cells = (f: (i: number) => number | string) => Array.from({ length: N }, (_, i) => String(f(i)));
const DATA = {
  site: cells((i) => (i % 37 === 0 ? "" : site(i))),
  x: cells((i) => (i % 29 === 0 ? "" : wave(i, 1))),
  m: cells((i) => 3 + wave(i, 2)),
  kind: cells((i) => ["p", "q"][(i * 7) % 5 < 3 ? 0 : 1]!),
  class: cells((i) => `c${i % 24}`),
  q1: cells((i) => 3 + Math.round(wave(i, 3) / 2 + wave(i, 7) / 2)),
  q2: cells((i) => 3 + Math.round(wave(i, 3) / 2 + wave(i, 8) / 2)),
  q3: cells((i) => 3 + Math.round(wave(i, 3) / 2 + wave(i, 9) / 2)),
  y: cells((i) => wave(i, 1) * (site(i) === "north" ? 1.5 : 0.3) + 0.4 * wave(i, 2) + wave(i, 5)),
};
const LEVELS = ["north", "south", "west"];
const study = Study.parse({
  format: "beta-step-study",
  version: 1,
  name: "s",
  codebook: Object.keys(DATA).map((name) => ({
    name,
    kind: ["site", "kind", "class"].includes(name) ? "category" : "number",
    levels: name === "site" ? LEVELS.map((value) => ({ value })) : [],
  })),
  filters: LEVELS.map((level) => ({ id: level, name: level, reason: "one site", conditions: [{ kind: "values", variable: "site", equals: [level], not: false }] })),
  scales: [{ id: "calm", name: "Calm", items: ["q1", "q2", "q3"].map((variable) => ({ variable })) }],
}); // prettier-ignore
const source = sourceOf(DATA);
const desk = { study, responses: source, columns: new StudyColumns(study, source), rows: N } as unknown as Desk;
const close = (ours: number | null | undefined, theirs: number | null | undefined, digits = 1e-9) => {
  if (ours == null || theirs == null) return expect(ours ?? null).toBe(theirs ?? null);
  expect(Math.abs(ours - theirs)).toBeLessThanOrEqual(digits * Math.max(1, Math.abs(theirs)));
};

const SPECS: [string, string[], object][] = [
  ["numbers", ["x", "m"], {}],
  ["a product, as they are", ["x", "m", "x*m"], { centring: "raw" }],
  ["a category", ["x", "kind"], {}],
  ["a category's product", ["x", "kind", "x*kind"], { centring: "raw" }],
  ["HC3", ["x", "m"], { errors: "hc3" }],
  ["clusters", ["x", "m"], { cluster: "class" }],
  ["a score", ["calm", "x"], {}],
];

test.each(SPECS)("law: the step in a group is the ladder on that group's respondents (%s)", (_, terms, own) => {
  const ladder = (more: object) => Ladder.parse({ id: "l", name: "L", outcome: "y", steps: [{ id: "s", terms: terms.map((term) => ({ components: term.split("*") })) }], ...own, ...more }); // prettier-ignore
  const result = analyseGroups({ groups: Groups.parse({ id: "g", ladder: "l", variable: "site" }), ladder: ladder({}) }, desk);
  if (result.status === "refused") throw new Error(result.refusal.code);
  expect(result.groups.map((g) => g.name)).toEqual(LEVELS);
  for (const [g, level] of LEVELS.entries()) {
    const alone = analyseLadder(study, ladder({ filter: { variable: "site", equals: [level] } }), source);
    if (alone.status === "refused") throw new Error(alone.refusal.code);
    const [step] = alone.fit.steps;
    expect(result.groups[g]!.cases).toBe(alone.fit.n);
    close(result.groups[g]!.fitted!.R2, step!.model.R2);
    for (const { column, b } of step!.coefficients) {
      const found = result.columns.find((c) => c.column === column)!.found.raw[g]!;
      for (const what of ["estimate", "se", "t", "p", "lower", "upper"] as const) close(found[what], b[what], 1e-8);
    }
  }
});

test("law: β by a group's own SDs is the β of the ladder on that group's respondents", () => {
  const ladder = (more: object) => Ladder.parse({ id: "l", name: "L", outcome: "y", steps: [{ id: "s", terms: [["x"], ["m"], ["x", "m"]].map((components) => ({ components })) }], ...more }); // prettier-ignore
  const result = analyseGroups({ groups: Groups.parse({ id: "g", ladder: "l", variable: "site" }), ladder: ladder({}) }, desk);
  if (result.status === "refused") throw new Error(result.refusal.code);
  for (const [g, level] of LEVELS.entries()) {
    const alone = analyseLadder(study, ladder({ filter: { variable: "site", equals: [level] } }), source);
    if (alone.status === "refused") throw new Error(alone.refusal.code);
    for (const { column, beta } of alone.fit.steps[0]!.coefficients) close(result.columns.find((c) => c.column === column)!.found.own[g]!.estimate, beta!.estimate); // prettier-ignore
  }
});

test.each(["pairwise", "complete"] as const)("law: a look's group is the look at that group's respondents (%s)", (cases) => {
  const variables = ["x", "m", "calm", "kind", "y"];
  const look = (own: object) => {
    const found = analyseLook(Look.parse({ id: "l", name: "L", variables, cases, ...own }), desk);
    if (found.status === "refused") throw new Error(found.refusal.code);
    return found;
  };
  const whole = look({ by: "site" });
  expect(whole.groups.map((g) => g.level)).toEqual(LEVELS);
  expect(whole.groups.reduce((sum, g) => sum + g.rows, 0) + whole.without).toBe(whole.rows);
  for (const group of whole.groups) {
    const alone = look({ respondents: group.level });
    expect(group.rows).toBe(alone.rows);
    group.columns.forEach((c, i) => {
      const other = alone.columns[i]!;
      expect([c.key, c.missing]).toEqual([other.key, other.missing]);
      for (const what of ["n", "mean", "sd", "median", "skewness", "kurtosis"] as const)
        close(c.description[what], other.description[what]);
      close(c.interval?.lower, other.interval?.lower);
      close(c.alpha, other.alpha);
    });
    for (const what of ["n", "r", "p", "lower", "upper"] as const) group.table[what].forEach((v, at) => (Number.isNaN(v) ? expect(alone.table[what][at]).toBeNaN() : close(v, alone.table[what][at]))); // prettier-ignore
    expect(group.categories).toEqual(alone.categories);
  }
});

test("law: a score's line in the table is its score sheet", () => {
  const found = analyseLook(Look.parse({ id: "l", name: "L", variables: ["calm", "x"], diagonal: "omega" }), desk);
  const sheet = analyseScale(study, study.scales[0]!, source);
  if (found.status === "refused" || sheet.status === "refused") throw new Error("refused");
  const [calm] = found.columns;
  for (const what of ["n", "mean", "sd", "se", "median", "q1", "q3", "min", "max", "skewness", "kurtosis"] as const) close(calm!.description[what], sheet.analysis.description[what]); // prettier-ignore
  close(calm!.alpha, sheet.analysis.reliability.alpha!.alpha);
  close(calm!.omega, sheet.analysis.reliability.factor!.omega);
});

test("law: a scatter's lines and smooths are those of each part's respondents alone, and parts add up to everybody who has them", () => {
  const pair = (own: object) => {
    const found = analysePair({ x: "x", y: "y", by: null, panels: [], respondents: null, ...own }, desk);
    if (found.status === "refused") throw new Error(found.refusal.code);
    return found;
  };
  const parted = pair({ by: "site" });
  for (const [g, level] of LEVELS.entries()) {
    const alone = pair({ respondents: level });
    const { fit } = parted.fits[g]!;
    expect(fit.n).toBe(alone.whole.n);
    close(fit.line!.slope, alone.whole.line!.slope);
    close(fit.test!.p, alone.whole.test!.p);
    fit.smooth!.y.forEach((v, i) => close(v, alone.whole.smooth!.y[i]));
    // the smooth that is drawn is the smooth itself, at each x once
    const full = lowess(alone.x, alone.y);
    alone.whole.smooth!.x.forEach((x, i) => close(alone.whole.smooth!.y[i], full[alone.x.indexOf(x)]));
  }
  const nobody = parted.by!.codes.filter((code) => code < 0).length;
  expect(parted.fits.reduce((sum, { fit }) => sum + fit.n, nobody)).toBe(parted.x.length);
  expect(describeValues(parted.x).n).toBe(parted.rows.length);
});
