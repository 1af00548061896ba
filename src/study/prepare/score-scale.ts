import { CoreError } from "@/core/errors";
import { correlationMatrix } from "@/core/factors/correlation-matrix";
import { factorScoreWeights, itemUnits } from "@/core/factors/factor-scores";
import { factorSolution } from "@/core/factors/factor-solution";
import { ConstantItemsError, TooFewCasesError } from "@/core/errors";
import { isConstant } from "@/core/describe/constant";
import type { Scale } from "../model/scale";
import type { AnswerRange } from "../model/variable";
import type { NumericColumn } from "./numeric-column";

/** Scores of a scale, one a respondent, and how they came about. */
export interface ScaleScores extends NumericColumn {
  /** How many of the items each respondent answered. */
  readonly answered: Uint16Array;
}

/** A reverse-keyed item whose lowest and highest possible answer are not declared cannot be turned round. */
export class UndeclaredRangeError extends CoreError {
  readonly code = "undeclared-range";
  constructor(readonly details: { scale: string; items: string[] }) {
    super(`The scale "${details.scale}" reverses ${details.items.join(", ")}, whose lowest and highest answer are not declared.`);
  }
}

/** One item as the scale counts it. */
export interface KeyedItem extends NumericColumn {
  readonly variable: string;
}

/**
 * Turns reverse-keyed items round: low + high − answer, by the declared range, never by observed extremes.
 * @param name of the scale or structure, for what is refused
 * @throws UndeclaredRangeError
 */
export function keyItems(
  name: string,
  parts: readonly { readonly variable: string; readonly reversed: boolean }[],
  items: readonly { readonly column: NumericColumn; readonly range: AnswerRange | null }[],
): KeyedItem[] {
  const undeclared = parts.filter((item, i) => item.reversed && !items[i]!.range).map((item) => item.variable);
  if (undeclared.length > 0) throw new UndeclaredRangeError({ scale: name, items: undeclared });
  return parts.map((item, i) => {
    const { column, range } = items[i]!;
    const { values, missing } = column;
    if (!item.reversed) return { variable: item.variable, values, missing };
    const turn = range!.low + range!.high;
    return { variable: item.variable, missing, values: values.map((x) => turn - x) };
  });
}

/**
 * Scores every respondent (docs/methods.md, “Scale scores”). Mean and sum: the mean of the answered items, or that mean × number of items, when at
 * least `answeredShare` of them is answered. Weighted and factor scores: when all are.
 * @param items keyed items of equal length
 * @param inStudy 1 for respondents over whom z-scores and factors are worked out, where they answered every item
 * @throws TooFewCasesError, ConstantItemsError, SingularCorrelationsError, TooManyFactorsError, NoUniquenessError
 */
export function scoreScale(
  scale: Pick<Scale, "rule" | "answeredShare" | "weigh" | "factor" | "items">,
  items: readonly KeyedItem[],
  inStudy: Uint8Array | null,
): ScaleScores {
  const answered = answeredCounts(items);
  if (scale.rule === "mean" || scale.rule === "sum") return { ...averaged(scale, items, answered), answered };
  const { weights, units } = weighing(scale, items, completeRows(items, inStudy));
  const values = new Float64Array(answered.length);
  const missing = new Uint8Array(answered.length);
  answered.forEach((count, row) => {
    if (count < items.length) missing[row] = 1;
    else values[row] = items.reduce((sum, item, i) => sum + (weights[i]! * (item.values[row]! - units[i]!.mean)) / units[i]!.sd, 0);
  });
  return { values, missing, answered };
}

/** How many items each respondent answered. */
function answeredCounts(items: readonly KeyedItem[]): Uint16Array {
  const counts = new Uint16Array(items[0]?.values.length ?? 0);
  for (const item of items) item.missing.forEach((gone, row) => gone || counts[row]!++);
  return counts;
}

/** Rows of respondents who answered every item and are marked in `kept` (all, without one). */
export function completeRows(items: readonly NumericColumn[], kept: Uint8Array | null): number[] {
  const n = items[0]?.values.length ?? 0;
  const rows: number[] = [];
  for (let row = 0; row < n; row++) if ((!kept || kept[row]) && items.every((item) => item.missing[row] === 0)) rows.push(row);
  return rows;
}

/** The answers of some rows, an item each. */
export function answersOf(items: readonly NumericColumn[], rows: readonly number[]): Float64Array[] {
  return items.map((item) => Float64Array.from(rows, (row) => item.values[row]!));
}

function averaged(scale: Pick<Scale, "rule" | "answeredShare">, items: readonly KeyedItem[], answered: Uint16Array): NumericColumn {
  const k = items.length;
  const needed = Math.max(1, Math.ceil(scale.answeredShare * k - 1e-9));
  const values = new Float64Array(answered.length);
  const missing = new Uint8Array(answered.length);
  answered.forEach((count, row) => {
    if (count < needed) {
      missing[row] = 1;
      return;
    }
    let sum = 0;
    for (const item of items) if (item.missing[row] === 0) sum += item.values[row]!;
    values[row] = scale.rule === "mean" ? sum / count : count === k ? sum : (sum / count) * k;
  });
  return { values, missing };
}

/** A score is Σ weight·(answer − mean)/SD: answers as they are have mean 0 and SD 1. */
function weighing(
  scale: Pick<Scale, "rule" | "weigh" | "factor" | "items">,
  items: readonly KeyedItem[],
  rows: readonly number[],
): { weights: ArrayLike<number>; units: { mean: number; sd: number }[] } {
  const own = scale.items.map((item) => item.weight);
  if (scale.rule === "weighted" && scale.weigh === "answers") return { weights: own, units: items.map(() => ({ mean: 0, sd: 1 })) };
  if (rows.length < 2) throw new TooFewCasesError({ cases: rows.length, needed: 2, purpose: "A score of z-scored items" });
  const sample = answersOf(items, rows);
  const names = items.map((item) => item.variable);
  const constant = names.filter((_, i) => isConstant(sample[i]!));
  if (constant.length > 0) throw new ConstantItemsError({ items: constant });
  const units = itemUnits(sample);
  if (scale.rule === "weighted") return { weights: own, units };
  const correlations = correlationMatrix(sample, names);
  const { factor, factors } = scale.factor;
  const solution = factorSolution(correlations, scale.factor, names);
  const all = factorScoreWeights(solution, correlations, scale.rule === "bartlett" ? "bartlett" : "regression", names);
  return { weights: names.map((_, i) => all[i * factors + factor - 1]!), units };
}
