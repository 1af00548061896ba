import { populationOf } from "@/core/planning/population";
import {
  changeWithin,
  detectableEffect,
  effectOf,
  expectedHalfWidth,
  type PlannedTest,
  powerOf,
  productReliability,
  respondentsFor,
} from "@/core/planning/power";
import { simulate } from "@/core/planning/simulate";
import { pairCorrelations } from "@/core/describe/pair-correlations";
import { type LadderFit, ladderTables } from "@/core/regression/ladder";
import { columnKey, type Part } from "@/core/regression/terms";
import type { Desk } from "../kinds/kind";
import { hasDirection, type Hypothesis } from "../model/hypothesis";
import { activeTerms, type Ladder } from "../model/ladder";
import type { Power } from "../model/power";
import type { Theory } from "../model/theory";
import { fitLadderOf, type FittedLadder } from "./analyse-ladder";
import { reliabilityOf } from "./analyse-scale";
import type { SimulatedPower } from "./joined-samples";

/** Where an assumption comes from. */
export type From = "said" | "found" | "smallest" | "usual";

/** Where each comes from; `own` is of a coefficient only. */
type Assumptions = { n: From; R2: From; effect: From; own: From | null };

/** What is assumed where nothing is said and nothing is found: small effects by convention, and an R² that is common. */
export const USUAL = { n: 200, R2: 0.2, beta: 0.1, change: 0.02 } as const;

/** What so many respondents can show, and how many are needed; or why it cannot be told. */
export type PowerResult =
  | {
      status: "planned";
      of: "coefficient" | "change";
      test: PlannedTest;
      n: number;
      R2: number;
      /** β or ΔR². */
      effect: number;
      from: Assumptions;
      f2: number;
      /** Null: no degree of freedom is left. */
      power: number | null;
      /** For the power that is wanted; null: not even ten million. */
      needed: number | null;
      /** β or ΔR² that n respondents show with the power that is wanted. */
      detectable: number | null;
      /** Expected half-width of a coefficient's interval, in β. */
      halfWidth: number | null;
      /** sr² of a coefficient for β = 1: as the data have it, or by the correlation that is assumed. */
      own: number | null;
      /** What a product loses through the unreliability of the two it multiplies; null: it is none, or they are not known. */
      product: {
        names: [string, string];
        reliability: [number, number];
        from: From;
        r: number;
        of: number;
        power: number | null;
        needed: number | null;
      } | null;
      /** Power over the number of respondents. */
      curve: { n: number; power: number }[];
    }
  | { status: "refused"; why: "rests" | "ladder" | "nothing" | "step" | "too-much" };

export interface PowerQuestion {
  power: Power;
  hypothesis: Hypothesis;
  ladder: Ladder | null;
  theory: Theory;
}

/** Answers to "how many respondents?" (docs/methods.md, “How many respondents?”). */
export function analysePower(question: PowerQuestion, desk: Desk): PowerResult {
  const set = setUp(question, desk);
  if ("why" in set) return { status: "refused", why: set.why };
  const { of, test, n, R2, effect, from, own, f2 } = set;
  const { power: wanted } = question.power;
  const back = (value: number | null) => (value === null ? null : of === "change" ? changeWithin(value, R2) : Math.sqrt(changeWithin(value, R2) / own!)); // prettier-ignore
  const needed = f2 > 0 ? respondentsFor(wanted, f2, test) : null;
  return {
    status: "planned",
    of,
    test,
    n,
    R2,
    effect,
    from,
    f2,
    power: whole(powerOf(n, f2, test)),
    needed,
    detectable: back(detectableEffect(wanted, n, test)),
    halfWidth: of === "change" ? null : whole(expectedHalfWidth(n, test.columns, { s: Math.sqrt(1 - R2), sd: 1, tolerance: own!, confidence: 1 - test.alpha })), // prettier-ignore
    own,
    product: productOf(question, set, desk, wanted),
    curve: curveOf(f2, test, n, needed),
  };
}

/** JSON knows no NaN. */
const whole = (value: number) => (Number.isNaN(value) ? null : value);

/** Samples of the assumptions, drawn and tested. Null where there is nothing to draw from. */
export function simulatedPower(question: PowerQuestion, desk: Desk, range: { first: number; count: number }): SimulatedPower | null {
  const set = setUp(question, desk);
  if ("why" in set) return null;
  const { power } = question;
  const population = populationOf({ columns: set.places, tested: set.test.tested, r: power.r, R2: set.R2, change: set.change });
  if (population === null) return null;
  const { alpha, oneSided } = set.test;
  const drawing = { n: set.n, skew: power.skew, missing: power.missing, alpha, oneSided, seed: power.seed };
  // in short runs, so that it can be stopped
  const most = Math.max(1, Math.round(20_000 / set.n));
  const sum: SimulatedPower = { n: set.n, samples: 0, held: 0, failed: 0, left: 0, halfWidths: 0 };
  for (let first = range.first; first < range.first + range.count; first += most) {
    const one = simulate(population, drawing, { first, count: Math.min(most, range.first + range.count - first) });
    for (const key of ["samples", "held", "failed", "left", "halfWidths"] as const) sum[key] += one[key];
    desk.progress(sum.samples, range.count);
  }
  return sum;
}

interface SetUp {
  of: "coefficient" | "change";
  test: PlannedTest;
  n: number;
  R2: number;
  effect: number;
  from: Assumptions;
  own: number | null;
  f2: number;
  /** ΔR², or sr² of the coefficient. */
  change: number;
  /** Columns by the places of the predictors they multiply, the tested last. */
  places: number[][];
  fitted: Extract<FittedLadder, { status: "fitted" }> | null;
  tested: readonly (readonly Part[])[];
}

function setUp(
  { power, hypothesis: h, ladder, theory }: PowerQuestion,
  desk: Desk,
): SetUp | { why: "rests" | "ladder" | "nothing" | "step" | "too-much" } {
  const { rests } = h;
  if (rests.on !== "coefficient" && rests.on !== "change") return { why: "rests" };
  if (!ladder || ladder.outcome === null) return { why: "ladder" };
  const at = h.step ?? ladder.steps.length;
  if (at > ladder.steps.length) return { why: "step" };
  const found = fitLadderOf(desk.study, ladder, desk.responses, desk.columns);
  const fitted = found.status === "fitted" ? found : null;
  const fit = fitted && ladderTables(fitted.models, { kind: "classical" });
  const columns = fit ? columnsOf(fit, at) : ladder.steps.slice(0, at).flatMap((step) => activeTerms(step).flatMap(({ components }) => partsOf(components, desk))); // prettier-ignore
  const before = at === 1 ? [] : fit ? columnsOf(fit, at - 1) : ladder.steps.slice(0, at - 1).flatMap((step) => activeTerms(step).flatMap(({ components }) => partsOf(components, desk))); // prettier-ignore
  const earlier = new Set(before.map(columnKey));
  const tested = rests.on === "change" ? columns.filter((parts) => !earlier.has(columnKey(parts))) : columns.filter((parts) => columnKey(parts) === columnKey(rests.column)); // prettier-ignore
  if (tested.length === 0) return { why: "nothing" };
  const others = columns.filter((parts) => !tested.includes(parts));
  const ordered = [...others, ...tested];
  const singles = [...new Map(ordered.flat().map((part) => [columnKey([part]), part])).keys()];
  const places = ordered.map((parts) => parts.map((part) => singles.indexOf(columnKey([part]))));

  const step = fit?.steps[at - 1];
  // where nobody says how much is explained, it is as much as the effect at least
  const assumedR2 = (change: number) => power.R2 ?? Math.max(step?.model.R2 ?? USUAL.R2, change);
  const n = power.n ?? (fitted ? fitted.sample.used : USUAL.n);
  const test: PlannedTest = {
    tested: tested.length,
    columns: columns.length,
    alpha: theory.alpha,
    oneSided: rests.on === "coefficient" && h.direction !== "none" && hasDirection(rests) && h.before,
  };
  const from = { n: fromOf(power.n, fitted), R2: fromOf(power.R2, step) };
  if (rests.on === "change") {
    const effect = power.effect ?? USUAL.change;
    const R2 = assumedR2(effect);
    if (effect > R2 || R2 >= 1) return { why: "too-much" };
    const f2 = effectOf(effect, R2);
    return { of: "change", test, n, R2, effect, from: { ...from, effect: power.effect === null ? "usual" : "said", own: null }, own: null, f2, change: effect, places, fitted, tested }; // prettier-ignore
  }
  const smallest = rests.metric === "beta" ? (h.delta ?? theory.delta) : 0;
  const effect = power.effect ?? (smallest > 0 ? smallest : USUAL.beta);
  const known = ownShare(fit, at, columnKey(rests.column));
  const own = known ?? populationOf({ columns: places, tested: 1, r: power.r, R2: 0.5, change: 0.01 })?.own; // prettier-ignore
  if (own === undefined) return { why: "nothing" };
  const change = effect * effect * own;
  const R2 = assumedR2(change);
  if (change > R2 || R2 >= 1) return { why: "too-much" };
  return { of: "coefficient", test, n, R2, effect, from: { ...from, effect: power.effect !== null ? "said" : smallest > 0 ? "smallest" : "usual", own: known === null ? "usual" : "found" }, own, f2: effectOf(change, R2), change, places, fitted, tested }; // prettier-ignore
}

const fromOf = (said: number | null, found: unknown): From => (said !== null ? "said" : found ? "found" : "usual");

const columnsOf = (fit: LadderFit, at: number) => fit.steps[at - 1]!.coefficients.map((c) => fit.parts.get(c.column)!);

/** Columns of a term before anybody has answered: a category has one fewer than its levels in the codebook. */
function partsOf(components: readonly string[], { study }: Desk): Part[][] {
  const of = (variable: string): Part[] => {
    const row = study.codebook.find((v) => v.name === variable);
    if (row?.kind !== "category") return [{ variable, level: null }];
    return row.levels.slice(1).map(({ value }) => ({ variable, level: value }));
  };
  return components.reduce<Part[][]>((all, name) => all.flatMap((head) => of(name).map((part) => [...head, part])), [[]]);
}

/** sr² of a coefficient for β = 1, from its classical error: SE(β)² = (1 − R²)/(df·own). Null where there is none. */
export function ownShare(fit: LadderFit | null, at: number, column: string): number | null {
  const step = fit?.steps[at - 1];
  const beta = step?.coefficients.find((c) => c.column === column)?.beta;
  if (!step || !beta || beta.se === null || !(beta.se > 0)) return null;
  const { R2, df } = step.model;
  return (1 - R2) / (df[1] * beta.se ** 2);
}

/** What a product of two loses: its f² times its reliability. */
function productOf({ power }: PowerQuestion, { test, n, f2, tested, fitted, of }: SetUp, desk: Desk, wanted: number) {
  const [parts] = tested;
  if (of !== "coefficient" || parts!.length !== 2 || parts![0]!.variable === parts![1]!.variable) return null;
  const names = parts!.map(({ variable }) => variable) as [string, string];
  const alphas = names.map((name) => alphaOf(name, fitted, desk));
  const reliability = power.reliability ?? (alphas.every((a) => a !== null) ? (alphas as [number, number]) : null);
  if (reliability === null) return null;
  const columns = names.map((name) => fitted?.models.variables.get(name));
  const values = columns.flatMap((one) => (one instanceof Float64Array ? [{ values: one, missing: new Uint8Array(one.length) }] : []));
  const r = values.length === 2 ? pairCorrelations(values, "pearson").r[1]! : power.r;
  const shrunk = productReliability(reliability[0], reliability[1], r);
  return {
    names,
    reliability,
    from: power.reliability === null ? ("found" as const) : ("said" as const),
    r,
    of: shrunk,
    power: whole(powerOf(n, f2 * shrunk, test)),
    needed: f2 > 0 ? respondentsFor(wanted, f2 * shrunk, test) : null,
  };
}

/** α of a scale among the respondents of the ladder. */
function alphaOf(name: string, fitted: SetUp["fitted"], { study, columns, rows }: Desk): number | null {
  const scale = study.scales.find((s) => s.id === name);
  if (!scale || !fitted) return null;
  const kept = new Uint8Array(rows);
  for (const row of fitted.sample.rowsUsed) kept[row - 1] = 1;
  return reliabilityOf(columns.scale(scale).keyed, kept, false).alpha?.alpha ?? null;
}

/** From what can just be fitted to well beyond what is needed or there. */
function curveOf(f2: number, test: PlannedTest, n: number, needed: number | null): { n: number; power: number }[] {
  const least = test.columns + 2;
  const most = Math.max(2 * least, Math.ceil(1.5 * Math.max(n, Math.min(needed ?? 0, 20 * n))));
  const POINTS = 60;
  const at = Array.from({ length: POINTS }, (_, k) => Math.round(least + ((most - least) * k) / (POINTS - 1)));
  return [...new Set(at)].map((one) => ({ n: one, power: powerOf(one, f2, test) }));
}
