"use client";

import { useState } from "react";
import type { LadderFit } from "@/core/regression/ladder";
import type { ReplicateIntervals } from "@/study/model/replicate-intervals";
import { formatInterval, formatP, formatShare } from "@/study/report/format-number";
import { differenceOf, differenceSentence } from "@/study/report/ladder/bootstrap-words";
import { columnTitle } from "@/study/report/ladder/coefficient-words";
import type { Titles } from "@/study/report/level-title";
import { IntervalMark } from "@/ui/charts/IntervalMark";
import { layoutIntervals } from "@/ui/charts/layout-intervals";
import page from "@/ui/parts/page.module.css";
import { SettingWord } from "@/ui/parts/SettingWord";
import { Said } from "@/ui/parts/Said";
import { stepColour } from "@/ui/theme/step-colours";
import css from "../ladders.module.css";

const WIDTH = 260;

/** Is one β of the step larger than another? Any two with the difference on the axis of both, or all pairs. */
export function BetaDifferences(props: { boot: ReplicateIntervals; fit: LadderFit; step: number; percent: string; title: Titles }) {
  const { boot, fit, step, percent, title } = props;
  const columns = fit.steps[step]!.coefficients.filter((c) => c.beta !== null).map((c) => c.column);
  const [chosen, setChosen] = useState<readonly [string, string] | null>(null);
  const [all, setAll] = useState(false);
  if (columns.length < 2 || boot.differences.length === 0) return null;
  const there = chosen && chosen.every((c) => columns.includes(c)) && chosen[0] !== chosen[1] ? chosen : null;
  const [first, second] = there ?? [columns.at(-2)!, columns.at(-1)!];
  const difference = differenceOf(boot, first, second);
  const word = (of: string, other: string, at: 0 | 1) => (
    <SettingWord
      label={at === 0 ? "One β" : "The other β"}
      value={of}
      text={columnTitle(of, fit, title)}
      choices={columns.filter((c) => c !== other).map((c) => ({ value: c, label: columnTitle(c, fit, title) }))}
      onChange={(value) => setChosen(at === 0 ? [value, second] : [first, value])}
    />
  );
  const betaOf = (column: string) => fit.steps[step]!.coefficients.find((c) => c.column === column)!.beta!;
  const rows = difference && [
    { name: columnTitle(first, fit, title), ...betaOf(first) },
    { name: columnTitle(second, fit, title), ...betaOf(second) },
    { name: "difference", ...difference },
  ];
  const marks = rows ? layoutIntervals(rows, WIDTH) : [];
  return (
    <section aria-label="Differences between β" className={css.saveBack}>
      <h2 className={page.heading}>Differences between β of step {step + 1}</h2>
      <p className={css.question}>
        Does the β of {word(first, second, 0)} differ from that of {word(second, first, 1)}?
      </p>
      {rows && difference && (
        <>
          <table className={css.plain} data-testid="beta-difference">
            <caption className="visually-hidden">Two β and their difference, with {percent} intervals</caption>
            <tbody>
              {rows.map((row, i) => (
                <tr key={i}>
                  <th scope="row">{row.name}</th>
                  <td className={css.value}>{formatShare(row.estimate)}</td>
                  <td className={css.mark}>
                    <IntervalMark mark={marks[i]!} width={WIDTH} colour={i === 2 ? "var(--ink)" : stepColour(step)} />
                  </td>
                  <td className={css.interval}>{formatInterval(row.lower, row.upper, formatShare)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className={css.reading}>
            <Said>{differenceSentence(difference, fit, title, percent)}</Said>
          </p>
        </>
      )}
      <button type="button" className="link" aria-expanded={all} onClick={() => setAll(!all)}>
        {all ? "Only these two" : `All ${boot.differences.length} pairs`}
      </button>
      {all && (
        <div className={css.scroll}>
          <table className={css.table} data-testid="all-differences">
            <caption className="visually-hidden">Differences between all β of step {step + 1}</caption>
            <thead>
              <tr>
                <th scope="col" style={{ textAlign: "left" }}>
                  β of
                </th>
                <th scope="col" style={{ textAlign: "left" }}>
                  minus β of
                </th>
                <th scope="col">difference</th>
                <th scope="col" className={css.left}>
                  {percent} interval
                </th>
                <th scope="col">
                  <i>p</i>
                </th>
                <th scope="col">
                  <i>p</i> (Holm)
                </th>
              </tr>
            </thead>
            <tbody>
              {boot.differences.map((d) => (
                <tr key={`${d.first} ${d.second}`}>
                  <th scope="row">{columnTitle(d.first, fit, title)}</th>
                  <td style={{ textAlign: "left", whiteSpace: "normal" }}>{columnTitle(d.second, fit, title)}</td>
                  <td className={css.value}>{formatShare(d.estimate)}</td>
                  <td className={css.interval}>{formatInterval(d.lower, d.upper, formatShare)}</td>
                  <td>{formatP(d.p)}</td>
                  <td>{formatP(d.pHolm)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </section>
  );
}
