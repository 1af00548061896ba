"use client";

import { Select } from "antd";
import { useState } from "react";
import { type Choice, groupedOptions, matches } from "@/ui/parts/SettingWord";
import page from "@/ui/parts/page.module.css";
import css from "./flight.module.css";

/** A list of so many choices is drawn whole: measuring which of them are in view takes longer at every change. */
const PLAIN = 150;

/** "+ term": turns into a search over what the step can take. Stays open, so that several terms follow one another. */
export function TermAdder({ step, choices, onAdd }: { step: number; choices: readonly Choice[]; onAdd: (value: string) => void }) {
  const [open, setOpen] = useState(false);
  if (!open)
    return (
      <button type="button" className={css.add} aria-label={`Add a term to step ${step + 1}`} onClick={() => setOpen(true)}>
        + term
      </button>
    );
  return (
    <span className={page.place} onKeyDownCapture={(event) => event.key === "Escape" && setOpen(false)}>
      <span className={`${css.add} ${page.held}`} aria-hidden="true">
        + term
      </span>
      <Select
        className={page.over}
        aria-label={`Term for step ${step + 1}`}
        autoFocus
        defaultOpen
        value={null}
        placeholder="type a few letters"
        style={{ width: 190 }}
        popupMatchSelectWidth={320}
        showSearch={{ filterOption: matches }}
        options={groupedOptions(choices)}
        listHeight={320}
        virtual={choices.length > PLAIN}
        getPopupContainer={(node: HTMLElement) => node.parentElement!}
        onChange={(value: string | null) => value !== null && onAdd(value)}
        onBlur={() => setOpen(false)}
      />
    </span>
  );
}
