"use client";

import { useRef, useState } from "react";
import { useStudy } from "@/features/study/study-context";
import { cellNumber } from "@/study/model/cell-number";
import { correctionId } from "@/study/model/correction";
import type { Edit } from "@/study/model/edit";
import type { Variable } from "@/study/model/variable";
import css from "./responses.module.css";
import type { SheetCell } from "./use-sheet-cells";

/** A cell opened for correction in its place. Enter keeps, Escape leaves it; what the file says is kept beside the correction. */
export function CellEditor(props: { variable: Variable; row: number; cell: SheetCell; derived: boolean; onDone: () => void }) {
  const { store } = useStudy();
  const { variable, row, cell, onDone } = props;
  const [typed, setTyped] = useState(cell.text ?? "");
  const done = useRef(false);
  if (props.derived) {
    return (
      <span className={css.cellNote} role="status">
        worked out
      </span>
    );
  }
  const leave = () => {
    if (done.current) return;
    done.current = true; // taking the field away ends its focus too, and must not keep what Escape has left
    onDone();
  };
  const keep = () => {
    if (done.current) return;
    const to = plain(typed);
    if (to !== cell.text) {
      const id = correctionId({ row, variable: variable.name });
      const edit: Edit =
        to === cell.imported
          ? { subject: "correction", id, to: null } // as the file has it: no correction is left
          : { subject: "correction", id, to: { variable: variable.name, row, from: cell.imported, to, note: "" } };
      store.edit(edit);
    }
    leave();
  };
  return (
    <input
      className={css.cellInput}
      aria-label={`Correct ${variable.name} of respondent ${row}`}
      autoFocus
      value={typed}
      onChange={(event) => setTyped(event.target.value)}
      onFocus={(event) => event.target.select()}
      onBlur={keep}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === "Enter") keep();
        if (event.key === "Escape") leave();
      }}
    />
  );
}

/** What was typed as a cell holds it: a number in its plain writing, nothing as null. */
function plain(typed: string): string | null {
  const text = typed.trim().replace(/^−/, "-");
  if (text === "") return null;
  const number = cellNumber(text, ".");
  return number === null ? text : String(number);
}
