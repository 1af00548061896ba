"use client";

import { useState } from "react";
import type { Figure } from "@/core/resampling/figures/figure";
import type { LadderFit } from "@/core/regression/ladder";
import { ladderFigures, type ReplicateIntervals } from "@/study/model/replicate-intervals";
import { formatCount, formatInterval, formatNumber, formatShare } from "@/study/report/format-number";
import { columnTitle } from "@/study/report/ladder/coefficient-words";
import type { Titles } from "@/study/report/level-title";
import { ChartFrame } from "@/ui/charts/ChartFrame";
import { ReplicateChart } from "@/ui/charts/ReplicateChart";
import { SettingWord } from "@/ui/parts/SettingWord";
import css from "../ladders.module.css";

const KINDS: Partial<Record<Figure["kind"], string>> = {
  R2: "R²",
  adjustedR2: "adjusted R²",
  dR2: "ΔR²",
  b: "b",
  beta: "β",
  part: "part correlation",
};

const kindOf = (figure: Figure) => KINDS[figure.kind] ?? figure.kind;

/** How the replicates of one figure of the step are spread, with the limits that were read from them. */
export function ReplicateSpread(props: { boot: ReplicateIntervals; fit: LadderFit; step: number; percent: string; title: Titles }) {
  const { boot, fit, step, title } = props;
  const [chosen, setChosen] = useState<string | null>(null);
  const words = (figure: Figure) =>
    "column" in figure ? `${kindOf(figure)} of ${columnTitle(figure.column, fit, title)}` : kindOf(figure);
  const own = ladderFigures(boot).filter(({ figure }) => figure.step === step);
  const last = own.findLast(({ figure }) => figure.kind === "beta") ?? own[0];
  const shown = own.find(({ figure }) => words(figure) === chosen) ?? last;
  if (!shown) return null;
  const { figure, interval, spread } = shown;
  const format = (v: number | null) => (figure.kind === "b" ? formatNumber(v) : formatShare(v, figure.kind.endsWith("2") ? 3 : 2));
  const name = `Replicates of ${words(figure)}, step ${step + 1}`;
  return (
    <section aria-label="Spread of the replicates" className={css.saveBack}>
      <p className={css.question}>
        How the replicates of{" "}
        <SettingWord
          label="Figure whose replicates are shown"
          value={words(figure)}
          text={words(figure)}
          choices={own.map((one) => ({ value: words(one.figure), label: words(one.figure), group: kindOf(one.figure) }))}
          onChange={setChosen}
        />{" "}
        are spread
      </p>
      <ChartFrame
        title={name}
        note={`${formatCount(boot.replicates)} replicates, estimate ${format(interval.estimate)}, ${props.percent} interval ${formatInterval(interval.lower, interval.upper, format)}`}
        table={
          <table className={css.table}>
            <caption className="visually-hidden">{name}</caption>
            <thead>
              <tr>
                <th scope="col">from</th>
                <th scope="col">to</th>
                <th scope="col">replicates</th>
              </tr>
            </thead>
            <tbody>
              {spread.counts.map((count, i) => (
                <tr key={i}>
                  <td>{formatNumber(spread.edges[i]!, 4)}</td>
                  <td>{formatNumber(spread.edges[i + 1]!, 4)}</td>
                  <td>{count}</td>
                </tr>
              ))}
            </tbody>
          </table>
        }
      >
        <ReplicateChart histogram={spread} interval={interval} title={name} axis={words(figure)} format={format} />
      </ChartFrame>
    </section>
  );
}
