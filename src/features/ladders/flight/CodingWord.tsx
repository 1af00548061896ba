"use client";

import type { CodingTable } from "@/core/regression/categories";
import type { Ladder } from "@/study/model/ladder";
import type { Variable } from "@/study/model/variable";
import { SettingWord } from "@/ui/parts/SettingWord";
import { codeCategory } from "../ladder-edits";
import css from "./flight.module.css";

/** How a category becomes columns, as a word of its chip that is a setting: against which level, or deviations from the mean of all. */
export function CodingWord(props: {
  ladder: Ladder;
  category: Variable;
  /** Its coding as fitted; null until it is. */
  table: CodingTable | null;
  title: (name: string) => string;
  onChange: (ladder: Ladder) => void;
}) {
  const { ladder, category, table } = props;
  const label = (value: string) => category.levels.find((l) => l.value === value)?.label || value;
  const chosen = ladder.categories.find((c) => c.variable === category.name);
  const coding = chosen?.coding ?? "indicator";
  const reference = table?.reference ?? chosen?.reference ?? category.levels[0]?.value ?? null;
  const levels = table ? table.levels.map((l) => l.level) : category.levels.map((l) => l.value);
  const cases = (value: string) => table?.levels.find((l) => l.level === value)?.cases;
  const of = (kind: "indicator" | "deviation") =>
    levels.map((value) => ({
      value: JSON.stringify([kind, value]),
      label: `${label(value)}${cases(value) === undefined ? "" : ` (${cases(value)})`}`,
      group: kind === "indicator" ? "Each level against" : "Each against the mean of all; no column for",
    }));
  const betas = [
    { value: "as-they-are", label: "stay 0 and 1", group: "Columns of categories in β" },
    { value: "standardized", label: "are standardized as well", group: "Columns of categories in β" },
  ];
  const change = (value: string) => {
    if (value === "as-they-are" || value === "standardized")
      return props.onChange({ ...ladder, standardizeIndicators: value === "standardized" });
    const [kind, level] = JSON.parse(value) as ["indicator" | "deviation", string];
    props.onChange(codeCategory(ladder, { variable: category.name, coding: kind, reference: level }));
  };
  const words =
    reference === null
      ? "category"
      : coding === "indicator"
        ? `against ${label(reference)}`
        : `against the mean, without ${label(reference)}`;
  return (
    <SettingWord
      label={`Coding of ${props.title(category.name)}`}
      className={css.coding}
      value={reference === null ? null : JSON.stringify([coding, reference])}
      text={words}
      choices={[...of("indicator"), ...of("deviation"), ...betas]}
      onChange={change}
    />
  );
}
