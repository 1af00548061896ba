"use client";

import { InputNumber, Select } from "antd";
import { useStudy } from "@/features/study/study-context";
import type { Recipe, WrittenRecipe } from "@/study/model/derived";
import { matches } from "@/ui/parts/matches";
import css from "../responses.module.css";
import { FromField } from "./FromField";

type Of<K extends Recipe["kind"]> = { recipe: Extract<Recipe, { kind: K }>; onChange: (recipe: WrittenRecipe) => void };
const popup = { getPopupContainer: (node: HTMLElement) => node.parentElement! };

export function TransformRecipe({ recipe, onChange }: Of<"transform">) {
  return (
    <label className={css.from}>
      becomes its{" "}
      <Select
        size="small"
        aria-label="What it becomes"
        style={{ width: 200 }}
        {...popup}
        value={recipe.by}
        options={[
          { value: "ln", label: "natural logarithm" },
          { value: "log10", label: "logarithm to base 10" },
          { value: "root", label: "square root" },
          { value: "square", label: "square" },
        ]}
        onChange={(by) => onChange({ ...recipe, by })}
      />
    </label>
  );
}

/** Variables with their weights; a respondent with a gap in any has no sum. */
export function WeightedRecipe({ recipe, onChange }: Of<"weighted">) {
  const { study } = useStudy();
  const { parts } = recipe;
  const free = [
    ...study.scales.map((s) => ({ value: s.id, label: s.name })),
    ...study.codebook.map((v) => ({ value: v.name, label: `${v.name} ${v.label}` })),
  ].filter((c) => !parts.some((p) => p.variable === c.value));
  return (
    <div className={css.rangeRow}>
      {parts.map((part, i) => (
        <span key={part.variable} className={css.pair}>
          {i > 0 && "+"}
          <InputNumber
            size="small"
            aria-label={`Weight of ${part.variable}`}
            style={{ width: 84 }}
            value={part.weight}
            onChange={(weight) => weight !== null && onChange({ ...recipe, parts: parts.with(i, { ...part, weight }) })}
          />
          × {part.variable}
          {parts.length > 1 && (
            <button
              type="button"
              className="link"
              aria-label={`Take ${part.variable} out`}
              onClick={() => onChange({ ...recipe, parts: parts.toSpliced(i, 1) })}
            >
              ×
            </button>
          )}
        </span>
      ))}
      <Select
        size="small"
        aria-label="Add a variable"
        placeholder="add a variable"
        value={null}
        style={{ width: 190 }}
        popupMatchSelectWidth={340}
        showSearch={{ filterOption: matches }}
        {...popup}
        options={free.map((c) => ({ ...c, search: c.label }))}
        onChange={(variable: string | null) => variable !== null && onChange({ ...recipe, parts: [...parts, { variable, weight: 1 }] })}
      />
    </div>
  );
}

/** A year, or a span of years to a day or to another date. */
export function YearsRecipe({ recipe, onChange }: Of<"years">) {
  return (
    <div className={css.rangeRow}>
      <label className={css.from}>
        written as{" "}
        <Select
          size="small"
          aria-label="How dates are written"
          style={{ width: 170 }}
          {...popup}
          value={recipe.order}
          options={[
            { value: "year-month-day", label: "2024-03-01" },
            { value: "day-month-year", label: "1.3.2024 (day first)" },
            { value: "month-day-year", label: "3/1/2024 (month first)" },
          ]}
          onChange={(order) => onChange({ ...recipe, order })}
        />
      </label>
      <label className={css.from}>
        becomes{" "}
        <Select
          size="small"
          aria-label="Which years"
          style={{ width: 220 }}
          {...popup}
          value={recipe.count}
          options={[
            { value: "calendar", label: "the year" },
            { value: "completed", label: "completed years until a day" },
            { value: "exact", label: "years with decimals until a day" },
          ]}
          onChange={(count) =>
            onChange({
              ...recipe,
              count,
              to: count === "calendar" ? null : (recipe.to ?? { kind: "day", day: new Date().toISOString().slice(0, 10) }),
            })
          }
        />
      </label>
      {recipe.to && (
        <Select
          size="small"
          aria-label="Until"
          style={{ width: 170 }}
          {...popup}
          value={recipe.to.kind}
          options={[
            { value: "day", label: "one day for all" },
            { value: "variable", label: "another date" },
          ]}
          onChange={(kind) =>
            onChange({
              ...recipe,
              to: kind === "day" ? { kind, day: new Date().toISOString().slice(0, 10) } : { kind: "variable", variable: recipe.from },
            })
          }
        />
      )}
      {recipe.to?.kind === "day" && (
        <input
          type="date"
          className={css.date}
          aria-label="The day"
          value={recipe.to.day}
          onChange={(event) => onChange({ ...recipe, to: { kind: "day", day: event.target.value } })}
        />
      )}
      {recipe.to?.kind === "variable" && (
        <FromField
          label="until"
          scales={false}
          value={recipe.to.variable}
          onChange={(variable) => onChange({ ...recipe, to: { kind: "variable", variable } })}
        />
      )}
    </div>
  );
}
