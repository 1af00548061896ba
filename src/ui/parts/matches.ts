import type { Choice } from "./choice";

/** Finds what was typed in a choice's words, whatever the case. */
export function matches(typed: string, option: unknown): boolean {
  const text = (option as { search?: string } | undefined)?.search ?? "";
  return text.toLocaleLowerCase().includes(typed.trim().toLocaleLowerCase());
}

/** What a choice is searched by. */
export const searched = ({ label, search }: Choice): string => `${label} ${search ?? ""}`;

/** Choices as they stand in a list: groups in order of first appearance. */
export function inGroups(choices: readonly Choice[]): { group: string | undefined; own: Choice[] }[] {
  const groups = [...new Set(choices.map((c) => c.group))];
  return groups.map((group) => ({ group, own: choices.filter((c) => c.group === group) }));
}

/** What Enter takes in a list that is searched for what was typed: the first that fits. */
export function firstFitting(choices: readonly Choice[], typed: string): Choice | undefined {
  if (typed === "") return undefined;
  return inGroups(choices)
    .flatMap(({ own }) => own)
    .find((choice) => matches(typed, { search: searched(choice) }));
}
