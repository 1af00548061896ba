"use client";

import { useState } from "react";
import type { LadderBeside } from "@/study/analyse/analyse-comparison";
import { formatInterval, formatShare } from "@/study/report/format-number";
import { columnTitle } from "@/study/report/ladder/coefficient-words";
import type { Titles } from "@/study/report/level-title";
import { IntervalMark } from "@/ui/charts/IntervalMark";
import { layoutIntervals } from "@/ui/charts/layout-intervals";
import { OneOf } from "@/ui/parts/OneOf";
import page from "@/ui/parts/page.module.css";
import { stepColour } from "@/ui/theme/step-colours";
import { shownOf, type Shown } from "../coefficients/shown";
import css from "../ladders.module.css";

const MARK_WIDTH = 66;

/** The coefficients of each ladder at its step, side by side. */
export function BesideCoefficients({ models, title }: { models: readonly LadderBeside[]; title: Titles }) {
  const [told, setTold] = useState<"beta" | "b" | "partial">("beta");
  const of = models.map((m) => m.fit.steps[m.step]!.coefficients);
  const columns = [...new Set(of.flatMap((all) => all.map((c) => c.column)))];
  const parts = new Map(models.flatMap((m) => [...m.fit.parts]));
  const rows = columns.map((column) =>
    of.map((all): Shown | null => {
      const c = all.find((one) => one.column === column);
      if (!c) return null;
      return told === "partial"
        ? { c, estimate: c.partial, lower: null, upper: null, print: (v) => formatShare(v) }
        : shownOf(c, told, null);
    }),
  );
  const shared = told !== "b" ? marksOf(rows.flat()) : null;
  return (
    <section aria-label="Coefficients side by side" style={{ marginTop: 22 }}>
      <div className={css.bar}>
        <h2 className={page.heading}>Coefficients</h2>
        <OneOf
          label="Figure"
          value={told}
          onChange={setTold}
          options={[
            { value: "beta", label: "β" },
            { value: "b", label: <i>b</i> },
            { value: "partial", label: "partial" },
          ]}
        />
      </div>
      <div className={css.scroll}>
        <table className={css.table} data-testid="coefficients-beside">
          <caption className="visually-hidden">Coefficients side by side, with intervals</caption>
          <thead>
            <tr>
              <td />
              {models.map((m) => (
                <th key={m.name} scope="colgroup" colSpan={3} className={css.wrap} style={{ textAlign: "left", paddingLeft: 16 }}>
                  {m.name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((cells, i) => {
              const marks = shared ?? marksOf(cells);
              return (
                <tr key={columns[i]}>
                  <th scope="row">{columnTitle(columns[i]!, { parts }, title)}</th>
                  {cells.map((cell, k) =>
                    cell === null ? (
                      <td key={models[k]!.name} colSpan={3} className="quiet" style={{ textAlign: "center" }}>
                        <span aria-hidden="true">·</span>
                        <span className="visually-hidden">not in {models[k]!.name}</span>
                      </td>
                    ) : (
                      <BesideCell
                        key={models[k]!.name}
                        cell={cell}
                        mark={marks.get(cell)!}
                        colour={stepColour(k)}
                        id={`${columns[i]!} ${models[k]!.ladder}`}
                      />
                    ),
                  )}
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </section>
  );
}

function marksOf(cells: readonly (Shown | null)[]) {
  const present = cells.filter((c) => c !== null);
  const laid = layoutIntervals(present, MARK_WIDTH);
  return new Map(present.map((cell, i) => [cell, laid[i]!]));
}

function BesideCell({
  cell,
  mark,
  colour,
  id,
}: {
  cell: Shown;
  mark: ReturnType<typeof layoutIntervals>[number];
  colour: string;
  id: string;
}) {
  return (
    <>
      <td className={css.value} data-testid={id}>
        {cell.print(cell.estimate)}
      </td>
      <td className={css.mark}>
        <IntervalMark mark={mark} width={MARK_WIDTH} colour={colour} />
      </td>
      <td className={css.interval}>{formatInterval(cell.lower, cell.upper, cell.print)}</td>
    </>
  );
}
