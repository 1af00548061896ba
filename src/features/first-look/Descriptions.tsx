"use client";

import { useState } from "react";
import { useStudy } from "@/features/study/study-context";
import { useAsked } from "@/features/study/use-computed";
import type { LookColumn, LookPart } from "@/study/analyse/analyse-look";
import { formatCount, formatInterval, formatMean, formatNumber, formatPercent, formatValue } from "@/study/report/format-number";
import { levelTitle } from "@/study/report/level-title";
import { columnName, type Looked } from "@/study/report/look-words";
import { ChartFrame } from "@/ui/charts/ChartFrame";
import { ShapeChart } from "@/ui/charts/ShapeChart";
import page from "@/ui/parts/page.module.css";
import css from "./first-look.module.css";
import { useMarked } from "./marked";

/** How every variable lies: numbers with the interval of the mean, and a picture each; groups on the same axis. */
export function Descriptions({ found, by, respondents }: { found: Looked; by: string | null; respondents: string | null }) {
  const { title } = useStudy();
  const parts: { name: string; part: LookPart }[] = [
    { name: "all respondents", part: found },
    ...found.groups.map((group) => ({ name: levelTitle(title, by!, group.level), part: group })),
  ];
  return (
    <section className={css.part} aria-label="Descriptions">
      <h2 className={page.heading}>How each lies</h2>
      <div className={css.scroll} tabIndex={0} role="group" aria-label="Descriptions, can be scrolled">
        <table className={css.table} data-testid="descriptions">
          <caption className="visually-hidden">Descriptions</caption>
          <thead>
            <tr>
              <th scope="col" className={css.name}>
                variable
              </th>
              {found.groups.length > 0 && <th scope="col">who</th>}
              <th scope="col">
                <i>n</i>
              </th>
              <th scope="col">missing</th>
              <th scope="col">
                <i>M</i>
              </th>
              <th scope="col">{formatPercent(found.confidence)} interval</th>
              <th scope="col">
                <i>SD</i>
              </th>
              <th scope="col">
                <i>SE</i>
              </th>
              <th scope="col">median</th>
              <th scope="col">quartiles</th>
              <th scope="col">skewness</th>
              <th scope="col">kurtosis</th>
            </tr>
          </thead>
          <tbody>
            {found.columns.flatMap((c, i) =>
              parts.map(({ name, part }, p) => {
                const { description: d, interval, missing } = part.columns[i]!;
                const print = (v: number | null) => formatMean(v, d.sd);
                return (
                  <tr key={`${c.key} ${name}`}>
                    {p === 0 && (
                      <th scope="row" rowSpan={parts.length} className={css.name}>
                        {columnName(c, title)}
                      </th>
                    )}
                    {found.groups.length > 0 && <td>{name}</td>}
                    <td>{formatCount(d.n)}</td>
                    <td>{formatCount(missing)}</td>
                    <td>{print(d.mean)}</td>
                    <td>{formatInterval(interval?.lower ?? null, interval?.upper ?? null, print)}</td>
                    <td>{formatNumber(d.sd)}</td>
                    <td>{formatNumber(d.se)}</td>
                    <td>{formatValue(d.median)}</td>
                    <td>{d.q1 === null ? "–" : `${formatValue(d.q1)}, ${formatValue(d.q3)}`}</td>
                    <td>{formatNumber(d.skewness)}</td>
                    <td>{formatNumber(d.kurtosis)}</td>
                  </tr>
                );
              }),
            )}
          </tbody>
        </table>
      </div>
      <Shapes found={found} parts={parts} respondents={respondents} />
    </section>
  );
}

const FIRST = 12;

function Shapes({ found, parts, respondents }: { found: Looked; parts: { name: string; part: LookPart }[]; respondents: string | null }) {
  const [all, setAll] = useState(false);
  const shown = all ? found.columns : found.columns.slice(0, FIRST);
  return (
    <>
      <div className={css.shapes}>
        {shown.map((c, i) => (
          <ShapeOf
            key={c.key}
            column={c}
            each={parts.map(({ name, part }) => ({ name, column: part.columns[i]! }))}
            respondents={respondents}
          />
        ))}
      </div>
      {found.columns.length > FIRST && (
        <button type="button" className="link" aria-expanded={all} onClick={() => setAll(!all)}>
          {all ? `Only the first ${FIRST} pictures` : `All ${found.columns.length} pictures`}
        </button>
      )}
    </>
  );
}

/** One variable's picture, one a group on the same axis. A bar that is pressed marks its respondents. */
function ShapeOf({
  column,
  each,
  respondents,
}: {
  column: LookColumn;
  each: { name: string; column: LookColumn }[];
  respondents: string | null;
}) {
  const { title } = useStudy();
  const marked = useMarked();
  const [asked, setAsked] = useState<{ from: number; to: number } | null>(null);
  const { result } = useAsked(
    "points",
    { names: [column.variable], respondents },
    { subject: `bar ${column.variable}`, enabled: asked !== null },
  );
  const values = result?.columns.get(column.variable);
  if (asked && values) {
    // what was pressed before its numbers were there is marked now
    queueMicrotask(() => {
      marked.mark(
        [...values.keys()].filter((i) => values[i]! >= asked.from && values[i]! < asked.to).map((i) => result!.rows[i]!),
        false,
      );
      setAsked(null);
    });
  }
  const name = columnName(column, title);
  const drawn = each.flatMap(({ name: who, column: own }) => (own.shape && own.description.n > 0 ? [{ who, own, shape: own.shape }] : []));
  if (drawn.length === 0) return null;
  return (
    <ChartFrame
      title={name}
      note={
        drawn.length === 1
          ? `n = ${formatCount(drawn[0]!.own.description.n)}`
          : drawn.map(({ who, own }) => `${who} ${formatCount(own.description.n)}`).join(", ")
      }
      saved={<ShapeChart shape={drawn[0]!.shape} name={name} width={300} height={120} format={formatValue} wide />}
      table={<BarTable drawn={drawn} name={name} onMark={column.level === null ? setAsked : null} />}
    >
      <div>
        {drawn.map(({ who, shape }) => (
          <div key={who}>
            {drawn.length > 1 && <small className="quiet">{who}</small>}
            <ShapeChart shape={shape} name={`${name}, ${who}`} width={300} height={drawn.length > 1 ? 80 : 120} format={formatValue} wide />
          </div>
        ))}
      </div>
    </ChartFrame>
  );
}

/** Bars as rows, each with a way to mark its respondents. */
function BarTable({
  drawn,
  name,
  onMark,
}: {
  drawn: { who: string; shape: NonNullable<LookColumn["shape"]> }[];
  name: string;
  onMark: ((bar: { from: number; to: number }) => void) | null;
}) {
  const { shape } = drawn[0]!;
  const bars =
    shape.kind === "values"
      ? shape.values.map(({ value }) => ({ name: formatValue(value), from: value, to: value + 1e-9 }))
      : shape.histogram.counts.map((_, i) => ({
          name: `${formatValue(shape.histogram.edges[i]!)} to ${formatValue(shape.histogram.edges[i + 1]!)}`,
          from: shape.histogram.edges[i]!,
          to: shape.histogram.edges[i + 1]!,
        }));
  const count = (of: typeof shape, i: number) => (of.kind === "values" ? of.values[i]!.count : of.histogram.counts[i]!);
  return (
    <table className={css.table}>
      <caption className="visually-hidden">{name}</caption>
      <thead>
        <tr>
          <th scope="col">value</th>
          {drawn.map(({ who }) => (
            <th key={who} scope="col">
              {who}
            </th>
          ))}
          {onMark && <th scope="col">mark</th>}
        </tr>
      </thead>
      <tbody>
        {bars.map((bar, i) => (
          <tr key={bar.name}>
            <th scope="row">{bar.name}</th>
            {drawn.map(({ who, shape: own }) => (
              <td key={who}>{formatCount(count(own, i))}</td>
            ))}
            {onMark && (
              <td>
                <button type="button" className="link" aria-label={`Mark ${name} ${bar.name}`} onClick={() => onMark(bar)}>
                  mark
                </button>
              </td>
            )}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
