"use client";

import { type ReactElement, useState } from "react";
import { useStudy } from "@/features/study/study-context";
import type { LookColumn, LookPart, Shape } from "@/study/analyse/analyse-look";
import type { Points } from "@/study/analyse/points-analysis";
import { formatCount, formatInterval, formatMean, formatNumber, formatPercent, formatValue } from "@/study/report/format-number";
import { levelTitle } from "@/study/report/level-title";
import { columnName, type Looked } from "@/study/report/look-words";
import { type Bar, barsOf, isIn } from "@/ui/charts/bars";
import { ChartFrame } from "@/ui/charts/ChartFrame";
import { ShareBars } from "@/ui/charts/ShareBars";
import { ShapeChart } from "@/ui/charts/ShapeChart";
import page from "@/ui/parts/page.module.css";
import css from "./first-look.module.css";
import { useMarked } from "./marked";

/** More rows than this are told only when asked for; more groups than this have no pictures of their own. */
const [MOST_ROWS, MOST_PARTS] = [240, 7];

/** How every variable lies: numbers with the interval of the mean, and a picture each; groups on the same axis. */
export function Descriptions({ found, by, points }: { found: Looked; by: string | null; points: Points | null }) {
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
      <Shapes found={found} parts={all.length > MOST_PARTS ? all.slice(0, 1) : all} points={points} />
      {all.length > MOST_PARTS && (
        <p className={css.foot}>Pictures are of all respondents: {found.groups.length} groups on one axis could not be read.</p>
      )}
    </section>
  );
}

const FIRST = 12;

function Shapes({ found, parts, points }: { found: Looked; parts: { name: string; part: LookPart }[]; points: Points | null }) {
  const [all, setAll] = useState(false);
  const marked = useMarked();
  const mark =
    points &&
    ((variable: string, bar: Bar) => {
      const values = points.columns.get(variable) ?? [];
      marked.mark(points.rows.filter((_, i) => isIn(bar, values[i]!)), false); // prettier-ignore
    });
  const shown = found.columns.filter((c) => c.level === null);
  const drawn = all ? shown : shown.slice(0, FIRST);
  const at = (key: string) => found.columns.findIndex((c) => c.key === key);
  const markedOf = (variable: string) => {
    const own = marked.rows.size > 0 ? points?.columns.get(variable) : undefined;
    return own ? [...own].filter((v, i) => marked.rows.has(points!.rows[i]!) && !Number.isNaN(v)) : [];
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
            onBar={mark ? (bar) => mark(c.variable, bar) : undefined}
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
  /** Undefined: the respondents are not here yet. */
  onBar: ((pressed: Bar) => void) | undefined;
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
      saved={<AllShapes drawn={drawn} name={name} />}
      table={<BarTable drawn={drawn} name={name} onMark={onBar} />}
    >
      <div>
        {drawn.map(({ who, shape }, i) => (
          <div key={who}>
            {drawn.length > 1 && <small className="quiet">{who}</small>}
            <ShapeChart
              shape={shape}
              name={`${name}, ${who}`}
              width={WIDTH}
              height={drawn.length > 1 ? 80 : HEIGHT}
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

const [WIDTH, HEIGHT, NAME] = [300, 120, 18];

/** The pictures of all groups as one drawing, to be saved. */
function AllShapes({ drawn, name }: { drawn: { who: string; shape: Shape }[]; name: string }): ReactElement {
  const one = (shape: Shape, who: string) => <ShapeChart shape={shape} name={`${name}, ${who}`} width={WIDTH} height={HEIGHT} format={formatValue} wide />; // prettier-ignore
  if (drawn.length === 1) return one(drawn[0]!.shape, drawn[0]!.who);
  const height = drawn.length * (NAME + HEIGHT);
  return (
    <svg viewBox={`0 0 ${WIDTH} ${height}`} width={WIDTH} height={height} fontFamily="var(--sans)" fontSize={11}>
      {drawn.map(({ who, shape }, i) => (
        <svg key={who} y={i * (NAME + HEIGHT)} width={WIDTH} height={NAME + HEIGHT}>
          <text x={8} y={12} fill="var(--ink)">
            {who}
          </text>
          <svg y={NAME} width={WIDTH} height={HEIGHT}>
            {one(shape, who)}
          </svg>
        </svg>
      ))}
    </svg>
  );
}

/** Bars as rows, each with a way to mark its respondents. */
function BarTable(props: { drawn: { who: string; shape: Shape }[]; name: string; onMark: ((pressed: Bar) => void) | undefined }) {
  const { drawn, name, onMark } = props;
  const bars = drawn.map(({ shape }) => barsOf(shape)); // of every group the same, but for their counts
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
        {bars[0]!.map((bar, i) => (
          <tr key={bar.from}>
            <th scope="row">{bar.name(formatValue)}</th>
            {bars.map((own, k) => (
              <td key={drawn[k]!.who}>{formatCount(own[i]!.count)}</td>
            ))}
            <td>
              <button
                type="button"
                className="link"
                disabled={!onMark}
                aria-label={`Mark ${name} ${bar.name(formatValue)}`}
                onClick={() => onMark?.(bar)}
              >
                mark
              </button>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
