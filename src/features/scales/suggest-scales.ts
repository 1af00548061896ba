import type { Variable } from "@/study/model/variable";

/** Items that look like one scale: a common beginning of their names and consecutive numbers. */
export interface Suggestion {
  prefix: string;
  items: string[];
}

/** Groups the items not yet in a scale by the letters before their number; two or more make a suggestion. */
export function suggestScales(loose: readonly Variable[]): Suggestion[] {
  const families = new Map<string, string[]>();
  for (const { name } of loose) {
    const match = /^(.*?\D)[ _.-]?\d{1,3}$/.exec(name);
    if (match) families.set(match[1]!, [...(families.get(match[1]!) ?? []), name]);
  }
  return [...families]
    .filter(([, items]) => items.length > 1)
    .map(([prefix, items]) => ({ prefix: prefix.replace(/[ _.-]+$/, ""), items }));
}

/** `SC1–SC6` for a run of names, else the names themselves. */
export function itemRun(items: readonly string[]): string {
  return items.length > 2 ? `${items[0]}–${items.at(-1)}` : items.join(" and ");
}
