import type { StepFit } from "@/core/regression/ladder";
import { formatNumber, formatP } from "@/study/report/format-number";
import css from "../ladders.module.css";

/** Where the outcome's sum of squares goes in one step. */
export function AnovaTable({ step, fit }: { step: number; fit: StepFit }) {
  const { model: m } = fit;
  return (
    <table className={css.table} data-testid="anova">
      <caption className={css.caption}>Analysis of variance, step {step + 1}</caption>
      <thead>
        <tr>
          <th scope="col" style={{ textAlign: "left" }}>
            Source
          </th>
          <th scope="col">
            <i>SS</i>
          </th>
          <th scope="col">
            <i>df</i>
          </th>
          <th scope="col">
            <i>MS</i>
          </th>
          <th scope="col">
            <i>F</i>
          </th>
          <th scope="col">
            <i>p</i>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr>
          <th scope="row">Regression</th>
          <td>{formatNumber(m.ssRegression)}</td>
          <td>{m.p}</td>
          <td>{formatNumber(m.msRegression)}</td>
          <td>{formatNumber(m.F)}</td>
          <td>{formatP(m.pF)}</td>
        </tr>
        <tr>
          <th scope="row">Residual</th>
          <td>{formatNumber(m.ssResidual)}</td>
          <td>{m.dfResidual}</td>
          <td>{formatNumber(m.msResidual)}</td>
          <td />
          <td />
        </tr>
        <tr>
          <th scope="row">Total</th>
          <td>{formatNumber(m.ssTotal)}</td>
          <td>{m.n - 1}</td>
          <td />
          <td />
          <td />
        </tr>
      </tbody>
    </table>
  );
}
