import type { Edit } from "@/study/model/edit";
import { Scale, type ScaleItem } from "@/study/model/scale";
import type { AnswerRange, Variable } from "@/study/model/variable";
import { readNumber } from "@/ui/parts/read-number";

/** A scale of some items as they were asked, with everything else as it is unless changed. */
export function newScale(id: string, name: string, items: readonly string[]): Scale {
  return Scale.parse({ id, name, items: items.map((variable) => ({ variable })) });
}

/** Turns items of a scale round, or back. */
export function turnItems(scale: Scale, ...variables: string[]): Scale {
  return {
    ...scale,
    items: scale.items.map((item) => (variables.includes(item.variable) ? { ...item, reversed: !item.reversed } : item)),
  };
}

/** Puts items into a scale, before the item at a place (the end, if left out); those already in it move there. */
export function placeItems(scale: Scale, variables: readonly string[], at = scale.items.length): Scale {
  const known = new Map(scale.items.map((item) => [item.variable, item]));
  const moved = variables.map((variable): ScaleItem => known.get(variable) ?? { variable, reversed: false, weight: 1 });
  const stay = (items: readonly ScaleItem[]) => items.filter((item) => !variables.includes(item.variable));
  return { ...scale, items: [...stay(scale.items.slice(0, at)), ...moved, ...stay(scale.items.slice(at))] };
}

/** Takes items out of a scale; null when none would be left. */
export function takeOut(scale: Scale, variables: readonly string[]): Scale | null {
  const items = scale.items.filter((item) => !variables.includes(item.variable));
  return items.length === 0 ? null : { ...scale, items };
}

/** Weights of items, by name; a weighted score from now on. */
export function withWeights(scale: Scale, weights: ReadonlyMap<string, number>, weigh: Scale["weigh"], from: string): Scale {
  return {
    ...scale,
    rule: "weighted",
    weigh,
    weightsFrom: from,
    items: scale.items.map((item) => ({ ...item, weight: weights.get(item.variable) ?? item.weight })),
  };
}

/** The range that all items of a scale share; null when they differ or none is declared. */
export function commonRange(scale: Scale, codebook: readonly Variable[]): AnswerRange | null {
  const ranges = scale.items.map((item) => codebook.find((v) => v.name === item.variable)?.range ?? null);
  const first = ranges[0] ?? null;
  return first && ranges.every((r) => r !== null && r.low === first.low && r.high === first.high) ? first : null;
}

/** Declares the lowest and highest possible answer for every item of a scale that is a variable. */
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
  const [low, high] = [match[1]!, match[2]!].map(readNumber);
  return low !== null && high !== null && low! < high! ? { low: low!, high: high! } : null;
}
