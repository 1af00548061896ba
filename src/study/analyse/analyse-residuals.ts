import { evenBins, type Histogram } from "@/core/describe/histogram";
import { mean } from "@/core/describe/mean";
import { standardDeviation } from "@/core/describe/standard-deviation";
import { lowess } from "@/core/describe/lowess";
import { orderOf } from "@/core/describe/order-of";
import { type Bend, bendOf } from "@/core/diagnostics/bend";
import { caseStatistics, type PerCase } from "@/core/diagnostics/case-statistics";
import { simulatedEnvelope } from "@/core/diagnostics/envelope";
import {
  breuschPagan,
  type BreuschPagan,
  durbinWatson,
  type DurbinWatson,
  type NoTest,
  type Reset,
  reset,
} from "@/core/diagnostics/residual-tests";
import { normalQuantile } from "@/core/distributions/normal-distribution";
import type { LadderModels } from "@/core/regression/ladder";
import type { Fit } from "@/core/regression/least-squares";
import type { Desk } from "../kinds/kind";
import { activeTerms, type Ladder } from "../model/ladder";
import type { Residuals } from "../model/residuals";
import type { AnalysisSample } from "../prepare/analysis-sample";
import { fitLadderOf } from "./analyse-ladder";
import { PerfectFitError, type Refusal, refusalOf } from "./refusal";
import { normality } from "./variable-results";
import { type WithoutPullers, withoutPullers } from "./without-pullers";

/** One respondent as the pictures have it. */
export interface ResidualCase {
  /** Row of the data, from 1. */
  row: number;
  /** What the residuals are seen along; of a category the place of the level. */
  x: number;
  residual: number;
  /** Internally studentized; null with leverage 1. */
  studentized: number | null;
  leverage: number;
  cooksD: number | null;
  /** Where a normal residual of its rank would lie, and between which values when all is as the model has it; null without. */
  normal: number | null;
  lower: number | null;
  upper: number | null;
}

export interface ResidualLevel {
  level: string;
  n: number;
  mean: number;
  /** Null for a single respondent. */
  sd: number | null;
}

export interface ResidualsTold {
  status: "told";
  sample: AnalysisSample;
  /** From 1. */
  step: number;
  /** Residual SD and its degrees of freedom; columns besides the intercept. */
  s: number;
  df: number;
  p: number;
  n: number;
  /** All, or of many so many, evenly drawn, with every one that stands out. */
  cases: ResidualCase[];
  /** Levels of a category that they are seen along, each with its respondents, mean and SD of the residuals; null along a number. */
  levels: ResidualLevel[] | null;
  /** Counts of all residuals. */
  histogram: Histogram;
  /** Of predictors that are numbers, by themselves in the step: whether their squares would add anything. */
  bends: { variable: string; lowest: number; bend: Bend | NoTest }[];
  /** Whether neighbours resemble one another, in the order of the rows; null where they are not seen so. */
  neighbours: DurbinWatson | NoTest | null;
  /** Smooth of the residuals, and of √|studentized|, along x, at these places; of a category its levels. */
  smooth: { x: number; residual: number; spread: number }[];
  envelope: { samples: number; seed: number } | null;
  /** Share of residuals outside the envelope; about .05 where all is well. */
  outside: number | null;
  tests: { spread: BreuschPagan | NoTest; bend: Reset | NoTest; shape: { W: number | null; p: number | null } };
  /** Cook's D: the largest, and how many lie above 4/n and above 1. */
  cooks: { largest: number; above: number; farAbove: number };
  /** Rows of respondents who are predicted by their own answer alone (leverage 1): nothing can be said of how they fit. */
  alone: number[];
  /** What if those above 4/n were not in; null where there are none. */
  without: WithoutPullers | { refusal: Refusal } | null;
}

export type ResidualsResult = ResidualsTold | { status: "refused"; sample: AnalysisSample | null; refusal: Refusal };

/** Up to so many respondents all are drawn, and the envelope is simulated. */
export const MOST_DRAWN = 5000;
const SMOOTH_AT = 60;

/** @throws nothing: what cannot be told is refused with its reason */
export function analyseResiduals({ residuals: asked, ladder }: { residuals: Residuals; ladder: Ladder }, desk: Desk): ResidualsResult {
  const found = fitLadderOf(desk.study, ladder, desk.responses, desk.columns);
  if (found.status === "refused") return found;
  const { models, sample } = found;
  const step = Math.min(asked.step ?? ladder.steps.length, ladder.steps.length);
  const fit = models.fits[step - 1]!;
  try {
    if (fit.perfect) throw new PerfectFitError({ step });
    return told(asked, ladder, step, { fit, models, sample }, desk);
  } catch (error) {
    return { status: "refused", sample, refusal: refusalOf(error) };
  }
}

function told(
  asked: Residuals,
  ladder: Ladder,
  step: number,
  { fit, models, sample }: { fit: Fit; models: LadderModels; sample: AnalysisSample },
  desk: Desk,
): ResidualsTold {
  const { n, dfResidual: df, residuals } = fit;
  const c = caseStatistics(fit, models.y);
  const rows = sample.rowsUsed;
  const { xs, levels } = seenAlong(asked, desk, rows, c.fitted);
  const envelope = n <= MOST_DRAWN ? simulatedEnvelope(fit, { seed: asked.seed }, (done) => desk.progress(done, 1000)) : null;
  const sizes = Float64Array.from(c.studentized, (r) => r ?? 0);
  const order = orderOf(sizes);
  const rank = new Int32Array(n);
  order.forEach((i, at) => (rank[i] = at));
  const many = n > MOST_DRAWN;
  const stride = Math.ceil(n / MOST_DRAWN);
  const bound = 4 / n;
  const shown = (i: number) => !many || rank[i]! % stride === 0 || rank[i]! < 50 || rank[i]! >= n - 50 || (c.cooksD[i] ?? 0) > 20 * bound;
  const cases: ResidualCase[] = [];
  let outside = 0;
  for (let i = 0; i < n; i++) {
    const at = rank[i]!;
    const [lower, upper] = envelope ? [envelope.lower[at]!, envelope.upper[at]!] : [null, null];
    const r = c.studentized[i] ?? null;
    if (r !== null && lower !== null && (r < lower || r > upper!)) outside++;
    if (!shown(i)) continue;
    cases.push({
      row: rows[i]!,
      x: xs[i]!,
      residual: residuals[i]!,
      studentized: r,
      leverage: c.leverage[i]!,
      cooksD: c.cooksD[i] ?? null,
      normal: r === null ? null : normalQuantile((at + 1 - 0.375) / (n + 0.25)),
      lower,
      upper,
    });
  }
  const cooks = c.cooksD.flatMap((d) => (d === null ? [] : [d]));
  return {
    status: "told",
    sample,
    step,
    s: Math.sqrt(fit.ssResidual / df),
    df,
    p: fit.columns.length,
    n,
    cases,
    ...(levels === null ? { levels: null, smooth: smoothOf(xs, residuals, c.studentized) } : byLevel(levels, xs, residuals, c.studentized)),
    histogram: evenBins(residuals, Math.max(8, Math.min(30, Math.round(2 * Math.cbrt(n))))),
    bends: bendsOf(ladder, step, fit, sample, desk),
    neighbours: asked.rows
      ? durbinWatson(
          [fit],
          Int32Array.from({ length: n }, (_, i) => i),
          { seed: asked.seed, permutations: n > 20_000 ? 199 : 1999 },
        )[0]!
      : null,
    envelope: envelope && { samples: envelope.samples, seed: envelope.seed },
    outside: envelope ? outside / n : null,
    tests: { spread: breuschPagan(fit), bend: reset(fit, c.fitted), shape: normality(residuals) },
    cooks: {
      largest: cooks.reduce((a, b) => Math.max(a, b), 0),
      above: cooks.filter((d) => d > bound).length,
      farAbove: cooks.filter((d) => d > 1).length,
    },
    alone: c.fullLeverage.map((at) => rows[at - 1]!),
    without: withoutPullers(ladder, step, asked.pulls, { models, sample, cases: c }, desk),
  };
}

/** What each case is seen along; NaN for who has no value of it: such are in no picture of it, and in all numbers. */
function seenAlong({ along, rows: byRow }: Residuals, { study, columns }: Desk, rows: ArrayLike<number>, fitted: Float64Array) {
  if (byRow) return { xs: Float64Array.from(rows), levels: null };
  if (along === null) return { xs: fitted, levels: null };
  if (study.codebook.some(({ name, kind }) => name === along && kind === "category")) {
    const { levels, codes, missing } = columns.categories(along);
    return { xs: Float64Array.from(rows, (row) => (missing[row - 1] ? NaN : codes[row - 1]!)), levels };
  }
  const { values, missing } = columns.numbers(along);
  return { xs: Float64Array.from(rows, (row) => (missing[row - 1] ? NaN : values[row - 1]!)), levels: null };
}

function smoothOf(xs: Float64Array, residuals: Float64Array, studentized: PerCase): ResidualsTold["smooth"] {
  const having = Int32Array.from(xs.keys()).filter((i) => !Number.isNaN(xs[i]!));
  const there = orderOf(Float64Array.from(having, (i) => xs[i]!)).map((k) => having[k]!);
  const x = Float64Array.from(there, (i) => xs[i]!);
  const own = lowess(x, Float64Array.from(there, (i) => residuals[i]!)); // prettier-ignore
  const spread = lowess(x, Float64Array.from(there, (i) => Math.sqrt(Math.abs(studentized[i] ?? 0)))); // prettier-ignore
  const pace = Math.max(1, Math.floor(x.length / SMOOTH_AT));
  const places = Array.from(x, (_, k) => k).filter((k) => k % pace === 0 || k === x.length - 1);
  return places.map((i) => ({ x: x[i]!, residual: own[i]!, spread: spread[i]! }));
}

/** Level by level, those that nobody has left out. */
function byLevel(
  names: readonly string[],
  xs: Float64Array,
  residuals: Float64Array,
  studentized: PerCase,
): Pick<ResidualsTold, "levels" | "smooth"> {
  const told = names.flatMap((level, at) => {
    const own = Int32Array.from(xs.keys()).filter((i) => xs[i] === at);
    if (own.length === 0) return [];
    const e = Float64Array.from(own, (i) => residuals[i]!);
    const spread = mean(Float64Array.from(own, (i) => Math.sqrt(Math.abs(studentized[i] ?? 0))));
    return [{ level, at, n: own.length, mean: mean(e), sd: own.length > 1 ? standardDeviation(e) : null, spread }];
  });
  return {
    levels: told.map(({ level, n, mean: centre, sd }) => ({ level, n, mean: centre, sd })),
    smooth: told.map(({ at, mean: residual, spread }) => ({ x: at, residual, spread })),
  };
}

/** Of each number that is a term of the step by itself. */
function bendsOf(ladder: Ladder, step: number, fit: Fit, { rowsUsed }: AnalysisSample, { study, columns }: Desk): ResidualsTold["bends"] {
  const terms = ladder.steps.slice(0, step).flatMap(activeTerms);
  const single = terms.filter((t) => t.components.length === 1).map((t) => t.components[0]!);
  const isCategory = (name: string) => study.codebook.some((v) => v.name === name && v.kind === "category");
  return [...new Set(single)]
    .filter((name) => !isCategory(name))
    .map((variable) => {
      const { values } = columns.numbers(variable);
      const own = Float64Array.from(rowsUsed, (row) => values[row - 1]!);
      return { variable, lowest: own.reduce((a, b) => Math.min(a, b), Infinity), bend: bendOf(fit, own) };
    });
}
