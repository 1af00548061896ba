"use client";

import { useState } from "react";
import { useStudy } from "@/features/study/study-context";
import type { Groups } from "@/study/model/groups";
import { formatCount, formatInterval, formatNumber, formatP, formatPercent, formatShare } from "@/study/report/format-number";
import { columnTitle } from "@/study/report/ladder/coefficient-words";
import { type Compared, groupsRows, type GroupsBeside, toldDifferences } from "@/study/report/ladder/groups-rows";
import { differsMost, groupName, metricSymbol, printIn } from "@/study/report/ladder/groups-words";
import page from "@/ui/parts/page.module.css";
import { Said } from "@/ui/parts/Said";
import { SettingWord } from "@/ui/parts/SettingWord";
import ladders from "../ladders.module.css";
import css from "./probes.module.css";

interface Shown {
  groups: Groups;
  result: Compared;
  beside: GroupsBeside;
}

/** More groups than this are a table of their own way round. */
const MOST_BESIDE = 6;
const MOST_ROWS = 40;

/** The step in each group: a row a term with its surest difference; of many groups a row a group. */
export function GroupsTable({ groups, result, beside }: Shown) {
  const { title } = useStudy();
  const { metric } = groups;
  const print = printIn(metric);
  const rows = groupsRows(result, metric, beside, title);
  const name = (g: number) => groupName(result.groups[g]!.levels, groups.variable, title);
  const level = 1 - result.confidence;
  const caption = `The same step in each group, ${title(groups.variable)}`;
  const shuffled = beside.shuffled !== null && metric !== "own";
  if (result.groups.length > MOST_BESIDE) {
    return (
      <div className={ladders.scroll} tabIndex={0} role="group" aria-label={`${caption}, can be scrolled`}>
        <table className={ladders.table} data-testid="groups">
          <caption className="visually-hidden">{caption}</caption>
          <thead>
            <tr>
              <th scope="col" style={{ textAlign: "left" }}>
                {title(groups.variable)}
              </th>
              <th scope="col">
                <i>n</i>
              </th>
              {rows.map((row) => (
                <th key={row.column} scope="col">
                  {row.name}
                </th>
              ))}
              <th scope="col">
                <i>R</i>²
              </th>
            </tr>
          </thead>
          <tbody>
            {result.groups.map((group, g) => (
              <tr key={group.name}>
                <th scope="row">{name(g)}</th>
                <td>{formatCount(group.cases)}</td>
                {rows.map((row) => (
                  <td key={row.column}>{print(row.found[g]?.estimate ?? null)}</td>
                ))}
                <td>{formatShare(group.fitted?.R2 ?? null)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    );
  }
  return (
    <div className={ladders.scroll} tabIndex={0} role="group" aria-label={`${caption}, can be scrolled`}>
      <table className={ladders.table} data-testid="groups">
        <caption className="visually-hidden">{caption}</caption>
        <thead>
          <tr>
            <th scope="col" style={{ textAlign: "left" }}>
              <Said>{metricSymbol(metric)}</Said> of
            </th>
            {result.groups.map((group, g) => (
              <th key={group.name} scope="col">
                {name(g)}
              </th>
            ))}
            <th scope="col" style={{ textAlign: "left" }}>
              surest difference
            </th>
            <th scope="col">
              <i>z</i>
            </th>
            <th scope="col">
              <i>p</i> by Holm
            </th>
            {shuffled && (
              <th scope="col">
                <i>p</i> by shuffles
              </th>
            )}
            <th scope="col">{formatPercent(result.confidence)} interval</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ column, name: term, found, largest: d }) => {
            const told = d !== null && d.pHolm !== null && d.pHolm < level;
            return (
              <tr key={column} style={told ? { fontWeight: 600 } : undefined}>
                <th scope="row" style={{ fontWeight: told ? 600 : 400 }}>
                  {term}
                </th>
                {found.map((e, g) => (
                  <td key={g}>{print(e?.estimate ?? null)}</td>
                ))}
                <td style={{ textAlign: "left", whiteSpace: "normal" }}>
                  {d ? `${name(d.first)} − ${name(d.second)}: ${print(d.estimate)}` : "–"}
                </td>
                <td>{formatNumber(d?.z ?? null)}</td>
                <td>{formatP(d?.pHolm ?? null)}</td>
                {shuffled && <td>{formatP(d?.pShuffled ?? null)}</td>}
                <td className={ladders.interval}>{formatInterval(d?.lower ?? null, d?.upper ?? null, print)}</td>
              </tr>
            );
          })}
          <tr style={{ borderTop: "1px solid var(--ink)" }}>
            <th scope="row">
              <i>R</i>²
            </th>
            {result.groups.map((group) => (
              <td key={group.name}>{formatShare(group.fitted?.R2 ?? null)}</td>
            ))}
            <td colSpan={shuffled ? 5 : 4} />
          </tr>
        </tbody>
      </table>
    </div>
  );
}

/** Every difference, the surest first; and for one term as a table of groups by groups. */
export function AllDifferences({ groups, result, beside }: Shown) {
  const { title } = useStudy();
  const [open, setOpen] = useState(false);
  const [chosen, setChosen] = useState<string | null>(null);
  const { metric } = groups;
  const all = toldDifferences(result, metric, beside);
  if (all.length <= result.columns.length) return null; // of two groups each term has one, and it stands in the table
  const print = printIn(metric);
  const level = 1 - result.confidence;
  const name = (g: number) => groupName(result.groups[g]!.levels, groups.variable, title);
  const column = chosen ?? differsMost(groups, result, beside, title) ?? result.columns[0]!.column;
  const own = all.filter((d) => chosen === null || d.column === chosen);
  const shuffled = beside.shuffled !== null && metric !== "own";
  return (
    <>
      <p className={css.foot}>
        <button type="button" className="link" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? "Only the surest difference of each term" : `All ${formatCount(all.length)} differences, the surest first`}
        </button>
      </p>
      {open && (
        <>
          {result.groups.length > 3 && <DifferenceMatrix groups={groups} result={result} all={all} column={column} onColumn={setChosen} />}
          <div
            className={ladders.scroll}
            tabIndex={0}
            role="group"
            aria-label={`Differences between groups of ${title(groups.variable)}, can be scrolled`}
          >
            <table className={ladders.table} data-testid="group-differences">
              <caption className="visually-hidden">Differences between groups, the surest first</caption>
              <thead>
                <tr>
                  <th scope="col" style={{ textAlign: "left" }}>
                    <Said>{metricSymbol(metric)}</Said> of
                  </th>
                  <th scope="col" style={{ textAlign: "left" }}>
                    groups
                  </th>
                  <th scope="col">difference</th>
                  <th scope="col">
                    <i>z</i>
                  </th>
                  <th scope="col">
                    <i>p</i>
                  </th>
                  <th scope="col">
                    <i>p</i> by Holm
                  </th>
                  {shuffled && (
                    <th scope="col">
                      <i>p</i> by shuffles
                    </th>
                  )}
                  <th scope="col">{formatPercent(result.confidence)} interval</th>
                </tr>
              </thead>
              <tbody>
                {own.slice(0, MOST_ROWS).map((d) => (
                  <tr
                    key={`${d.column} ${d.first} ${d.second}`}
                    style={d.pHolm !== null && d.pHolm < level ? { fontWeight: 600 } : undefined}
                  >
                    <th scope="row">{columnTitle(d.column, result, title)}</th>
                    <td style={{ textAlign: "left", whiteSpace: "normal" }}>
                      {name(d.first)} − {name(d.second)}
                    </td>
                    <td>{print(d.estimate)}</td>
                    <td>{formatNumber(d.z)}</td>
                    <td>{formatP(d.p)}</td>
                    <td>{formatP(d.pHolm)}</td>
                    {shuffled && <td>{formatP(d.pShuffled)}</td>}
                    <td className={ladders.interval}>{formatInterval(d.lower, d.upper, print)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          {own.length > MOST_ROWS && (
            <p className={css.foot}>
              The first {MOST_ROWS} of {formatCount(own.length)}; all stand in the CSV.
            </p>
          )}
        </>
      )}
    </>
  );
}

/** One term: groups in the order of their slopes, row minus column, strong where the difference can be told from chance. */
function DifferenceMatrix(props: {
  groups: Groups;
  result: Compared;
  all: ReturnType<typeof toldDifferences>;
  column: string;
  onColumn: (column: string) => void;
}) {
  const { groups, result, column } = props;
  const { title } = useStudy();
  const print = printIn(groups.metric);
  const level = 1 - result.confidence;
  const slopes = result.columns.find((c) => c.column === column)!.found[groups.metric];
  const order = [...slopes.keys()].filter((g) => slopes[g]).sort((a, b) => slopes[b]!.estimate - slopes[a]!.estimate);
  const name = (g: number) => groupName(result.groups[g]!.levels, groups.variable, title);
  const between = (a: number, b: number) => props.all.find((d) => d.column === column && ((d.first === a && d.second === b) || (d.first === b && d.second === a))); // prettier-ignore
  return (
    <>
      <p className={ladders.question}>
        Row minus column, groups in the order of the slope of{" "}
        <SettingWord
          label="Term whose differences are told"
          value={column}
          text={columnTitle(column, result, title)}
          choices={result.columns.map((c) => ({ value: c.column, label: columnTitle(c.column, result, title) }))}
          onChange={props.onColumn}
        />
      </p>
      <div
        className={ladders.scroll}
        tabIndex={0}
        role="group"
        aria-label={`Differences of ${columnTitle(column, result, title)}, can be scrolled`}
      >
        <table className={ladders.table} data-testid="difference-matrix">
          <caption className="visually-hidden">Differences of the slope of {columnTitle(column, result, title)} between groups</caption>
          <thead>
            <tr>
              <td />
              {order.slice(1).map((g, k) => (
                <th key={g} scope="col" aria-label={name(g)} title={name(g)}>
                  {k + 2}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {order.map((a, i) => (
              <tr key={a}>
                <th scope="row" style={{ whiteSpace: "nowrap", fontWeight: 400 }}>
                  {i + 1} {name(a)}
                </th>
                {order.slice(1).map((b, k) => {
                  const d = k >= i ? between(a, b) : undefined;
                  const told = d?.pHolm != null && d.pHolm < level;
                  return (
                    <td key={b} style={{ fontWeight: told ? 600 : 400, color: told ? "var(--ink)" : "var(--quiet)" }}>
                      {d ? print(d.estimate) : ""}
                      {told && <span title="can be told from chance, by Holm">*</span>}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className={css.foot}>Columns by the numbers of the rows. * can be told from chance, by Holm over all differences of the table.</p>
    </>
  );
}

/** Are slopes alike: each group with its own variance, and in the single model with one for all. */
export function AlikeTable({ result, onOpen, why }: { result: Compared; onOpen: (() => void) | null; why: string | null }) {
  const { title } = useStudy();
  const name = title(result.asked.variable);
  return (
    <section aria-label={`Are the slopes alike by ${name}?`} className={css.part}>
      <h4 className={page.heading}>Are the slopes alike in all groups?</h4>
      <div className={ladders.scroll} tabIndex={0} role="group" aria-label={`Tests that slopes are alike by ${name}, can be scrolled`}>
        <table className={ladders.table} data-testid="alike">
          <caption className="visually-hidden">Tests that slopes are alike in all groups</caption>
          <thead>
            <tr>
              <th scope="col" style={{ textAlign: "left" }}>
                slope of
              </th>
              <th scope="col">χ², own variances</th>
              <th scope="col">
                <i>p</i>
              </th>
              <th scope="col">
                <i>F</i>, as one model
              </th>
              <th scope="col">
                <i>p</i>
              </th>
              <th scope="col">
                Δ<i>R</i>²
              </th>
            </tr>
          </thead>
          <tbody>
            {[
              ...result.terms.map(({ term, alike, crossed }) => ({ name: columnTitle(term, result, title), alike, crossed })),
              { name: "all together", alike: result.alike, crossed: result.pooled },
            ].map(({ name: of, alike, crossed }, i, rows) => (
              <tr key={of} style={i === rows.length - 1 ? { borderTop: "1px solid var(--ink)" } : undefined}>
                <th scope="row">{of}</th>
                <td>{alike.chi2 === null ? "–" : `${formatNumber(alike.chi2)} (${alike.df})`}</td>
                <td>{formatP(alike.p)}</td>
                <td>{crossed?.F == null ? "–" : `${formatNumber(crossed.F)} (${crossed.df[0]}, ${crossed.df[1]})`}</td>
                <td>{formatP(crossed?.p ?? null)}</td>
                <td>{formatShare(crossed?.dR2 ?? null, 3)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className={css.foot}>
        As one model: its products with the groups. Same slopes; one residual variance for all groups, therefore other errors and tests.{" "}
        {onOpen ? (
          <button type="button" className="link" onClick={onOpen}>
            Open as a ladder
          </button>
        ) : (
          why
        )}
      </p>
    </section>
  );
}
