"use client";

import Link from "next/link";
import { useState } from "react";
import type { LadderFit } from "@/core/regression/ladder";
import type { LadderDepth } from "@/study/analyse/ladder-depth";
import { formatInterval } from "@/study/report/format-number";
import { coefficientSentence, columnTitle, type Naming, type Told } from "@/study/report/ladder/coefficient-words";
import { IntervalMark } from "@/ui/charts/IntervalMark";
import { layoutIntervals } from "@/ui/charts/layout-intervals";
import { stepColour } from "@/ui/theme/step-colours";
import css from "../ladders.module.css";
import { ReadingLine } from "./ReadingLine";
import { type Shown, shownOf } from "./shown";
import { useCellKeys } from "./use-cell-keys";

const MARK_WIDTH = 66;

export const TOLD_WORDS: Record<Told, string> = {
  beta: "standardized (β)",
  b: "in raw units (b)",
  part: "as part correlations",
  part2: "as squared part correlations",
};

/** Each coefficient in every step: number, dot and interval. β and parts share one scale; b, of unlike units, have one a row. */
export function CoefficientsOverSteps({
  fit,
  told,
  depth,
  percent,
  naming,
  selected,
  off,
  claims,
}: {
  fit: LadderFit;
  told: Told;
  /** Intervals of part correlations; null until they are worked out. */
  depth: LadderDepth | null;
  percent: string;
  naming: Naming;
  /** The step that is spoken of, from 0. */
  selected: number;
  /** Steps that are switched off have no column of figures: they would repeat those of the step before. */
  off: ReadonlySet<number>;
  /** Hypotheses that rest on a column, by its key. */
  claims: ReadonlyMap<string, readonly { code: string; href: string }[]>;
}) {
  const [read, setRead] = useState<string | null>(null);
  const steps = fit.steps.flatMap((_, k) => (off.has(k) ? [] : [k]));
  const columns = [...new Set(fit.steps.flatMap((step) => step.coefficients.map((c) => c.column)))];
  const rows = columns.map((column) =>
    fit.steps.map((step, k): Shown | null => {
      const c = step.coefficients.find((one) => one.column === column);
      return c ? shownOf(c, told, depth?.parts[k]?.[column]) : null;
    }),
  );
  const firstCell = `0 ${Math.max(0, rows[0]?.findIndex((cell) => cell !== null) ?? 0)}`;
  const keys = useCellKeys(firstCell);
  const there = (cell: string) => {
    const [row, column] = cell.split(" ").map(Number) as [number, number];
    return Boolean(rows[row]?.[column]);
  };
  const stop = there(keys.stop) ? keys.stop : firstCell;
  const reading = read === null ? null : readingOf(read);
  function readingOf(cell: string): string | null {
    const [row, column] = cell.split(" ").map(Number) as [number, number];
    const shown = rows[row]?.[column];
    return shown ? coefficientSentence(shown.c, fit, naming, told) : null;
  }
  const marksOf = (cells: (Shown | null)[]) => {
    const present = cells.filter((c) => c !== null);
    const laid = layoutIntervals(present, MARK_WIDTH);
    return new Map(present.map((cell, i) => [cell, laid[i]!]));
  };
  const shared = told === "b" ? null : marksOf(rows.flat());
  return (
    <>
      <div className={css.scroll} onKeyDown={keys.onKeyDown} onMouseLeave={() => setRead(null)}>
        <table className={`${css.table} ${steps.length > (told === "b" ? 2 : 3) ? css.tight : ""}`} data-testid="over-steps">
          <caption className="visually-hidden">
            Coefficients over the steps, {TOLD_WORDS[told]}, with {percent} intervals
          </caption>
          <thead>
            <tr>
              <td />
              {steps.map((k) => (
                <th
                  key={k}
                  scope="colgroup"
                  colSpan={3}
                  data-selected={k === selected || undefined}
                  style={{ textAlign: "left", paddingLeft: 16, color: stepColour(k) }}
                >
                  Step {k + 1}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((cells, i) => {
              const marks = shared ?? marksOf(cells);
              return (
                <tr key={columns[i]}>
                  <th scope="row">
                    {columnTitle(columns[i]!, fit, naming.title)}
                    {claims.get(columns[i]!)?.map(({ code, href }) => (
                      <Link key={href} className={css.claim} href={href} aria-label={`Hypothesis ${code}`}>
                        {code}
                      </Link>
                    ))}
                  </th>
                  {steps.map((k) => {
                    const cell = cells[k]!;
                    return cell === null ? (
                      <td key={k} colSpan={3} className="quiet" style={{ textAlign: "center" }}>
                        <span aria-hidden="true">·</span>
                        <span className="visually-hidden">not in step {k + 1}</span>
                      </td>
                    ) : (
                      <Cell
                        key={k}
                        shown={cell}
                        step={k}
                        place={`${i} ${k}`}
                        stop={stop === `${i} ${k}`}
                        mark={marks.get(cell)!}
                        onRead={setRead}
                        onStop={keys.setStop}
                      />
                    );
                  })}
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <ReadingLine sentence={reading} />
    </>
  );
}

function Cell(props: {
  shown: Shown;
  step: number;
  place: string;
  stop: boolean;
  mark: ReturnType<typeof layoutIntervals>[number];
  onRead: (place: string | null) => void;
  onStop: (place: string) => void;
}) {
  const { shown, place } = props;
  const { print } = shown;
  return (
    <>
      <td className={css.value} data-testid={`${shown.c.column}@${props.step + 1}`}>
        <button
          type="button"
          className={css.number}
          data-cell={place}
          tabIndex={props.stop ? 0 : -1}
          onMouseEnter={() => props.onRead(place)}
          onFocus={() => {
            props.onRead(place);
            props.onStop(place);
          }}
          onBlur={() => props.onRead(null)}
        >
          {print(shown.estimate)}
        </button>
      </td>
      <td className={css.mark}>
        <IntervalMark mark={props.mark} width={MARK_WIDTH} colour={stepColour(props.step)} />
      </td>
      <td className={css.interval}>{shown.lower === null ? "" : formatInterval(shown.lower, shown.upper, print)}</td>
    </>
  );
}
