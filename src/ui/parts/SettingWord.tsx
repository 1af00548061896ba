"use client";

import { Select } from "antd";
import type { DefaultOptionType } from "antd/es/select";
import { useRef, useState } from "react";
import css from "./page.module.css";

/** A choice of a setting; choices with the same group stand together. */
export interface Choice {
  value: string;
  label: string;
  /** Added to what a search looks at: a variable's name beside its label. */
  search?: string;
  group?: string;
}

/**
 * Choices as the select wants them, groups in order of first appearance. A group's heading is an option that cannot be
 * chosen: the select's own groups put attributes on headings that a screen reader is not allowed.
 */
export function groupedOptions(choices: readonly Choice[]): DefaultOptionType[] {
  const groups = [...new Set(choices.map((c) => c.group))];
  return groups.flatMap((group): DefaultOptionType[] => {
    const own = choices
      .filter((c) => c.group === group)
      .map((c) => ({ value: c.value, label: c.label, search: `${c.label} ${c.search ?? ""}` }));
    return group === undefined ? own : [{ value: `group ${group}`, label: group, disabled: true, className: css.group }, ...own];
  });
}

/** Finds what was typed in a choice's words, whatever the case. */
export function matches(typed: string, option: unknown): boolean {
  const text = (option as { search?: string } | undefined)?.search ?? "";
  return text.toLocaleLowerCase().includes(typed.trim().toLocaleLowerCase());
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
        <Select
          className={css.over}
          aria-label={props.label}
          autoFocus
          defaultOpen
          value={props.value}
          popupMatchSelectWidth={320}
          style={{ width: 260 }}
          showSearch={{ filterOption: matches }}
          options={groupedOptions(props.choices)}
          listHeight={320}
          getPopupContainer={(node: HTMLElement) => node.parentElement!}
          onChange={(value: string) => props.onChange(value)}
          onSelect={() => close(true)} // also when what stands there already is chosen
          onBlur={() => close(false)}
        />
      </span>
    );
  }
  return (
    <button ref={button} type="button" className={looks} aria-label={`${props.label}: ${props.text}`} onClick={() => setEditing(true)}>
      {props.text}
    </button>
  );
}
