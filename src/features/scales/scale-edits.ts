import type { Edit } from "@/study/model/edit";
import type { Scale } from "@/study/model/scale";
import type { AnswerRange, Variable } from "@/study/model/variable";

/** Turns one item of a scale round, or back. */
export function turnItem(scale: Scale, variable: string): Scale {
  return { ...scale, items: scale.items.map((item) => (item.variable === variable ? { ...item, reversed: !item.reversed } : item)) };
}

/** The range that all items of a scale share; null when they differ or none is declared. */
export function commonRange(scale: Scale, codebook: readonly Variable[]): AnswerRange | null {
  const ranges = scale.items.map((item) => codebook.find((v) => v.name === item.variable)?.range ?? null);
  const first = ranges[0] ?? null;
  return first && ranges.every((r) => r !== null && r.low === first.low && r.high === first.high) ? first : null;
}

/** Declares the lowest and highest possible answer for every item of a scale. */
export function declareRange(scale: Scale, codebook: readonly Variable[], range: AnswerRange): Edit[] {
  return scale.items.flatMap((item): Edit[] => {
    const variable = codebook.find((v) => v.name === item.variable);
    return variable ? [{ subject: "variable", id: variable.name, to: { ...variable, range } }] : [];
  });
}

/** `1 to 5`, `1-5`, `1…5` as a range; null when it is none. */
export function readRange(typed: string): AnswerRange | null {
  const match = /^\s*([-−]?\d+(?:[.,]\d+)?)\s*(?:to|–|—|-|…|\.\.+|\s)\s*([-−]?\d+(?:[.,]\d+)?)\s*$/i.exec(typed);
  if (!match) return null;
  const [low, high] = [match[1]!, match[2]!].map((text) => Number(text.replace("−", "-").replace(",", ".")));
  return low! < high! ? { low: low!, high: high! } : null;
}
