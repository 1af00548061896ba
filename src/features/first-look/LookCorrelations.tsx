"use client";

import { useState } from "react";
import { useStudy } from "@/features/study/study-context";
import { correlationDifference } from "@/core/describe/correlation-tests";
import type { LookPart, LookTable } from "@/study/analyse/analyse-look";
import type { Points } from "@/study/analyse/points-analysis";
import type { Look } from "@/study/model/look";
import { formatCount, formatMean, formatNumber, formatP, formatShare, formatValue } from "@/study/report/format-number";
import { levelTitle } from "@/study/report/level-title";
import { aboveWords, cellWords, tablesOf } from "@/study/report/look-table";
import { columnName, type Looked } from "@/study/report/look-words";
import { ShapeChart } from "@/ui/charts/ShapeChart";
import { correlationGround } from "@/ui/parts/correlation-ground";
import page from "@/ui/parts/page.module.css";
import { SettingWord } from "@/ui/parts/SettingWord";
import css from "./first-look.module.css";
import { PairCard } from "./PairCard";

interface Place {
  look: Look;
  found: Looked;
  /** Numbers of the respondents; null: still on their way. */
  points: Points | null;
  onOpen: (x: string, y: string) => void;
}

/** The table that goes into the paper, and for groups the same of each, with the difference of two correlations tested. */
export function LookCorrelations(props: Place) {
  const { look, found } = props;
  const { title } = useStudy();
  const { below, above, aboveControls } = tablesOf(look, found);
  const who = look.below === null ? "all respondents" : levelTitle(title, look.by ?? "", look.below);
  return (
    <>
      <OneTable {...props} part={below} above={above} controls={aboveControls} caption={`${look.name}, ${who}`} testId="look-table" />
      <p className={css.foot}>
        {who}, n = {formatCount(below.rows)}
        {above && `; ${aboveWords(look, title)} above the diagonal`}
        {found.columns.some((c) => c.zeroOne) &&
          found.columns.some((c) => !c.zeroOne) &&
          "; with a 0/1 (a level counts 1, the others 0) r is point-biserial"}
        {look.told === "stars" && (
          <>
            ; * <i>p</i> &lt; .05, ** <i>p</i> &lt; .01, *** <i>p</i> &lt; .001
          </>
        )}
        .
      </p>
      {look.below === null && found.groups.length > 0 && <GroupTables {...props} />}
      {found.groups.length > 1 && <Differences look={look} found={found} />}
    </>
  );
}

/** More correlations than this are told of one level at a time. */
const MOST_CELLS = 1500;

/** The same table for each level, one below the other or, where that would be too much, the one that is chosen. */
function GroupTables(props: Place) {
  const { look, found } = props;
  const { title } = useStudy();
  const [chosen, setChosen] = useState<string | null>(null);
  const k = found.columns.length;
  const many = (found.groups.length * k * (k - 1)) / 2 > MOST_CELLS;
  const one = found.groups.find((g) => g.level === chosen) ?? found.groups[0]!;
  return (
    <>
      {many && (
        <p className={css.question}>
          The same for{" "}
          <SettingWord
            label="Level whose table is shown"
            value={one.level}
            text={title(look.by!, one.level)}
            choices={found.groups.map((g) => ({ value: g.level, label: title(look.by!, g.level) }))}
            onChange={setChosen}
          />
        </p>
      )}
      {(many ? [one] : found.groups).map((group) => (
        <section key={group.level} className={css.part} aria-label={title(look.by!, group.level)}>
          <h2 className={page.heading}>
            {title(look.by!, group.level)} <span className="quiet">n = {formatCount(group.rows)}</span>
          </h2>
          <OneTable
            {...props}
            part={group}
            above={null}
            controls={0}
            caption={`${look.name}, ${title(look.by!, group.level)}`}
            testId={`look-table ${group.level}`}
          />
        </section>
      ))}
    </>
  );
}

interface Shown extends Place {
  part: LookPart;
  above: LookTable | null;
  controls: number;
  caption: string;
  testId: string;
}

function OneTable({ look, part, above, controls, caption, testId, points, onOpen }: Shown) {
  const { title } = useStudy();
  const [at, setAt] = useState<{ i: number; j: number } | null>(null);
  const { columns } = part;
  const k = columns.length;
  const unequal = look.cases === "pairwise" && new Set(part.table.n).size > 1;
  const shown = at && { x: columns[at.j]!, y: columns[at.i]! };
  return (
    <div className={css.tablePlace} onMouseLeave={() => setAt(null)}>
      <div className={css.scroll} tabIndex={0} role="group" aria-label={`${caption}, can be scrolled`}>
        <table className={css.table} data-testid={testId}>
          <caption className="visually-hidden">{caption}</caption>
          <thead>
            <tr>
              <th scope="col" className={css.name}>
                variable
              </th>
              <th scope="col">
                <i>n</i>
              </th>
              <th scope="col">
                <i>M</i>
              </th>
              <th scope="col">
                <i>SD</i>
              </th>
              <th scope="col">range</th>
              {columns.map((c, j) => (
                <th key={c.key} scope="col" aria-label={columnName(c, title)} title={columnName(c, title)}>
                  {j + 1}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {columns.map((c, i) => {
              const d = c.description;
              const reliability = look.diagonal === "nothing" ? null : c[look.diagonal];
              return (
                <tr key={c.key}>
                  <th scope="row" className={css.name}>
                    <span className={css.shape}>
                      {c.shape && (
                        <ShapeChart shape={c.shape} name={columnName(c, title)} width={34} height={16} format={formatValue} wide={false} />
                      )}
                    </span>
                    {i + 1} {columnName(c, title)}
                  </th>
                  <td title={c.missing > 0 ? `${formatCount(c.missing)} missing` : undefined}>
                    {formatCount(d.n)}
                    {c.missing > 0 && <small> ({formatCount(c.missing)})</small>}
                  </td>
                  <td>{formatMean(d.mean, d.sd)}</td>
                  <td>{formatNumber(d.sd)}</td>
                  <td className={css.range}>
                    <span>{d.min === null ? "–" : `${formatValue(d.min)}–${formatValue(d.max)}`}</span>
                    {c.possible && (
                      <small>
                        {" "}
                        of {formatValue(c.possible.low)}–{formatValue(c.possible.high)}
                      </small>
                    )}
                  </td>
                  {columns.map((other, j) => {
                    if (i === j)
                      return (
                        <td key={other.key} className={css.own}>
                          {reliability === null ? "–" : `(${formatShare(reliability)})`}
                        </td>
                      );
                    const cell = j < i ? cellWords(part.table, i, j, look.told) : cellWords(above, i, j, look.told, controls);
                    if (!cell) return <td key={other.key}>{j < i ? "–" : ""}</td>;
                    const numbers = c.level === null && other.level === null;
                    const name = `${columnName(c, title)} with ${columnName(other, title)}: ${cell.r}${cell.more === "" ? "" : `, ${cell.more}`}, n = ${cell.n}`;
                    return (
                      <td key={other.key} className={css.pair}>
                        <button
                          type="button"
                          className={css.cell}
                          style={{ background: correlationGround(cell.value) }}
                          aria-label={name}
                          title={`n = ${cell.n}${cell.p === null ? "" : `, p ${cell.p < 0.001 ? "< .001" : `= ${formatP(cell.p)}`}`}`}
                          onMouseEnter={() => numbers && setAt({ i, j })}
                          onFocus={() => numbers && setAt({ i, j })}
                          onBlur={() => setAt(null)}
                          onClick={() => numbers && onOpen(other.variable, c.variable)}
                        >
                          {cell.r}
                          {cell.more !== "" &&
                            (look.told === "stars" ? <sup>{cell.more}</sup> : <small className={css.more}>{cell.more}</small>)}
                          {unequal && <small className={css.more}>{cell.n}</small>}
                        </button>
                      </td>
                    );
                  })}
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      {shown && (
        <div className={css.card} style={{ top: 34 + Math.min(at.i + 1, k) * 26 }}>
          <PairCard x={shown.x.variable} y={shown.y.variable} points={points} />
        </div>
      )}
    </div>
  );
}

const MOST_DIFFERENCES = 30;

/** The same correlation in two levels: the difference on Fisher's z, the surest first. */
function Differences({ look, found }: { look: Look; found: Looked }) {
  const { title } = useStudy();
  const [chosen, setChosen] = useState<readonly [string, string] | null>(null);
  const levels = found.groups.map((g) => g.level);
  const pair = chosen && chosen.every((level) => levels.includes(level)) ? chosen : ([levels[0]!, levels[1]!] as const);
  const [a, b] = pair.map((level) => found.groups.find((g) => g.level === level)!);
  const name = (level: string) => levelTitle(title, look.by!, level);
  const k = found.columns.length;
  const rows = found.columns.flatMap((c, i) =>
    found.columns.slice(0, i).flatMap((other, j) => {
      const at = i * k + j;
      const d = correlationDifference({ n: a!.table.n[at]!, r: a!.table.r[at]! }, { n: b!.table.n[at]!, r: b!.table.r[at]! });
      return d ? [{ names: `${columnName(other, title)} with ${columnName(c, title)}`, d }] : [];
    }),
  );
  const shown = rows.toSorted((one, two) => one.d.p - two.d.p).slice(0, MOST_DIFFERENCES);
  const word = (at: 0 | 1) => (
    <SettingWord
      label={at === 0 ? "One group" : "The other group"}
      value={pair[at]}
      text={name(pair[at])}
      choices={levels.filter((level) => level !== pair[1 - at]).map((level) => ({ value: level, label: name(level) }))}
      onChange={(level) => setChosen(at === 0 ? [level, pair[1]] : [pair[0], level])}
    />
  );
  return (
    <section className={css.part} aria-label="Differences of correlations">
      <p className={css.question}>
        Do correlations differ between {word(0)} and {word(1)} of {title(look.by!)}?
      </p>
      <div className={css.scroll}>
        <table className={css.table} data-testid="correlation-differences">
          <caption className="visually-hidden">Differences of correlations, Fisher&rsquo;s z</caption>
          <thead>
            <tr>
              <th scope="col" className={css.name}>
                correlation of
              </th>
              <th scope="col">{name(pair[0])}</th>
              <th scope="col">{name(pair[1])}</th>
              <th scope="col">difference of Fisher&rsquo;s z</th>
              <th scope="col">
                <i>z</i>
              </th>
              <th scope="col">
                <i>p</i>
              </th>
            </tr>
          </thead>
          <tbody>
            {shown.map(({ names, d }) => (
              <tr key={names}>
                <th scope="row" className={css.name}>
                  {names}
                </th>
                <td>{formatShare(d.first.r)}</td>
                <td>{formatShare(d.second.r)}</td>
                <td>{formatShare(d.difference)}</td>
                <td>{formatNumber(d.z)}</td>
                <td>{formatP(d.p)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {rows.length > shown.length && (
        <p className={css.foot}>
          The {shown.length} surest of {formatCount(rows.length)}; the compute command writes all. No p is adjusted for how many there are.
        </p>
      )}
      {rows.length === shown.length && <p className={css.foot}>No p is adjusted for how many there are.</p>}
    </section>
  );
}
