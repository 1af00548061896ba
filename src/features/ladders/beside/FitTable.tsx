import type { ReactNode } from "react";
import type { ModelSummary } from "@/core/regression/model-summary";
import type { LadderBeside } from "@/study/analyse/analyse-comparison";
import { formatNumber, formatShare } from "@/study/report/format-number";
import css from "../ladders.module.css";

type Row = [head: ReactNode, key: string, print: (model: ModelSummary, of: LadderBeside) => string];

/** How well each ladder does, as a table of one column a ladder. Δ is the distance from the smallest of a row. */
export function FitTable({
  models,
  exploratory,
}: {
  models: readonly LadderBeside[];
  /** Names of those that a search has made. */ exploratory: ReadonlySet<string>;
}) {
  const summaries = models.map((m) => m.fit.steps[m.step]!.model);
  const least = (of: (m: ModelSummary) => number | null) => {
    const known = summaries.map(of).filter((v) => v !== null);
    return known.length < summaries.length ? null : Math.min(...known);
  };
  const distance = (value: number | null, from: number | null) => (value === null || from === null ? null : value - from);
  const [leastAic, leastBic] = [least((m) => m.AIC), least((m) => m.BIC)];
  const rows: Row[] = [
    [<i key="n">N</i>, "N", (m) => String(m.n)],
    ["Columns", "p", (m) => String(m.p)],
    [
      <>
        <i>R</i>²
      </>,
      "R2",
      (m) => formatShare(m.R2, 3),
    ],
    [
      <>
        adjusted <i>R</i>²
      </>,
      "adjusted",
      (m) => formatShare(m.adjustedR2, 3),
    ],
    ["Residual SD", "s", (m) => formatNumber(m.residualSd)],
    ["AIC", "AIC", (m) => formatNumber(m.AIC)],
    ["ΔAIC", "dAIC", (m) => formatNumber(distance(m.AIC, leastAic))],
    ["Akaike weight", "weight", (_, of) => formatShare(of.aicWeight, 3)],
    ["Error of respondents held out", "heldOut", (_, of) => formatNumber(of.heldOut?.rmse ?? null)],
    ["… in the folds, from – to", "folds", (_, of) => spreadOf(of)],
    ["BIC", "BIC", (m) => formatNumber(m.BIC)],
    ["ΔBIC", "dBIC", (m) => formatNumber(distance(m.BIC, leastBic))],
    ["BIC weight", "bicWeight", (_, of) => formatShare(of.bicWeight, 3)],
  ];
  return (
    <section aria-label="Fit">
      <table className={css.table} data-testid="fit-beside">
        <caption className={css.caption}>Fit</caption>
        <thead>
          <tr>
            <td />
            {models.map((m) => (
              <th key={m.name} scope="col" className={css.wrap}>
                {m.name}
                {exploratory.has(m.name) && ", exploratory"}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(([head, key, print]) => (
            <tr key={key}>
              <th scope="row">{head}</th>
              {models.map((m, i) => (
                <td key={m.name} data-testid={`${key} ${m.ladder}`}>
                  {print(summaries[i]!, m)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** Smallest and largest error of a fold. */
function spreadOf({ heldOut }: LadderBeside): string {
  if (!heldOut || heldOut.rmse === null) return "";
  const { byFold } = heldOut;
  return `${formatNumber(byFold.reduce((a, b) => Math.min(a, b)))} – ${formatNumber(byFold.reduce((a, b) => Math.max(a, b)))}`;
}
