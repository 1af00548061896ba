import { type Description, describe } from "@/core/describe/description";
import { gridBins, type Histogram } from "@/core/describe/histogram";
import { cronbachAlpha, type Reliability } from "@/core/reliability/cronbach-alpha";
import type { ResponseSource } from "../model/response-column";
import type { Scale } from "../model/scale";
import type { StudyContext } from "../model/study";
import { type NumericColumn, presentValues } from "../prepare/numeric-column";
import { type KeyedItem, scoreScale } from "../prepare/score-scale";
import { StudyColumns } from "../prepare/study-columns";
import { type AnswerStrip, answerStrip } from "./answer-strip";
import { type Refusal, refusalOf } from "./refusal";

/** What the score sheet shows of one scale. */
export interface ScaleAnalysis {
  /** Respondents kept by the filters that hold; everything below is about them. */
  rows: number;
  /** Respondents whom the filters left out. */
  leftOut: number;
  complete: number;
  prorated: number;
  unscored: number;
  description: Description;
  histogram: Histogram | null;
  /** Null with a single item, or fewer than two complete cases. */
  reliability: Reliability | null;
  /** Per item, as asked (not turned round). */
  strips: AnswerStrip[];
}

export type ScaleResult = { status: "scored"; analysis: ScaleAnalysis } | { status: "refused"; refusal: Refusal; strips: AnswerStrip[] };

/** Scores a scale and looks at its items. The interval of alpha is 95 %. */
export function analyseScale(
  study: StudyContext,
  scale: Scale,
  responses: ResponseSource,
  columns = new StudyColumns(study, responses),
): ScaleResult {
  let strips: AnswerStrip[] = [];
  try {
    strips = scale.items.map((item) => answerStrip(columns.variable(item.variable), columns.codebookRow(item.variable)));
    const all = columns.scale(scale);
    const kept = columns.kept(all.scores.values.length, scale.respondents);
    const keyed = all.keyed.map((item) => ({ ...item, ...onlyKept(item, kept) }));
    const scores = scoreScale(scale, keyed);
    const present = presentValues(scores);
    const complete = completeCases(keyed);
    const reliability = keyed.length < 2 || complete[0]!.length < 2 ? null : cronbachAlpha(complete, 0.95);
    return {
      status: "scored",
      analysis: {
        rows: scores.values.length,
        leftOut: kept.length - scores.values.length,
        complete: scores.complete,
        prorated: scores.prorated,
        unscored: scores.unscored,
        description: describe(present),
        histogram: present.length === 0 ? null : gridBins(present, scoreGrid(scale, keyed), 20),
        reliability,
        strips,
      },
    };
  } catch (error) {
    return { status: "refused", refusal: refusalOf(error), strips };
  }
}

function onlyKept({ values, missing }: NumericColumn, kept: Uint8Array): NumericColumn {
  if (!kept.includes(0)) return { values, missing };
  return { values: values.filter((_, row) => kept[row] === 1), missing: missing.filter((_, row) => kept[row] === 1) };
}

/** Distance between neighbouring scores: of whole answers one, over the number of items for a mean; else a fine grid. */
function scoreGrid(scale: Scale, items: readonly KeyedItem[]): number {
  const whole = items.every((item) => item.values.every((value, row) => item.missing[row] !== 0 || Number.isInteger(value)));
  if (whole) return scale.rule === "mean" ? 1 / items.length : 1;
  const present = items.flatMap((item) => Array.from(presentValues(item)));
  const spread = present.reduce((high, v) => Math.max(high, v), -Infinity) - present.reduce((low, v) => Math.min(low, v), Infinity);
  return spread > 0 ? (spread * (scale.rule === "sum" ? items.length : 1)) / 400 : 1;
}

function completeCases(items: readonly KeyedItem[]): Float64Array[] {
  const n = items[0]?.values.length ?? 0;
  const rows: number[] = [];
  for (let row = 0; row < n; row++) if (items.every((item) => item.missing[row] === 0)) rows.push(row);
  return items.map((item) => Float64Array.from(rows, (row) => item.values[row]!));
}
