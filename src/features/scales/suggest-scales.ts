import type { Variable } from "@/study/model/variable";
import { nameStem } from "@/study/prepare/answers/column-answers";
import { namingWords } from "@/study/prepare/wordings";

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
  const families = new Map<string, { name: string; items: string[] }>();
  for (const item of items) {
    const { name, label, question, range, short } = item;
    const topic = topicOf(label);
    const stem = nameStem(name);
    if (stem === null && topic === null && question === "") continue;
    const key = JSON.stringify([question === "" ? stem : question, topic, range]);
    const called = topic ?? (nameStem(short) || (question === "" ? stem! : titled(question)));
    const family = families.get(key) ?? { name: called, items: [] };
    family.items.push(name);
    families.set(key, family);
  }
  return [...families.values()].filter((family) => family.items.length > 1);
}

/** A question by the word that names it: "Belonging". */
function titled(question: string): string {
  const word = namingWords(question).at(-1);
  return word ? word.charAt(0).toUpperCase() + word.slice(1) : question.slice(0, 40);
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
