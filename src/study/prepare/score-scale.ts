import type { Scale } from "../model/scale";
import type { AnswerRange } from "../model/variable";
import type { NumericColumn } from "./numeric-column";

/** Scores of a scale, one a respondent, and how they came about. */
export interface ScaleScores extends NumericColumn {
  /** Respondents who answered every item. */
  readonly complete: number;
  /** Respondents scored from fewer than all items. */
  readonly prorated: number;
  /** Respondents with too few answers for a score. */
  readonly unscored: number;
}

/** A reverse-keyed item whose lowest and highest possible answer are not declared cannot be turned round. */
export class UndeclaredRangeError extends Error {
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
 * @throws UndeclaredRangeError
 */
export function keyItems(
  scale: Scale,
  items: readonly { readonly column: NumericColumn; readonly range: AnswerRange | null }[],
): KeyedItem[] {
  const undeclared = scale.items.filter((item, i) => item.reversed && !items[i]!.range).map((item) => item.variable);
  if (undeclared.length > 0) throw new UndeclaredRangeError({ scale: scale.name, items: undeclared });
  return scale.items.map((item, i) => {
    const { column, range } = items[i]!;
    if (!item.reversed) return { variable: item.variable, ...column };
    const turn = range!.low + range!.high;
    return { variable: item.variable, missing: column.missing, values: column.values.map((x) => turn - x) };
  });
}

/**
 * Scores every respondent (contract section 9): the mean of the answered items, or that mean × number of items
 * for a sum, when at least `answeredShare` of the items is answered.
 * @param items keyed items of equal length
 */
export function scoreScale(scale: Pick<Scale, "rule" | "answeredShare">, items: readonly KeyedItem[]): ScaleScores {
  const k = items.length;
  const n = items[0]?.values.length ?? 0;
  const needed = Math.max(1, Math.ceil(scale.answeredShare * k - 1e-9));
  const values = new Float64Array(n);
  const missing = new Uint8Array(n);
  let [complete, prorated, unscored] = [0, 0, 0];
  for (let row = 0; row < n; row++) {
    let sum = 0;
    let answered = 0;
    for (const item of items) {
      if (item.missing[row]) continue;
      sum += item.values[row]!;
      answered++;
    }
    if (answered < needed) {
      missing[row] = 1;
      unscored++;
      continue;
    }
    if (answered === k) complete++;
    else prorated++;
    const mean = sum / answered;
    values[row] = scale.rule === "mean" ? mean : answered === k ? sum : mean * k;
  }
  return { values, missing, complete, prorated, unscored };
}
