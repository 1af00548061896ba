"use client";

import { useDeferredValue } from "react";
import { useStudy } from "@/features/study/study-context";
import type { Ladder } from "@/study/model/ladder";
import { namesByUse, type UsedChoice } from "../choices";
import { counted, formatCount } from "@/study/report/format-number";
import { addTerm } from "../ladder-edits";
import css from "./flight.module.css";
import { useCarry } from "./ladders-drag";

/** A longer list is not read: the rest is found by typing. */
const MOST_LISTED = 60;

/** What a step can take, the most used in the study first: click to add it to the step that is selected, or carry it to any. */
export function VariableList({ ladder, step, onChange }: { ladder: Ladder; step: number; onChange: (ladder: Ladder) => void }) {
  const { study } = useStudy();
  // told a moment after the change itself shows
  const names = namesByUse(useDeferredValue(study), useDeferredValue(ladder));
  if (names.length === 0) return null;
  const more = names.length - MOST_LISTED;
  return (
    <section aria-label="Variables to add" className={css.list}>
      <h2>To add to step {step + 1}</h2>
      <ul>
        {names.slice(0, MOST_LISTED).map((choice) => (
          <Entry key={choice.value} choice={choice} step={step} onAdd={() => onChange(addTerm(ladder, step, [choice.value]))} />
        ))}
      </ul>
      {more > 0 && <p className={css.more}>and {formatCount(more)} more: type a few letters under + term.</p>}
    </section>
  );
}

function Entry({ choice, step, onAdd }: { choice: UsedChoice; step: number; onAdd: () => void }) {
  const { attach, onPointerDown, isDragging } = useCarry(`list ${choice.value}`, { kind: "name", name: choice.value }, choice.label);
  return (
    <li data-lifted={isDragging || undefined}>
      <button
        ref={attach}
        type="button"
        onPointerDown={onPointerDown}
        onClick={onAdd}
        aria-label={`${choice.label}: add to step ${step + 1}`}
        title={choice.uses > 0 ? `${choice.label}: in ${counted(choice.uses, "ladder")}` : choice.label}
      >
        {choice.label}
      </button>
    </li>
  );
}
