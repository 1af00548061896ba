import { lowess } from "@/core/describe/lowess";
import { orderOf } from "@/core/describe/order-of";
import { caseStatistics } from "@/core/diagnostics/case-statistics";
import { simulatedEnvelope } from "@/core/diagnostics/envelope";
import { breuschPagan, type BreuschPagan, type NoTest, type Reset, reset } from "@/core/diagnostics/residual-tests";
import { normalQuantile } from "@/core/distributions/normal-distribution";
import type { LadderModels } from "@/core/regression/ladder";
import type { Fit } from "@/core/regression/least-squares";
import type { Desk } from "../kinds/kind";
import type { Ladder } from "../model/ladder";
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
  /** What the residuals are seen along. */
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
  /** Smooth of the residuals, and of √|studentized|, along x, at these places. */
  smooth: { x: number; residual: number; spread: number }[];
  envelope: { samples: number; seed: number } | null;
  /** Share of residuals outside the envelope; about .05 where all is well. */
  outside: number | null;
  tests: { spread: BreuschPagan | NoTest; bend: Reset | NoTest; shape: { W: number | null; p: number | null } };
  /** Cook's D: the largest, and how many lie above 4/n and above 1. */
  cooks: { largest: number; above: number; farAbove: number };
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
  const along = asked.along === null ? null : desk.columns.numbers(asked.along);
  const rows = sample.rowsUsed;
  // who has no value of what it is seen along is in no picture of it, and in all numbers
  const xOf = (i: number) => (along === null ? c.fitted[i]! : along.missing[rows[i]! - 1] ? NaN : along.values[rows[i]! - 1]!);
  const xs = Float64Array.from({ length: n }, (_, i) => xOf(i));
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
  const having = Int32Array.from({ length: n }, (_, i) => i).filter((i) => !Number.isNaN(xs[i]!));
  const there = orderOf(Float64Array.from(having, (i) => xs[i]!)).map((k) => having[k]!);
  const x = Float64Array.from(there, (i) => xs[i]!);
  const own = lowess(x, Float64Array.from(there, (i) => residuals[i]!)); // prettier-ignore
  const spread = lowess(x, Float64Array.from(there, (i) => Math.sqrt(Math.abs(c.studentized[i] ?? 0)))); // prettier-ignore
  const pace = Math.max(1, Math.floor(x.length / SMOOTH_AT));
  const places = Array.from(x, (_, k) => k).filter((k) => k % pace === 0 || k === x.length - 1);
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
    smooth: places.map((i) => ({ x: x[i]!, residual: own[i]!, spread: spread[i]! })),
    envelope: envelope && { samples: envelope.samples, seed: envelope.seed },
    outside: envelope ? outside / n : null,
    tests: { spread: breuschPagan(fit), bend: reset(fit, c.fitted), shape: normality(residuals) },
    cooks: {
      largest: cooks.reduce((a, b) => Math.max(a, b), 0),
      above: cooks.filter((d) => d > bound).length,
      farAbove: cooks.filter((d) => d > 1).length,
    },
    without: withoutPullers(ladder, step, { models, sample, cases: c }, desk),
  };
}
