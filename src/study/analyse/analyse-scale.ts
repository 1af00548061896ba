import { ConstantItemsError } from "@/core/errors";
import { itemsRunningAgainst } from "@/core/reliability/keying";
import { type Description, describe } from "@/core/describe/description";
import { gridBins, type Histogram } from "@/core/describe/histogram";
import { cronbachAlpha, type Reliability } from "@/core/reliability/cronbach-alpha";
import { type FactorReliability, factorReliability } from "@/core/reliability/omega";
import type { ResponseSource } from "../model/response-column";
import type { Scale } from "../model/scale";
import type { StudyContext } from "../model/context";
import { type NumericColumn, presentValues } from "../prepare/numeric-column";
import { answersOf, completeRows, type KeyedItem } from "../prepare/score-scale";
import { StudyColumns } from "../prepare/study-columns";
import { type AnswerStrip, partStrip } from "./answer-strip";
import { type Refusal, refusalOf } from "./refusal";

/** Whether the items of a scale measure one thing, on respondents who answered all of them. */
export interface ScaleReliability {
  /** Null with a single item, or fewer than two complete cases. */
  alpha: Reliability | null;
  /** By way of one factor; null with fewer than three items, or for the reason in `factorRefusal`. */
  factor: FactorReliability | null;
  factorRefusal: Refusal | null;
}

/** What the score sheet shows of one scale. */
export interface ScaleAnalysis {
  /** Respondents kept by the filters that hold; everything below is about them. */
  rows: number;
  /** Respondents whom the filters left out. */
  leftOut: number;
  /** Respondents who answered every item. */
  complete: number;
  /** Respondents scored from fewer than all items. */
  prorated: number;
  /** Respondents with too few answers for a score. */
  unscored: number;
  description: Description;
  histogram: Histogram | null;
  reliability: ScaleReliability;
  /** Items that run against the others, by name. */
  against: string[];
  /** For each level of the scale's category that somebody has; null when none is asked for. */
  groups: { level: string; n: number; reliability: ScaleReliability }[] | null;
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
  const strips: AnswerStrip[] = [];
  try {
    for (const item of scale.items) strips.push(partStrip(item.variable, columns));
    const { keyed, scores } = columns.scale(scale);
    const all = scores.values.length;
    const kept = columns.kept(all, scale.respondents);
    const rows = kept.reduce((sum, in_) => sum + in_, 0);
    let [complete, prorated] = [0, 0];
    for (let row = 0; row < all; row++) {
      if (!kept[row] || scores.missing[row]) continue;
      if (scores.answered[row] === keyed.length) complete++;
      else prorated++;
    }
    const present = presentValues(onlyKept(scores, kept));
    const reliability = reliabilityOf(keyed, kept);
    const turned = reliability.alpha ? itemsRunningAgainst(reliability.alpha.interItem) : [];
    return {
      status: "scored",
      analysis: {
        rows,
        leftOut: all - rows,
        complete,
        prorated,
        unscored: rows - complete - prorated,
        description: describe(present),
        histogram: present.length === 0 ? null : gridBins(present, scoreGrid(scale, keyed, present), 20),
        reliability,
        against: turned.map((i) => keyed[i]!.variable),
        groups: scale.byGroup === null ? null : byGroup(scale.byGroup, keyed, kept, columns),
        strips,
      },
    };
  } catch (error) {
    return { status: "refused", refusal: refusalOf(error), strips };
  }
}

/** @param factored false: α alone, which takes no factor solution */
export function reliabilityOf(items: readonly KeyedItem[], kept: Uint8Array, factored = true): ScaleReliability {
  const rows = completeRows(items, kept);
  if (items.length < 2 || rows.length < 2) return { alpha: null, factor: null, factorRefusal: null };
  const answers = answersOf(items, rows);
  const alpha = cronbachAlpha(answers, 0.95);
  if (items.length < 3 || !factored) return { alpha, factor: null, factorRefusal: null };
  const names = items.map((item) => item.variable);
  try {
    const constant = names.filter((_, i) => alpha.interItem[i]![i] === null);
    if (constant.length > 0) throw new ConstantItemsError({ items: constant });
    const r = Float64Array.from(alpha.interItem.flat(), (x) => x!);
    const sds = alpha.perItem.map((item) => item.sd);
    return { alpha, factor: factorReliability({ r, items: items.length, n: alpha.n }, sds, names), factorRefusal: null };
  } catch (error) {
    return { alpha, factor: null, factorRefusal: refusalOf(error) };
  }
}

function byGroup(category: string, items: readonly KeyedItem[], kept: Uint8Array, columns: StudyColumns) {
  const { levels, codes, missing } = columns.categories(category);
  return levels.flatMap((level, code) => {
    const own = kept.map((in_, row) => (in_ && missing[row] === 0 && codes[row] === code ? 1 : 0));
    const n = own.reduce((sum, in_) => sum + in_, 0);
    return n === 0 ? [] : [{ level, n, reliability: reliabilityOf(items, own) }];
  });
}

function onlyKept({ values, missing }: NumericColumn, kept: Uint8Array): NumericColumn {
  if (!kept.includes(0)) return { values, missing };
  return { values: values.filter((_, row) => kept[row] === 1), missing: missing.filter((_, row) => kept[row] === 1) };
}

/** Distance between neighbouring scores: of whole answers one, over the number of items for a mean; else a fine grid. */
function scoreGrid(scale: Scale, items: readonly KeyedItem[], present: Float64Array): number {
  const averaged = scale.rule === "mean" || scale.rule === "sum";
  const whole = averaged && items.every((item) => item.values.every((value, row) => item.missing[row] !== 0 || Number.isInteger(value)));
  if (whole) return scale.rule === "mean" ? 1 / items.length : 1;
  const spread = present.reduce((high, v) => Math.max(high, v), -Infinity) - present.reduce((low, v) => Math.min(low, v), Infinity);
  return spread > 0 ? spread / 400 : 1;
}
