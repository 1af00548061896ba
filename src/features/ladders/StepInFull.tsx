import type { Estimate } from "@/core/regression/coefficients";
import type { LadderFit } from "@/core/regression/ladder";
import { decimalsFor, formatInterval, formatNumber, formatP, formatShare } from "@/study/report/format-number";
import { coefficientSentence, columnTitle, type Titles } from "@/study/report/ladder-words";
import css from "./ladders.module.css";

/** Everything about the coefficients of one step. */
export function StepInFull({ fit, step, percent, title }: { fit: LadderFit; step: number; percent: string; title: Titles }) {
  const { intercept, coefficients, model, clusters } = fit.steps[step]!;
  const number = (v: number | null) => formatNumber(v);
  return (
    <div className={css.scroll}>
      <table className={css.table} data-testid="in-full">
        <caption className="visually-hidden">Coefficients of step {step + 1}</caption>
        <thead>
          <tr>
            <th scope="col" style={{ textAlign: "left" }}>
              Term
            </th>
            <th scope="col">
              <i>b</i>
            </th>
            <th scope="col">
              <i>SE</i>
            </th>
            <th scope="col" style={{ textAlign: "left" }}>
              {percent} interval
            </th>
            <th scope="col">β</th>
            <th scope="col">
              <i>t</i>({clusters === null ? model.dfResidual : clusters - 1})
            </th>
            <th scope="col">
              <i>p</i>
            </th>
            <th scope="col">part</th>
            <th scope="col" title="Tolerance: 1 − R² of this term on the others">
              tol.
            </th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <th scope="row">Intercept</th>
            <Raw of={intercept} />
            <td />
            <td>{number(intercept.t)}</td>
            <td>{formatP(intercept.p)}</td>
            <td />
            <td />
          </tr>
          {coefficients.map((c) => (
            <tr key={c.column} title={coefficientSentence(c, fit, title)} data-testid={`full ${c.column}`}>
              <th scope="row">{columnTitle(c.column, title)}</th>
              <Raw of={c.b} />
              <td className={css.value}>{formatShare(c.beta?.estimate ?? null)}</td>
              <td>{number(c.b.t)}</td>
              <td>{formatP(c.b.p)}</td>
              <td>{formatShare(c.part)}</td>
              <td>{formatShare(c.tolerance)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** b, SE and interval with the same decimals. */
function Raw({ of: e }: { of: Estimate }) {
  const number = (v: number | null) => formatNumber(v, decimalsFor(e.se));
  return (
    <>
      <td>{number(e.estimate)}</td>
      <td>{number(e.se)}</td>
      <td className={css.interval}>{formatInterval(e.lower, e.upper, number)}</td>
    </>
  );
}
