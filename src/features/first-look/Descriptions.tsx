"use client";

import { useEffect, useState } from "react";
import { useStudy } from "@/features/study/study-context";
import { useAsked } from "@/features/study/use-computed";
import type { LookColumn, LookPart } from "@/study/analyse/analyse-look";
import { formatCount, formatInterval, formatMean, formatNumber, formatPercent, formatValue } from "@/study/report/format-number";
import { levelTitle } from "@/study/report/level-title";
import { columnName, type Looked } from "@/study/report/look-words";
import { ChartFrame } from "@/ui/charts/ChartFrame";
import { ShareBars } from "@/ui/charts/ShareBars";
import { ShapeChart } from "@/ui/charts/ShapeChart";
import page from "@/ui/parts/page.module.css";
import css from "./first-look.module.css";
import { useMarked } from "./marked";

/** More rows than this are told only when asked for; more groups than this have no pictures of their own. */
const [MOST_ROWS, MOST_PARTS] = [240, 7];

/** How every variable lies: numbers with the interval of the mean, and a picture each; groups on the same axis. */
export function Descriptions({ found, by, respondents }: { found: Looked; by: string | null; respondents: string | null }) {
  const { title } = useStudy();
  const [each, setEach] = useState(false);
  const all: { name: string; part: LookPart }[] = [
    { name: "all respondents", part: found },
    ...found.groups.map((group) => ({ name: levelTitle(title, by!, group.level), part: group })),
  ];
  const many = all.length * found.columns.length > MOST_ROWS;
  const parts = many && !each ? all.slice(0, 1) : all;
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
              {parts.length > 1 && <th scope="col">who</th>}
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
                    {parts.length > 1 && <td>{name}</td>}
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
      {many && (
        <button type="button" className="link" aria-expanded={each} onClick={() => setEach(!each)}>
          {each ? "Only of all respondents" : `Of each of the ${found.groups.length} groups too`}
        </button>
      )}
      <Shapes found={found} parts={all.length > MOST_PARTS ? all.slice(0, 1) : all} respondents={respondents} />
      {all.length > MOST_PARTS && (
        <p className={css.foot}>Pictures are of all respondents: {found.groups.length} groups on one axis could not be read.</p>
      )}
    </section>
  );
}

const FIRST = 12;

function Shapes({ found, parts, respondents }: { found: Looked; parts: { name: string; part: LookPart }[]; respondents: string | null }) {
  const [all, setAll] = useState(false);
  const marked = useMarked();
  const numbers = found.columns.flatMap((c) => (c.level === null ? [c.variable] : []));
  const [asked, setAsked] = useState<{ variable: string; from: number; to: number } | null>(null);
  // the numbers themselves are wanted only where somebody marks
  const wanted = asked !== null || marked.rows.size > 0;
  const { result } = useAsked("points", { names: numbers, respondents }, { subject: `shapes ${numbers.join(" ")}`, enabled: wanted });
  const values = asked && result?.columns.get(asked.variable);
  useEffect(() => {
    if (!asked || !values) return;
    const rows = [...values.keys()].filter((i) => values[i]! >= asked.from && values[i]! < asked.to).map((i) => result!.rows[i]!);
    queueMicrotask(() => {
      marked.mark(rows, false);
      setAsked(null);
    });
  }, [asked, values, result, marked]);
  const shown = found.columns.filter((c) => c.level === null);
  const drawn = all ? shown : shown.slice(0, FIRST);
  const at = (key: string) => found.columns.findIndex((c) => c.key === key);
  const markedOf = (variable: string) => {
    const own = marked.rows.size > 0 ? result?.columns.get(variable) : undefined;
    return own ? [...own.keys()].flatMap((i) => (marked.rows.has(result!.rows[i]!) && !Number.isNaN(own[i]!) ? [own[i]!] : [])) : [];
  };
  return (
    <>
      <div className={css.shapes}>
        {drawn.map((c) => (
          <ShapeOf
            key={c.key}
            column={c}
            each={parts.map(({ name, part }) => ({ name, column: part.columns[at(c.key)]! }))}
            marked={markedOf(c.variable)}
            onBar={(from, to) => setAsked({ variable: c.variable, from, to })}
          />
        ))}
        {found.categories.map((category, k) => (
          <LevelsOf
            key={category.variable}
            each={parts.map(({ name, part }) => ({ name, levels: part.categories[k]!.levels }))}
            variable={category.variable}
          />
        ))}
      </div>
      {shown.length > FIRST && (
        <button type="button" className="link" aria-expanded={all} onClick={() => setAll(!all)}>
          {all ? `Only the first ${FIRST} pictures` : `All ${shown.length} pictures`}
        </button>
      )}
    </>
  );
}

/** One variable's picture, one a group on the same axis. A bar that is pressed marks its respondents. */
function ShapeOf(props: {
  column: LookColumn;
  each: { name: string; column: LookColumn }[];
  marked: readonly number[];
  onBar: (from: number, to: number) => void;
}) {
  const { column, marked, onBar } = props;
  const { title } = useStudy();
  const name = columnName(column, title);
  const drawn = props.each.flatMap(({ name: who, column: own }) =>
    own.shape && own.description.n > 0 ? [{ who, own, shape: own.shape }] : [],
  );
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
      table={<BarTable drawn={drawn} name={name} onMark={onBar} />}
    >
      <div>
        {drawn.map(({ who, shape }, i) => (
          <div key={who}>
            {drawn.length > 1 && <small className="quiet">{who}</small>}
            <ShapeChart
              shape={shape}
              name={`${name}, ${who}`}
              width={300}
              height={drawn.length > 1 ? 80 : 120}
              format={formatValue}
              wide
              marked={i === 0 ? marked : []}
              onBar={onBar}
            />
          </div>
        ))}
      </div>
    </ChartFrame>
  );
}

/** A category's levels as bars, one row a level. */
function LevelsOf({ variable, each }: { variable: string; each: { name: string; levels: readonly { level: string; count: number }[] }[] }) {
  const { title } = useStudy();
  const name = title(variable);
  const rows = each[0]!.levels.map(({ level }) => ({
    name: levelTitle(title, variable, level),
    marks: each.map(({ name: who, levels }) => {
      const total = levels.reduce((sum, l) => sum + l.count, 0);
      return {
        series: each.length === 1 ? "" : who,
        share: total === 0 ? 0 : (levels.find((l) => l.level === level)?.count ?? 0) / total,
        count: levels.find((l) => l.level === level)?.count ?? 0,
      };
    }),
  }));
  return (
    <ChartFrame
      title={name}
      note={each.length === 1 ? "respondents of each level" : "share of each level, by group"}
      table={
        <table className={css.table}>
          <caption className="visually-hidden">{name}</caption>
          <thead>
            <tr>
              <th scope="col">level</th>
              {each.map(({ name: who }) => (
                <th key={who} scope="col">
                  {who}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.name}>
                <th scope="row">{row.name}</th>
                {row.marks.map((m) => (
                  <td key={m.series}>
                    {formatCount(m.count)} ({formatPercent(m.share)})
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      }
    >
      <ShareBars rows={rows} name={name} />
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
  onMark: (from: number, to: number) => void;
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
          <th scope="col">mark</th>
        </tr>
      </thead>
      <tbody>
        {bars.map((bar, i) => (
          <tr key={bar.name}>
            <th scope="row">{bar.name}</th>
            {drawn.map(({ who, shape: own }) => (
              <td key={who}>{formatCount(count(own, i))}</td>
            ))}
            <td>
              <button type="button" className="link" aria-label={`Mark ${name} ${bar.name}`} onClick={() => onMark(bar.from, bar.to)}>
                mark
              </button>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
