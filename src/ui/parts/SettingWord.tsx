"use client";

import { useRef, useState } from "react";
import type { Choice } from "./choice";
import type { ChoiceFieldProps } from "./ChoiceField";
import { laterField, type Meanwhile } from "./later";
import { firstFitting } from "./matches";
import css from "./page.module.css";

/** The open list, for words and for whatever else is chosen so. */
export const ChoiceField = laterField<ChoiceFieldProps>(() => import("./ChoiceField"), PlainField);

/** Until the list has come: what is entered is chosen at once. */
function PlainField(props: ChoiceFieldProps & Meanwhile) {
  return (
    <input
      aria-label={props["aria-label"]}
      autoFocus
      value={props.typed ?? ""}
      onChange={(event) => props.onType(event.target.value)}
      onKeyDown={(event) => {
        if (event.key !== "Enter") return;
        const choice = firstFitting(props.choices, props.typed ?? "");
        props.onType("");
        if (!choice) return;
        props.onChoose(choice.value);
        props.onDone?.();
      }}
    />
  );
}

/** An underlined word of a sentence that is a setting: click it, or press Enter on it, to change it in place. */
export function SettingWord(props: {
  /** What is set, for a screen reader: "Outcome". */
  label: string;
  value: string | null;
  /** The word as it reads in the sentence; shown dashed while nothing is chosen. */
  text: string;
  choices: readonly Choice[];
  onChange: (value: string) => void;
  main?: boolean;
  /** Looks of another place than the sentence. */
  className?: string;
}) {
  const [editing, setEditing] = useState(false);
  const button = useRef<HTMLButtonElement>(null);
  const close = (focus: boolean) => {
    setEditing(false);
    if (focus) requestAnimationFrame(() => button.current?.focus());
  };
  const looks = props.className ?? [css.word, props.main ? css.main : "", props.value === null ? css.unset : ""].join(" ");
  if (editing) {
    return (
      <span className={css.place} onKeyDownCapture={(event) => event.key === "Escape" && close(true)}>
        <span className={`${looks} ${css.held}`} aria-hidden="true">
          {props.text}
        </span>
        <span className={css.over}>
          <ChoiceField
            aria-label={props.label}
            value={props.value}
            choices={props.choices}
            width={260}
            onChoose={props.onChange}
            onDone={() => close(true)}
            onLeave={() => close(false)}
          />
        </span>
      </span>
    );
  }
  return (
    <button ref={button} type="button" className={looks} aria-label={`${props.label}: ${props.text}`} onClick={() => setEditing(true)}>
      {props.text}
    </button>
  );
}
