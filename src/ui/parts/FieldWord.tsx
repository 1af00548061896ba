"use client";

import { useRef, useState } from "react";
import css from "./page.module.css";

/**
 * An underlined word that is typed: a name or a number. Enter or leaving keeps it, Escape leaves it as it was.
 * `read` turns what was typed into a value, or null when it is none; then nothing changes.
 */
export function FieldWord<T>(props: {
  label: string;
  text: string;
  read: (typed: string) => T | null;
  onChange: (value: T) => void;
  /** What stands in the field at first; the word itself unless given. */
  initial?: string;
  unset?: boolean;
  main?: boolean;
  /** Looks of another place than the sentence. */
  className?: string;
  width?: number;
  /** What a value must look like, shown while what is typed is none. */
  rule: string;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const button = useRef<HTMLButtonElement>(null);
  const close = () => {
    setTyped(null);
    requestAnimationFrame(() => button.current?.focus());
  };
  const looks = props.className ?? [css.word, props.main ? css.main : "", props.unset ? css.unset : ""].join(" ");
  if (typed !== null) {
    const value = props.read(typed);
    const keep = () => {
      if (value !== null && typed !== (props.initial ?? props.text)) props.onChange(value);
      setTyped(null);
    };
    return (
      <span className={css.place}>
        <span className={`${looks} ${css.held}`} aria-hidden="true">
          {props.text}
        </span>
        <span className={css.over}>
          <input
            className={css.field}
            aria-invalid={value === null}
            aria-label={props.label}
            autoFocus
            value={typed}
            style={{ width: props.width ?? 220 }}
            onFocus={(event) => event.target.select()}
            onChange={(event) => setTyped(event.target.value)}
            onBlur={keep}
            onKeyDown={(event) => {
              if (event.key === "Escape") close();
              if (event.key === "Enter" && value !== null) {
                keep();
                requestAnimationFrame(() => button.current?.focus());
              }
            }}
          />
          {value === null && (
            <span role="alert" className={css.rule}>
              {props.rule}
            </span>
          )}
        </span>
      </span>
    );
  }
  return (
    <button
      ref={button}
      type="button"
      className={looks}
      aria-label={`${props.label}: ${props.text}`}
      onClick={() => setTyped(props.initial ?? props.text)}
    >
      {props.text}
    </button>
  );
}
