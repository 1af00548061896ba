import { binsFor, evenBins, type Histogram } from "@/core/describe/histogram";
import { orderOf } from "@/core/describe/order-of";
import { type Bend, bendOf } from "@/core/diagnostics/bend";
import { caseStatistics } from "@/core/diagnostics/case-statistics";
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
import { normalDensity, normalQuantile } from "@/core/distributions/normal-distribution";
import type { LadderModels } from "@/core/regression/ladder";
import type { Fit } from "@/core/regression/least-squares";
import type { Desk } from "../kinds/kind";
import { activeTerms, type Ladder } from "../model/ladder";
import type { Residuals } from "../model/residuals";
import type { AnalysisSample } from "../prepare/analysis-sample";
import { fitLadderOf } from "./analyse-ladder";
import { PerfectFitError, type Refusal, refusalOf } from "./refusal";
import { normality } from "./variable-results";
import { byLevel, type ResidualLevel, seenAlong, smoothOf, type SmoothPoint } from "./residuals-along";
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
  /** Counts of all residuals, and what normal ones of their SD would come to at some places. */
  histogram: Histogram & { normal: { x: number; y: number }[] };
  /** Of predictors that are numbers, by themselves in the step: whether their squares would add anything. */
  bends: { variable: string; lowest: number; bend: Bend | NoTest }[];
  /** Whether neighbours resemble one another, in the order of the rows; null where they are not seen so. */
  neighbours: DurbinWatson | NoTest | null;
  /** Smooth of the residuals, and of √|studentized|, along x, at these places; of a category its levels. */
  smooth: SmoothPoint[];
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
    histogram: besideNormal(evenBins(residuals, binsFor(n)), Math.sqrt(fit.ssResidual / df)),
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

const CURVE_AT = 81;

/** @param sd residual SD */
function besideNormal(histogram: Histogram, sd: number): ResidualsTold["histogram"] {
  const { edges, counts } = histogram;
  const [low, high] = [edges[0]!, edges.at(-1)!];
  const size = counts.reduce((sum, count) => sum + count, 0) * (edges[1]! - edges[0]!);
  const normal = Array.from({ length: CURVE_AT }, (_, k) => {
    const x = low + ((high - low) * k) / (CURVE_AT - 1);
    return { x, y: (size * normalDensity(x / sd)) / sd };
  });
  return { ...histogram, normal };
}
