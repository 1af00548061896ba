import { type Study, titleOf } from "@/study/model/study";
import { searchWords } from "@/study/model/variable";
import type { Choice } from "@/ui/parts/choice";

export type Names = Pick<Study, "codebook" | "scales" | "filters">;

/** Scales first, then numbers, then items: everything a number can be read from. */
export function numericChoices(study: Names, leaveOut: ReadonlySet<string> = new Set()): Choice[] {
  const scales = study.scales.map((s) => ({ value: s.id, label: s.name, group: "Scales" }));
  const of = (kind: "number" | "item", group: string) =>
    study.codebook
      .filter((v) => v.kind === kind)
      .map((v) => ({
        value: v.name,
        label: kind === "item" ? `${v.name} ${v.label}` : titleOf(study, v.name),
        search: searchWords(v),
        group,
      }));
  return [...scales, ...of("number", "Numbers"), ...of("item", "Items")].filter((c) => !leaveOut.has(c.value));
}

/** Categories, which can be predictors and never an outcome. */
export function categoryChoices(study: Names): Choice[] {
  return study.codebook
    .filter((v) => v.kind === "category")
    .map((v) => ({ value: v.name, label: titleOf(study, v.name), search: searchWords(v), group: "Categories" }));
}
