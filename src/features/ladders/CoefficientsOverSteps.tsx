import type { Coefficient, Estimate } from "@/core/regression/coefficients";
import type { LadderFit } from "@/core/regression/ladder";
import { decimalsFor, formatInterval, formatNumber, formatShare } from "@/study/report/format-number";
import { coefficientSentence, columnTitle, type Titles } from "@/study/report/ladder-words";
import { IntervalMark } from "@/ui/charts/IntervalMark";
import { layoutIntervals } from "@/ui/charts/layout-intervals";
import { stepColour } from "@/ui/theme/step-colours";
import css from "./ladders.module.css";

const MARK_WIDTH = 66;

/** A coefficient with the estimate that is shown of it. */
interface Shown {
  c: Coefficient;
  estimate: Estimate;
}

/** Each coefficient in every step: number, dot and interval. β share one scale; b, of unlike units, have one a row. */
export function CoefficientsOverSteps({
  fit,
  metric,
  percent,
  title,
}: {
  fit: LadderFit;
  metric: "beta" | "b";
  percent: string;
  title: Titles;
}) {
  const columns = [...new Set(fit.steps.flatMap((step) => step.coefficients.map((c) => c.column)))];
  const rows = columns.map((column) =>
    fit.steps.map((step): Shown | null => {
      const c = step.coefficients.find((one) => one.column === column);
      const estimate = c && (metric === "beta" ? c.beta : c.b);
      return c && estimate ? { c, estimate } : null;
    }),
  );
  const formatOf = (e: Estimate) =>
    metric === "beta" ? (v: number | null) => formatShare(v) : (v: number | null) => formatNumber(v, decimalsFor(e.se));
  const marksOf = (cells: (Shown | null)[]) => {
    const present = cells.filter((c) => c !== null);
    const laid = layoutIntervals(
      present.map((cell) => cell.estimate),
      MARK_WIDTH,
    );
    return new Map(present.map((cell, i) => [cell, laid[i]!]));
  };
  const shared = metric === "beta" ? marksOf(rows.flat()) : null;
  return (
    <div className={css.scroll}>
      <table className={css.table} data-testid="over-steps">
        <caption className="visually-hidden">
          Coefficients over the steps, {metric === "beta" ? "standardized (β)" : "in raw units (b)"}, with {percent} intervals
        </caption>
        <thead>
          <tr>
            <td />
            {fit.steps.map((_, k) => (
              <th key={k} scope="colgroup" colSpan={3} style={{ textAlign: "left", paddingLeft: 16, color: stepColour(k) }}>
                Step {k + 1}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((cells, i) => {
            const marks = shared ?? marksOf(cells);
            return (
              <tr key={columns[i]}>
                <th scope="row">{columnTitle(columns[i]!, title)}</th>
                {cells.map((cell, k) =>
                  cell === null ? (
                    <td key={k} colSpan={3} className="quiet" style={{ textAlign: "center" }}>
                      <span aria-hidden="true">·</span>
                      <span className="visually-hidden">not in step {k + 1}</span>
                    </td>
                  ) : (
                    <Cell
                      key={k}
                      c={cell.c}
                      step={k}
                      words={coefficientSentence(cell.c, fit, title)}
                      text={formatOf(cell.estimate)(cell.estimate.estimate)}
                      interval={formatInterval(cell.estimate.lower, cell.estimate.upper, formatOf(cell.estimate))}
                      mark={marks.get(cell)!}
                    />
                  ),
                )}
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

function Cell(props: {
  c: Coefficient;
  step: number;
  words: string;
  text: string;
  interval: string;
  mark: ReturnType<typeof layoutIntervals>[number];
}) {
  return (
    <>
      <td className={css.value} title={props.words} data-testid={`${props.c.column}@${props.step + 1}`}>
        {props.text}
      </td>
      <td className={css.mark}>
        <IntervalMark mark={props.mark} width={MARK_WIDTH} colour={stepColour(props.step)} />
      </td>
      <td className={css.interval}>{props.interval}</td>
    </>
  );
}
