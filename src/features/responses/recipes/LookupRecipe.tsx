"use client";

import { Input, Select } from "antd";
import { useStudy } from "@/features/study/study-context";
import { useAsked } from "@/features/study/use-computed";
import type { Recipe, WrittenRecipe } from "@/study/model/derived";
import css from "../responses.module.css";

type Lookup = Extract<Recipe, { kind: "lookup" }>;
type Indicator = Extract<Recipe, { kind: "indicator" }>;

/** The answers there are to a variable, most frequent first or in codebook order, with their words and counts. */
function useAnswers(name: string): { value: string; label: string; count: number }[] {
  const { study } = useStudy();
  const { result } = useAsked("look", { name }, { subject: `look ${name}` });
  const labels = new Map(study.codebook.find((v) => v.name === name)?.levels.map((l) => [l.value, l.label]));
  if (result?.status !== "seen") return [];
  const numeric = result.look.values.every((v) => !Number.isNaN(Number(v.value)));
  const values = numeric ? [...result.look.values].sort((a, b) => Number(a.value) - Number(b.value)) : result.look.values;
  return values.map((v) => ({ ...v, label: labels.get(v.value) ?? "" }));
}

/** A table of values and what they become; combining levels is giving them the same word. */
export function LookupRecipe({ recipe, onChange }: { recipe: Lookup; onChange: (recipe: WrittenRecipe) => void }) {
  const answers = useAnswers(recipe.from);
  const targets = new Map(recipe.table.flatMap((row) => row.values.map((value) => [value, row.to] as const)));
  const shown = [
    ...answers,
    ...[...targets.keys()].filter((v) => !answers.some((a) => a.value === v)).map((value) => ({ value, label: "", count: 0 })),
  ];
  /** Rows of the table with one value each are put together by what they become. */
  const put = (value: string, to: string | null | undefined) => {
    const next = new Map(targets);
    if (to === undefined) next.delete(value);
    else next.set(value, to);
    const rows: Lookup["table"] = [];
    for (const [from, target] of next) {
      const row = rows.find((r) => r.to === target);
      if (row) row.values.push(from);
      else rows.push({ values: [from], to: target });
    }
    onChange({ ...recipe, table: rows });
  };
  const { otherwise } = recipe;
  return (
    <>
      <table className={css.lookup}>
        <thead>
          <tr>
            <th scope="col">Value</th>
            <th scope="col">Respondents</th>
            <th scope="col">becomes</th>
            <th scope="col">
              <span className="visually-hidden">Ways</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {shown.map(({ value, label, count }) => {
            const to = targets.get(value);
            return (
              <tr key={value}>
                <th scope="row">
                  {value} {label && <span className="quiet">{label}</span>}
                </th>
                <td>{count}</td>
                <td>
                  {to === null ? (
                    <em>missing</em>
                  ) : (
                    <Input
                      size="small"
                      aria-label={`What ${value} becomes`}
                      placeholder="not in the table"
                      value={to ?? ""}
                      onChange={(event) => put(value, event.target.value === "" ? undefined : event.target.value)}
                    />
                  )}
                </td>
                <td>
                  <button type="button" className="link" onClick={() => put(value, to === null ? value : null)}>
                    {to === null ? "a value" : "missing"}
                  </button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <label className={css.from}>
        Anything else{" "}
        <Select
          size="small"
          aria-label="Anything else"
          style={{ width: 180 }}
          value={otherwise.kind}
          getPopupContainer={(node: HTMLElement) => node.parentElement!}
          options={[
            { value: "missing", label: "becomes missing" },
            { value: "keep", label: "stays as it is" },
            { value: "value", label: "becomes" },
          ]}
          onChange={(kind: Lookup["otherwise"]["kind"]) =>
            onChange({ ...recipe, otherwise: kind === "value" ? { kind, value: "other" } : { kind } })
          }
        />{" "}
        {otherwise.kind === "value" && (
          <Input
            size="small"
            aria-label="What anything else becomes"
            style={{ width: 140 }}
            value={otherwise.value}
            onChange={(event) => onChange({ ...recipe, otherwise: { kind: "value", value: event.target.value } })}
          />
        )}
      </label>
    </>
  );
}

/** The answers that count as 1. */
export function IndicatorRecipe({ recipe, onChange }: { recipe: Indicator; onChange: (recipe: WrittenRecipe) => void }) {
  const answers = useAnswers(recipe.from);
  return (
    <label className={css.from}>
      is 1 for{" "}
      <Select
        size="small"
        mode="multiple"
        aria-label="Answers that count as 1"
        style={{ minWidth: 280 }}
        getPopupContainer={(node: HTMLElement) => node.parentElement!}
        value={recipe.equals}
        options={answers.map((a) => ({ value: a.value, label: `${a.label || a.value} (${a.count})` }))}
        onChange={(equals: string[]) => onChange({ ...recipe, equals })}
      />
    </label>
  );
}
