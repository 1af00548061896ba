"use client";

import { columnKey, type Part } from "@/core/regression/terms";
import { restsOnColumn } from "@/features/study/hypothesis-edits";
import { ColumnParts } from "@/study/model/column-parts";
import type { RestsOn } from "@/study/model/hypothesis";
import { partsTitle } from "@/study/report/ladder/coefficient-words";
import type { Titles } from "@/study/report/level-title";
import css from "./theory.module.css";

/** What a hypothesis may rest on that begins with one or two threads of the picture: a coefficient, a difference of two, their product. */
export function beginnings(
  threads: readonly string[],
  columns: readonly (readonly Part[])[],
  title: Titles,
): { label: string; rests: RestsOn }[] {
  const [first, second] = threads;
  const of = (name: string) => columns.filter((parts) => parts.length === 1 && parts[0]!.variable === name);
  const named = (parts: readonly Part[], lead: string) => ({ label: `${lead} ${partsTitle(parts, title)}`, rests: restsOnColumn(parts) });
  if (second === undefined) return first === undefined ? [] : of(first).map((parts) => named(parts, "the coefficient of"));
  const both = columns.filter((parts) => parts.length === 2 && threads.every((name) => parts.some((part) => part.variable === name)));
  const differences = of(first!).flatMap((a) =>
    of(second).map((b) => ({
      label: `β of ${partsTitle(a, title)} − β of ${partsTitle(b, title)}`,
      rests: { on: "difference" as const, first: ColumnParts.parse(a), second: ColumnParts.parse(b) },
    })),
  );
  return [...differences, ...both.map((parts) => named(parts, "the product"))];
}

/** The offers that follow what was chosen in the picture. */
export function BegunWith(props: {
  threads: readonly string[];
  /** A step that was chosen, from 0; null: none. */
  step: number | null;
  columns: readonly (readonly Part[])[];
  title: Titles;
  onTake: (rests: RestsOn) => void;
  onCancel: () => void;
}) {
  const { threads, step, title } = props;
  if (threads.length === 0 && step === null) return null;
  const offers = step === null ? beginnings(threads, props.columns, title) : [{ label: "what it adds", rests: { on: "change" as const } }];
  return (
    <p className={css.ways} role="group" aria-label="Begin a hypothesis">
      <span>
        Begin a hypothesis with <b>{step === null ? threads.map((name) => title(name)).join(" and ") : `step ${step + 1}`}</b>:
      </span>
      {offers.map(({ label, rests }) => (
        <button
          type="button"
          className="link"
          key={rests.on === "coefficient" ? columnKey(rests.column) : label}
          onClick={() => props.onTake(rests)}
        >
          {label}
        </button>
      ))}
      {threads.length === 1 && <span className="quiet">or choose a second thread</span>}
      <button type="button" className="link" onClick={props.onCancel}>
        Cancel
      </button>
    </p>
  );
}
