"use client";

import { Button, Checkbox, Input, InputNumber, Select } from "antd";
import { useState } from "react";
import { newId } from "@/study/model/new-id";
import { useStudy } from "@/features/study/study-context";
import { useAsked } from "@/features/study/use-computed";
import { usedBy } from "@/study/kinds/standing";
import type { Shown } from "@/study/analyse/responses/row-list";
import type { Edit } from "@/study/model/edit";
import { type Condition, RespondentFilter } from "@/study/model/respondent-filter";
import { counted, formatCount, listed } from "@/study/report/format-number";
import { conditionWords, unmetWords } from "@/study/report/recipe-words";
import { refusalWords } from "@/study/report/refusals";
import { FormulaField } from "./recipes/FormulaRecipe";
import { FromField } from "./recipes/FromField";
import css from "./responses.module.css";

/** Who is left out, why, and the filters that scales and ladders can name. */
export function FiltersSection({ onShow }: { onShow: (shown: Shown) => void }) {
  const { study } = useStudy();
  const [draft, setDraft] = useState<RespondentFilter | null>(null);
  const category = study.codebook.find((v) => v.kind === "category");
  const begin = () => {
    const first: Condition = category
      ? { kind: "values", variable: category.name, equals: category.levels.slice(0, 1).map((l) => l.value), not: false }
      : { kind: "formula", formula: "" };
    setDraft({ id: "", name: "", reason: "", everywhere: false, conditions: [first] });
  };
  return (
    <section id="filters" aria-label="Left out, and filters" className={css.section}>
      <h2>Left out, and filters</h2>
      {study.filters.length === 0 && !draft && (
        <p>Everybody is in. A filter keeps some respondents, for a reason that the report’s flow of respondents gives.</p>
      )}
      <ul className={css.derivedList}>
        {study.filters.map((filter) => (
          <FilterLine key={filter.id} filter={filter} onShow={onShow} onOpen={() => setDraft(filter)} />
        ))}
      </ul>
      {draft ? (
        <FilterEditor key={draft.id} filter={draft} onClose={() => setDraft(null)} />
      ) : (
        <div className={css.ways}>
          <Button size="small" onClick={begin}>
            New filter
          </Button>
          <SplitButton />
        </div>
      )}
    </section>
  );
}

/** A filter for each level of a category: the groups of a split, to be named in scales and ladders. */
function SplitButton() {
  const { study, store, title } = useStudy();
  const categories = study.codebook.filter((v) => v.kind === "category" && v.levels.length > 1);
  if (categories.length === 0) return null;
  const split = (name: string) => {
    const variable = categories.find((v) => v.name === name)!;
    const taken = study.filters.map((f) => f.id);
    const edits = variable.levels.map((level): Edit => {
      const words = `${title(name)}: ${level.label || level.value}`;
      const id = newId(words, taken);
      taken.push(id);
      const conditions: Condition[] = [{ kind: "values", variable: name, equals: [level.value], not: false }];
      return {
        subject: "filter",
        id,
        to: { id, name: words.slice(0, 200), reason: `Split by ${title(name)}`, everywhere: false, conditions },
      };
    });
    store.edit(...edits);
  };
  return (
    <Select
      size="small"
      aria-label="Split by a category"
      placeholder="Split: a filter for each level of …"
      value={null}
      style={{ width: 250 }}
      getPopupContainer={(node: HTMLElement) => node.parentElement!}
      options={categories.map((v) => ({ value: v.name, label: title(v.name) }))}
      onChange={(name: string | null) => name !== null && split(name)}
    />
  );
}

function FilterLine({ filter, onShow, onOpen }: { filter: RespondentFilter; onShow: (shown: Shown) => void; onOpen: () => void }) {
  const { study, store, title } = useStudy();
  const { result } = useAsked("filter", filter);
  const used = usedBy(study, { kind: "filter", id: filter.id });
  const count =
    result === null
      ? "…"
      : result.status === "kept"
        ? `keeps ${formatCount(result.kept)}, leaves out ${formatCount(result.leftOut)}`
        : refusalWords(result.refusal, title).what;
  return (
    <li>
      <strong>{filter.name}</strong> (
      {filter.everywhere
        ? "holds for the whole study"
        : used.length > 0
          ? `named by ${listed(used.map((u) => u.name))}`
          : "named by nothing yet"}
      ): keeps respondents {listed(filter.conditions.map((c) => conditionWords(c, title)))}. <span className="quiet">{count}.</span>{" "}
      {result?.status === "kept" && result.unmet.length > 0 && `${unmetWords(result.unmet)} `}
      {filter.reason && <em>{filter.reason}</em>}{" "}
      <span className={css.ways}>
        <button
          type="button"
          className="link"
          aria-label={`Show whom ${filter.name} leaves out`}
          onClick={() => onShow({ kind: "left-out", filter: filter.id })}
        >
          Show those left out
        </button>
        <button type="button" className="link" aria-label={`Change ${filter.name}`} onClick={onOpen}>
          Change
        </button>
        <button
          type="button"
          className="link"
          aria-label={`Take ${filter.name} away`}
          onClick={() => void store.edit({ subject: "filter", id: filter.id, to: null })}
        >
          Take away
        </button>
      </span>
    </li>
  );
}

const CONDITION_WORDS: Record<Condition["kind"], string> = {
  values: "whose answer is one of",
  between: "whose number lies between",
  answered: "who answered a share of all items",
  formula: "for whom a formula is true",
  "not-rows": "other than chosen rows",
};

function FilterEditor({ filter, onClose }: { filter: RespondentFilter; onClose: () => void }) {
  const { study, store, title } = useStudy();
  const [draft, setDraft] = useState(filter);
  const [fault, setFault] = useState<string | null>(null);
  const items = study.codebook.filter((v) => v.kind === "item").map((v) => v.name);
  const first = study.codebook[0]?.name ?? "";
  const put = (at: number, condition: Condition) => setDraft({ ...draft, conditions: draft.conditions.with(at, condition) });
  const fresh = (kind: Condition["kind"]): Condition => {
    const category = study.codebook.find((v) => v.kind === "category")?.name ?? first;
    const number = study.codebook.find((v) => v.kind === "number")?.name ?? first;
    if (kind === "values") return { kind, variable: category, equals: [], not: false };
    if (kind === "between") return { kind, variable: number, low: 0, high: null };
    if (kind === "answered") return { kind, variables: items.length > 0 ? items : [first], share: 0.5 };
    return kind === "formula" ? { kind, formula: "" } : { kind, rows: [] };
  };
  const id =
    draft.id ||
    newId(
      draft.name || "filter",
      study.filters.map((f) => f.id),
    );
  const parsed = RespondentFilter.safeParse({ ...draft, id });
  const keep = () => {
    if (!parsed.success) return setFault(parsed.error.issues[0]!.message);
    if (store.edit({ subject: "filter", id, to: parsed.data })) onClose();
    else setFault(store.snapshot().fault);
  };
  return (
    <form
      className={css.recipe}
      aria-label="Filter"
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <div className={css.recipeHead}>
        <label>
          Filter{" "}
          <Input
            size="small"
            aria-label="Name of the filter"
            autoFocus
            style={{ width: 190 }}
            value={draft.name}
            onChange={(e) => setDraft({ ...draft, name: e.target.value })}
          />
        </label>
        <label>
          because{" "}
          <Input
            size="small"
            aria-label="Reason"
            style={{ width: 320 }}
            value={draft.reason}
            onChange={(e) => setDraft({ ...draft, reason: e.target.value })}
          />
        </label>
      </div>
      <p>Keeps respondents</p>
      {draft.conditions.map((condition, at) => (
        <div key={at} className={css.condition}>
          {at > 0 && "and"}
          <Select
            size="small"
            aria-label={`Condition ${at + 1}`}
            style={{ width: 250 }}
            getPopupContainer={(node: HTMLElement) => node.parentElement!}
            value={condition.kind}
            options={Object.entries(CONDITION_WORDS).map(([value, label]) => ({ value, label }))}
            onChange={(kind: Condition["kind"]) => put(at, fresh(kind))}
          />
          <ConditionFields condition={condition} onChange={(next) => put(at, next)} />
          {draft.conditions.length > 1 && (
            <button
              type="button"
              className="link"
              aria-label={`Take condition ${at + 1} away`}
              onClick={() => setDraft({ ...draft, conditions: draft.conditions.toSpliced(at, 1) })}
            >
              ×
            </button>
          )}
        </div>
      ))}
      <p className={css.ways}>
        <button type="button" className="link" onClick={() => setDraft({ ...draft, conditions: [...draft.conditions, fresh("values")] })}>
          And one more condition
        </button>
        <Checkbox checked={draft.everywhere} onChange={(event) => setDraft({ ...draft, everywhere: event.target.checked })}>
          holds for the whole study
        </Checkbox>
      </p>
      <FilterOutcome filter={{ ...draft, id, name: "-" }} />
      <div className={css.ways}>
        <Button type="primary" size="small" htmlType="submit">
          Keep
        </Button>
        <button type="button" className="link" onClick={onClose}>
          {filter.id === "" ? "Make nothing" : "Leave it as it was"}
        </button>
        <span className="quiet">{listed(draft.conditions.map((c) => conditionWords(c, title)))}</span>
      </div>
      {fault && <p role="alert">{fault}</p>}
    </form>
  );
}

function FilterOutcome({ filter }: { filter: RespondentFilter }) {
  const parsed = RespondentFilter.safeParse({ ...filter, id: "draft" });
  return parsed.success ? <Counted filter={parsed.data} /> : null;
}

function Counted({ filter }: { filter: RespondentFilter }) {
  const { title } = useStudy();
  const { result } = useAsked("filter", filter);
  if (!result) return null;
  if (result.status === "refused") return <p role="alert">{refusalWords(result.refusal, title).what}</p>;
  return (
    <p role="status" data-testid="filter-outcome">
      It keeps {counted(result.kept, "respondent")} and leaves {formatCount(result.leftOut)} out.
      {result.unmet.length > 0 && ` ${unmetWords(result.unmet)}`}
    </p>
  );
}

function ConditionFields({ condition, onChange }: { condition: Condition; onChange: (condition: Condition) => void }) {
  const { study } = useStudy();
  switch (condition.kind) {
    case "values": {
      const levels = study.codebook.find((v) => v.name === condition.variable)?.levels ?? [];
      return (
        <>
          <FromField
            label=""
            scales={false}
            value={condition.variable}
            onChange={(variable) => onChange({ ...condition, variable, equals: [] })}
          />
          <Select
            size="small"
            aria-label="is or is not"
            style={{ width: 76 }}
            getPopupContainer={(node: HTMLElement) => node.parentElement!}
            value={condition.not ? "not" : "is"}
            options={[
              { value: "is", label: "is" },
              { value: "not", label: "is not" },
            ]}
            onChange={(value) => onChange({ ...condition, not: value === "not" })}
          />
          <Select
            size="small"
            mode="tags"
            aria-label="Answers"
            style={{ minWidth: 200 }}
            getPopupContainer={(node: HTMLElement) => node.parentElement!}
            value={condition.equals}
            options={levels.map((l) => ({ value: l.value, label: l.label || l.value }))}
            onChange={(equals: string[]) => onChange({ ...condition, equals })}
          />
        </>
      );
    }
    case "between":
      return (
        <>
          <FromField label="" scales value={condition.variable} onChange={(variable) => onChange({ ...condition, variable })} />
          <InputNumber
            size="small"
            aria-label="Lowest"
            style={{ width: 84 }}
            value={condition.low}
            onChange={(low) => onChange({ ...condition, low })}
          />
          and
          <InputNumber
            size="small"
            aria-label="Highest"
            style={{ width: 84 }}
            value={condition.high}
            onChange={(high) => onChange({ ...condition, high })}
          />
        </>
      );
    case "answered":
      return (
        <>
          at least
          <InputNumber
            size="small"
            aria-label="Share in percent"
            style={{ width: 70 }}
            min={1}
            max={100}
            value={Math.round(condition.share * 100)}
            onChange={(share) => share !== null && onChange({ ...condition, share: share / 100 })}
          />
          % of {counted(condition.variables.length, "item")}
        </>
      );
    case "formula":
      return <FormulaField formula={condition.formula} onChange={(formula) => onChange({ ...condition, formula })} />;
    case "not-rows":
      return (
        <Input
          size="small"
          aria-label="Rows left out"
          placeholder="rows, such as 12, 40, 41"
          style={{ width: 280 }}
          defaultValue={condition.rows.join(", ")}
          onChange={(event) => {
            const rows = event.target.value
              .split(/[\s,;]+/)
              .map(Number)
              .filter((row) => Number.isInteger(row) && row >= 1);
            onChange({ ...condition, rows: [...new Set(rows)].sort((a, b) => a - b) });
          }}
        />
      );
  }
}
