"use client";

import { Button, Input, InputNumber, Select } from "antd";
import { useState } from "react";
import { useStudy } from "@/features/study/study-context";
import { useAsked } from "@/features/study/use-computed";
import { formatPlain } from "@/study/report/format-number";
import { Variable, type VariableKind } from "@/study/model/variable";
import { categoryLevels } from "@/study/prepare/category-levels";
import { family } from "./family";
import { LevelsField } from "./LevelsField";
import css from "./responses.module.css";

export const KIND_WORDS: Record<VariableKind, string> = {
  item: "scale item",
  number: "number",
  category: "category",
  date: "date",
  text: "text",
  code: "code",
};

/** One row of the codebook, opened for editing in its place. */
export function CodebookEntry({ variable, onClose }: { variable: Variable; onClose: () => void }) {
  const { study, store, columns } = useStudy();
  const [draft, setDraft] = useState(variable);
  const [low, setLow] = useState<number | null>(variable.range?.low ?? null);
  const [high, setHigh] = useState<number | null>(variable.range?.high ?? null);
  const [fault, setFault] = useState<string | null>(null);
  const others = family(variable, study.codebook).filter((v) => v.name !== variable.name);
  const strip = useAsked("strips", { names: [variable.name] }, { enabled: variable.kind === "item" || variable.kind === "number" })
    .result?.[0];
  const given = strip && strip.answers.length > 0 ? { low: strip.answers[0]!.value, high: strip.answers.at(-1)!.value } : null;
  const id = (field: string) => `entry-${field}`;

  const keep = async (names: "this" | "all") => {
    if ((low === null) !== (high === null)) return setFault("Give both the lowest and the highest answer, or neither.");
    const levels = draft.levels.filter((l) => l.value.trim() !== "");
    const parsed = Variable.safeParse({ ...draft, levels, range: low === null ? null : { low, high } });
    if (!parsed.success) return setFault(parsed.error.issues[0]!.message);
    const { range, missing, kind, unit, levels: labels } = parsed.data;
    const changed = [
      parsed.data,
      ...(names === "all" ? others.map((v) => ({ ...v, range, missing, kind, unit, ...(kind === "item" ? { levels: labels } : {}) })) : []),
    ];
    try {
      const described = await withLevels(changed);
      if (store.edit(...described.map((to) => ({ subject: "variable" as const, id: to.name, to })))) onClose();
    } catch {
      setFault("The levels of the category could not be read: the server does not answer. Nothing was changed.");
    }
  };

  /** What has just been called a category takes its levels from the answers. */
  const withLevels = async (variables: Variable[]) => {
    const bare = variables.filter((v) => v.kind === "category" && v.levels.length === 0);
    const answers = await columns.columns(bare.map((v) => v.name));
    return variables.map((v) => (bare.includes(v) ? { ...v, levels: categoryLevels(answers[bare.indexOf(v)]!, v.missing) } : v));
  };

  return (
    <form
      className={css.fields}
      onSubmit={(event) => {
        event.preventDefault();
        void keep("this");
      }}
      onKeyDown={(event) => event.key === "Escape" && onClose()}
    >
      <label htmlFor={id("label")}>Wording or label</label>
      <Input id={id("label")} autoFocus value={draft.label} onChange={(event) => setDraft({ ...draft, label: event.target.value })} />
      {draft.question !== "" && (
        <>
          <label htmlFor={id("question")}>Asked of all its items</label>
          <Input id={id("question")} value={draft.question} onChange={(event) => setDraft({ ...draft, question: event.target.value })} />
        </>
      )}
      <label htmlFor={id("kind")}>Kind</label>
      <Select
        id={id("kind")}
        aria-label="Kind"
        value={draft.kind}
        onChange={(kind) => setDraft({ ...draft, kind })}
        options={Object.entries(KIND_WORDS).map(([value, label]) => ({ value, label }))}
      />
      <label htmlFor={id("low")}>Possible answers</label>
      <span className={css.pair}>
        <InputNumber
          id={id("low")}
          aria-label="Lowest possible answer"
          style={{ width: 84 }}
          value={low}
          onChange={setLow}
          placeholder={given ? String(given.low) : ""}
        />{" "}
        to{" "}
        <InputNumber
          aria-label="Highest possible answer"
          style={{ width: 84 }}
          value={high}
          onChange={setHigh}
          placeholder={given ? String(given.high) : ""}
        />{" "}
        {given && low === null && high === null && given.low < given.high && (
          <button
            type="button"
            className="link"
            onClick={() => {
              setLow(given.low);
              setHigh(given.high);
            }}
          >
            as given, {formatPlain(given.low)} to {formatPlain(given.high)}
          </button>
        )}
      </span>
      <label htmlFor={id("missing")}>Missing codes</label>
      <Select
        id={id("missing")}
        aria-label="Missing codes"
        mode="tags"
        open={false}
        suffixIcon={null}
        tokenSeparators={[",", " "]}
        placeholder="such as −9, as in the file"
        value={draft.missing}
        onChange={(missing: string[]) => setDraft({ ...draft, missing: missing.map((code) => code.replace("−", "-")) })}
      />
      <span className="quiet">{draft.kind === "category" ? "Levels" : "Value labels"}</span>
      <LevelsField levels={draft.levels} onChange={(levels) => setDraft({ ...draft, levels })} />
      <label htmlFor={id("short")}>Short label</label>
      <Input
        id={id("short")}
        placeholder="for tables and axes"
        value={draft.short}
        onChange={(event) => setDraft({ ...draft, short: event.target.value })}
      />
      <label htmlFor={id("unit")}>Unit</label>
      <Input
        id={id("unit")}
        placeholder="such as years"
        value={draft.unit}
        onChange={(event) => setDraft({ ...draft, unit: event.target.value })}
      />
      <label htmlFor={id("note")}>Note</label>
      <Input.TextArea id={id("note")} autoSize value={draft.note} onChange={(event) => setDraft({ ...draft, note: event.target.value })} />
      <div className={css.actions}>
        <Button type="primary" size="small" htmlType="submit">
          Keep
        </Button>
        {others.length > 0 && (
          <button type="button" className="link" onClick={() => void keep("all")}>
            Keep, with the same kind, answers and codes for {others.length} more ({others[0]!.name} …)
          </button>
        )}
        <button type="button" className="link" onClick={onClose}>
          Leave as it was
        </button>
      </div>
      {fault && (
        <p role="alert" className={css.actions}>
          {fault}
        </p>
      )}
    </form>
  );
}
