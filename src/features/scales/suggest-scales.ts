import type { Variable } from "@/study/model/variable";

/** Items that look like one scale, and what to call it. */
export interface Suggestion {
  name: string;
  items: string[];
}

/**
 * Groups items by the letters before their number and by the answers they were asked for; two or more make a suggestion. Where the wordings of a
 * family begin with a name of their own ("Calm: I feel …"), they divide it and name the scale.
 */
export function suggestScales(items: readonly Variable[]): Suggestion[] {
  const families = new Map<string, { prefix: string; topic: string | null; items: string[] }>();
  for (const { name, label, range } of items) {
    const match = /^(.*?\D)[ _.-]?\d{1,3}(?:[ _.-]?[a-z])?$/i.exec(name);
    const topic = topicOf(label);
    if (!match && topic === null) continue;
    const prefix = (match?.[1] ?? "").replace(/[ _.-]+$/, "");
    const key = JSON.stringify([prefix, topic, range]);
    const family = families.get(key) ?? { prefix, topic, items: [] };
    family.items.push(name);
    families.set(key, family);
  }
  return [...families.values()]
    .filter((family) => family.items.length > 1)
    .map((family) => ({ name: family.topic ?? family.prefix, items: family.items }));
}

/** What stands before a colon or in square brackets at the beginning of a wording: some surveys put the name of the scale there. */
function topicOf(label: string): string | null {
  const match = /^\s*(?:\[([^\]]{2,40})\]|([^:.?!]{2,40}):)\s+\S/u.exec(label);
  return (match?.[1] ?? match?.[2] ?? null)?.trim() ?? null;
}

/** `SC1–SC6` for a run of names, else the names themselves. */
export function itemRun(items: readonly string[]): string {
  return items.length > 2 ? `${items[0]}–${items.at(-1)}` : items.join(" and ");
}
