"use client";

import { searchWords } from "@/study/model/variable";
import { Input, Select } from "antd";
import type { TextAreaRef } from "antd/es/input/TextArea";
import { useRef } from "react";
import { useStudy } from "@/features/study/study-context";
import type { Recipe, WrittenRecipe } from "@/study/model/derived";
import { FORMULA_FUNCTIONS, FormulaFaultError, nameInFormula, parseFormula } from "@/study/model/formula";
import { matches } from "@/ui/parts/matches";
import css from "../responses.module.css";

const SIGNS = ["+", "−", "×", "/", "^", "(", ")"];

/** A formula that is typed, or put together with pickers. A fault is pointed at in its place. */
export function FormulaRecipe({
  recipe,
  onChange,
}: {
  recipe: Extract<Recipe, { kind: "formula" }>;
  onChange: (recipe: WrittenRecipe) => void;
}) {
  return <FormulaField formula={recipe.formula} onChange={(formula) => onChange({ ...recipe, formula })} />;
}

export function FormulaField({ formula, onChange }: { formula: string; onChange: (formula: string) => void }) {
  const { study } = useStudy();
  const field = useRef<TextAreaRef>(null);
  const fault = formulaFault(formula);
  /** Puts something where the writing stands. */
  const insert = (text: string, back = 0) => {
    const area = field.current?.resizableTextArea?.textArea;
    const [from, to] = [area?.selectionStart ?? formula.length, area?.selectionEnd ?? formula.length];
    onChange(formula.slice(0, from) + text + formula.slice(to));
    requestAnimationFrame(() => {
      area?.focus();
      area?.setSelectionRange(from + text.length - back, from + text.length - back);
    });
  };
  const names = [
    ...study.scales.map((s) => ({ value: s.id, label: s.name, search: `${s.name} ${s.id}` })),
    ...study.codebook.map((v) => ({ value: v.name, label: `${v.name} ${v.label}`, search: searchWords(v) })),
  ];
  return (
    <div className={css.formula}>
      <Input.TextArea
        ref={field}
        aria-label="Formula"
        aria-invalid={fault !== null}
        autoSize
        value={formula}
        spellCheck={false}
        placeholder="such as (SC1 + SC2) / 2 or ln(months_enrolled)"
        onChange={(event) => onChange(event.target.value)}
      />
      {fault && (
        <p role="alert" className={css.formulaFault}>
          <code aria-hidden="true">
            {formula.slice(0, fault.at)}
            <mark>{formula.slice(fault.at, fault.at + 1) || "▵"}</mark>
            {formula.slice(fault.at + 1)}
          </code>{" "}
          {fault.message} (place {fault.at + 1})
        </p>
      )}
      <div className={css.ways}>
        <Select
          size="small"
          aria-label="Put in a variable"
          placeholder="a variable or scale"
          value={null}
          style={{ width: 210 }}
          popupMatchSelectWidth={340}
          showSearch={{ filterOption: matches }}
          getPopupContainer={(node: HTMLElement) => node.parentElement!}
          options={names}
          onChange={(name: string | null) => name !== null && insert(nameInFormula(name))}
        />
        <Select
          size="small"
          aria-label="Put in a function"
          placeholder="a function"
          value={null}
          style={{ width: 130 }}
          getPopupContainer={(node: HTMLElement) => node.parentElement!}
          options={Object.keys(FORMULA_FUNCTIONS).map((name) => ({ value: name, label: `${name}( )` }))}
          onChange={(name: string | null) => name !== null && insert(`${name}()`, 1)}
        />
        {SIGNS.map((sign) => (
          <button
            key={sign}
            type="button"
            className={css.sign}
            aria-label={`Put in ${sign}`}
            onClick={() => insert(/[()]/.test(sign) ? sign : ` ${sign} `)}
          >
            {sign}
          </button>
        ))}
      </div>
    </div>
  );
}

/** What is wrong with a formula as it is written, and where; null when it can be read, or is empty. */
export function formulaFault(formula: string): { message: string; at: number } | null {
  if (formula.trim() === "") return null;
  try {
    parseFormula(formula);
    return null;
  } catch (error) {
    if (error instanceof FormulaFaultError) return error.details;
    throw error;
  }
}
