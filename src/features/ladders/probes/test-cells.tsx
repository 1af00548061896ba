import type { Estimate } from "@/core/regression/coefficients";
import { formatInterval, formatNumber, formatP, formatPercent } from "@/study/report/format-number";
import ladders from "../ladders.module.css";

/** Heads of an estimate with its test. @param name what it is: a slope b, a difference */
export function TestHeads(props: { name: React.ReactNode; df: number; holm?: boolean; confidence: number }) {
  return (
    <>
      <th scope="col">{props.name}</th>
      <th scope="col">
        <i>SE</i>
      </th>
      <th scope="col">
        <i>t</i>({props.df})
      </th>
      <th scope="col">
        <i>p</i>
      </th>
      {props.holm && (
        <th scope="col">
          <i>p</i> by Holm
        </th>
      )}
      <th scope="col">{formatPercent(props.confidence)} interval</th>
    </>
  );
}

/** Its cells. Null: not available. @param holm adjusted p; left out where there is no such column */
export function TestCells(props: { found: Estimate | null; print: (value: number | null) => string; holm?: number | null }) {
  const { found, print } = props;
  return (
    <>
      <td className={ladders.value}>{print(found?.estimate ?? null)}</td>
      <td>{print(found?.se ?? null)}</td>
      <td>{formatNumber(found?.t ?? null)}</td>
      <td>{formatP(found?.p ?? null)}</td>
      {props.holm !== undefined && <td>{formatP(props.holm)}</td>}
      <td className={ladders.interval}>{formatInterval(found?.lower ?? null, found?.upper ?? null, print)}</td>
    </>
  );
}
