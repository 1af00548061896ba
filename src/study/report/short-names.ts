import type { Variable } from "../model/variable";
import { familyOf } from "../prepare/answers/column-answers";
import { namesFromWordings } from "../prepare/wordings";

/** The items of a question and the word their short names would be made from. */
export interface NameProposal {
  key: string;
  question: string;
  stem: string;
  names: string[];
}

/** Families of items or indicators with wordings and without short names. */
export function proposedNames(codebook: readonly Variable[]): NameProposal[] {
  const families = new Map<string, Variable[]>();
  for (const v of codebook) {
    const family = familyOf(v);
    if (family !== null && v.kind === "item" && v.label !== "") families.set(family, [...(families.get(family) ?? []), v]);
  }
  const open = [...families].filter(([, all]) => all.length > 1 && all.every((v) => v.short === ""));
  const proposed = namesFromWordings(open.flatMap(([key, all]) => all.map((v) => ({ question: v.question || key, label: v.label }))));
  let at = 0;
  return open.map(([key, all]) => {
    const stem = proposed[at]!.replace(/_1$/, "");
    at += all.length;
    return { key, question: all[0]!.question || all[0]!.label, stem, names: all.map((v) => v.name) };
  });
}
