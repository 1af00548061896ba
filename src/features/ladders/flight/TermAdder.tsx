"use client";

import { useState } from "react";
import type { Choice } from "@/ui/parts/choice";
import { ChoiceField } from "@/ui/parts/SettingWord";
import page from "@/ui/parts/page.module.css";
import css from "./flight.module.css";

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
      <span className={page.over}>
        <ChoiceField
          aria-label={`Term for step ${step + 1}`}
          value={null}
          choices={choices}
          width={190}
          placeholder="type a few letters"
          onChoose={onAdd}
          onLeave={() => setOpen(false)}
        />
      </span>
    </span>
  );
}
