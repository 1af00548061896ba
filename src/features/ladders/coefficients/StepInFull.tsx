"use client";

import { Said } from "@/ui/parts/Said";
import { type ReactNode, useState } from "react";
import { useRemembered } from "@/features/study/use-remembered";
import type { TermInflation } from "@/core/diagnostics/collinearity";
import type { Coefficient, Estimate } from "@/core/regression/coefficients";
import type { LadderFit } from "@/core/regression/ladder";
import type { TermTest } from "@/core/regression/term-tests";
import { decimalsFor, fStatement, formatInterval, formatNumber, formatP, formatShare } from "@/study/report/format-number";
import { coefficientSentence, columnTitle, type Naming, type Told } from "@/study/report/ladder/coefficient-words";
import type { Titles } from "@/study/report/level-title";
import css from "../ladders.module.css";
import { COLUMN_WORDS, FIRST_COLUMNS, FULL_COLUMNS, type FullColumn, readColumns } from "./full-columns";
import { ReadingLine } from "./ReadingLine";
import { useCellKeys } from "./use-cell-keys";

/** Everything about the coefficients of one step, a term's columns together under their joint test. */
export function StepInFull({
  fit,
  step,
  inflations,
  percent,
  naming,
  told,
}: {
  fit: LadderFit;
  step: number;
  inflations: readonly TermInflation[];
  percent: string;
  naming: Naming;
  told: Told;
}) {
  const [columns, setColumns] = useRemembered("columns of a step", readColumns, FIRST_COLUMNS);
  const [read, setRead] = useState<string | null>(null);
  const { intercept, coefficients, model, clusters, terms } = fit.steps[step]!;
  const keys = useCellKeys("0 0");
  const shown = FULL_COLUMNS.filter((column) => columns.includes(column));
  const toggle = (column: FullColumn) => setColumns(columns.includes(column) ? columns.filter((c) => c !== column) : [...columns, column]);
  const groups = terms.map((test) => ({ test, own: coefficients.filter((c) => c.term === test.term) })).filter(({ own }) => own.length > 0);
  const stop = Math.min(Number(keys.stop.split(" ")[0]), coefficients.length - 1);
  const pointed = coefficients.find((c) => c.column === read);
  const head: Record<FullColumn, ReactNode> = {
    SE: <i>SE</i>,
    interval: `${percent} interval`,
    beta: "β",
    t: (
      <>
        <i>t</i>({clusters === null ? model.dfResidual : clusters - 1})
      </>
    ),
    p: <i>p</i>,
    r: <i>r</i>,
    partial: "partial",
    part: "part",
    part2: "part²",
    tolerance: "tol.",
    VIF: "VIF",
  };
  return (
    <>
      <div className={css.columns} role="group" aria-label="Columns">
        Columns:{" "}
        {FULL_COLUMNS.map((column) => (
          <button key={column} type="button" aria-pressed={columns.includes(column)} onClick={() => toggle(column)}>
            {COLUMN_WORDS[column]}
          </button>
        ))}
      </div>
      <div className={css.scroll} onKeyDown={keys.onKeyDown} onMouseLeave={() => setRead(null)}>
        <table className={`${css.table} ${css.full}`} data-testid="in-full">
          <caption className="visually-hidden">Coefficients of step {step + 1}</caption>
          <thead>
            <tr>
              <th scope="col" style={{ textAlign: "left" }}>
                Term
              </th>
              <th scope="col">
                <i>b</i>
              </th>
              {shown.map((column) => (
                <th key={column} scope="col" className={column === "interval" ? css.left : undefined}>
                  {head[column]}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            <tr>
              <th scope="row">Intercept</th>
              <td>{formatNumber(intercept.estimate, decimalsFor(intercept.se))}</td>
              {shown.map((column) => (
                <td key={column} className={column === "interval" ? css.interval : undefined}>
                  {rawCell(column, intercept)}
                </td>
              ))}
            </tr>
          </tbody>
          {groups.map(({ test, own }) => (
            <tbody key={test.term}>
              {own.length > 1 && (
                <JointRow
                  test={test}
                  fit={fit}
                  width={shown.length + 2}
                  title={naming.title}
                  inflation={inflations.find((i) => i.term === test.term)}
                />
              )}
              {own.map((c) => {
                const at = coefficients.indexOf(c);
                return (
                  <tr key={c.column} data-testid={`full ${c.column}`} onMouseEnter={() => setRead(c.column)}>
                    <th scope="row" className={own.length > 1 ? css.under : undefined}>
                      {columnTitle(c.column, fit, naming.title, own.length > 1)}
                    </th>
                    <td className={css.value}>
                      <button
                        type="button"
                        className={css.number}
                        data-cell={`${at} 0`}
                        tabIndex={at === stop ? 0 : -1}
                        onFocus={() => {
                          setRead(c.column);
                          keys.setStop(`${at} 0`);
                        }}
                        onBlur={() => setRead(null)}
                      >
                        {formatNumber(c.b.estimate, decimalsFor(c.b.se))}
                      </button>
                    </td>
                    {shown.map((column) => (
                      <td
                        key={column}
                        data-column={column}
                        className={column === "interval" ? css.interval : column === "beta" ? css.value : undefined}
                      >
                        {rawCell(column, c.b) ?? ownCell(column, c)}
                      </td>
                    ))}
                  </tr>
                );
              })}
            </tbody>
          ))}
        </table>
      </div>
      <ReadingLine sentence={pointed ? coefficientSentence(pointed, fit, naming, told) : null} />
    </>
  );
}

/** What belongs to b: of the intercept as of any coefficient. Null for other columns. */
function rawCell(column: FullColumn, e: Estimate): string | null {
  const number = (v: number | null) => formatNumber(v, decimalsFor(e.se));
  switch (column) {
    case "SE":
      return number(e.se);
    case "interval":
      return formatInterval(e.lower, e.upper, number);
    case "t":
      return formatNumber(e.t);
    case "p":
      return formatP(e.p);
    default:
      return null;
  }
}

function ownCell(column: FullColumn, c: Coefficient): string {
  switch (column) {
    case "beta":
      return formatShare(c.beta?.estimate ?? null);
    case "r":
      return formatShare(c.zeroOrder);
    case "partial":
      return formatShare(c.partial);
    case "part":
      return formatShare(c.part);
    case "part2":
      return formatShare(c.part ** 2, 3);
    case "tolerance":
      return formatShare(c.tolerance);
    default:
      return formatNumber(c.vif);
  }
}

/** A term of several columns as a whole: the test that all are 0, and what it shares with the others. */
function JointRow({
  test,
  width,
  title,
  fit,
  inflation,
}: {
  test: TermTest;
  fit: LadderFit;
  width: number;
  title: Titles;
  inflation: TermInflation | undefined;
}) {
  return (
    <tr data-testid={`joint ${test.term}`}>
      <th scope="rowgroup" colSpan={width} className={css.joint}>
        {columnTitle(test.term, fit, title)}
        <span>
          {test.F === null ? (
            "no joint test"
          ) : (
            <>
              together <Said>{fStatement(test.F, test.df, test.p)}</Said>
            </>
          )}
          {inflation?.root ? `, generalized VIF^(1/${2 * inflation.columns}) = ${formatNumber(inflation.root)}` : ""}
          {test.conditional ? "; depends on coding and centring beside its product" : ""}
        </span>
      </th>
    </tr>
  );
}
