"use client";

import { useStudy } from "@/features/study/study-context";
import type { ProbeResult } from "@/study/analyse/analyse-probe";
import type { ProbeReading } from "@/study/analyse/read-probe";
import type { Probe } from "@/study/model/probe";
import {
  decimalsFor,
  formatCount,
  formatInterval,
  formatNumber,
  formatP,
  formatPercent,
  formatShare,
  listed,
} from "@/study/report/format-number";
import { probeRows } from "@/study/report/ladder/probe-rows";
import ladders from "../ladders.module.css";

/** Effects at each place, then what they differ by. */
export function SlopeTable({
  probe,
  reading,
  result,
}: {
  probe: Probe;
  reading: ProbeReading;
  result: Extract<ProbeResult, { status: "probed" }>;
}) {
  const { title } = useStudy();
  const rows = probeRows(reading, result, title);
  const { ground } = result;
  const first = rows.findIndex((row) => row.kind === "difference");
  const byEffect = rows.some((row) => row.effect !== "");
  const near = rows.some((row) => row.near !== null);
  return (
    <div className={ladders.scroll}>
      <table className={ladders.table} data-testid="slopes">
        <caption className="visually-hidden">{`${title(probe.focal)} at the places of ${listed(probe.moderators.map((m) => title(m.variable)))}`}</caption>
        <thead>
          <tr>
            <th scope="col" style={{ textAlign: "left" }}>
              {listed(probe.moderators.map((m) => title(m.variable)))}
            </th>
            {byEffect && <th scope="col">{title(probe.focal)}</th>}
            {near && (
              <th scope="col">
                {probe.moderators.every((m) => ground.spreads.has(m.variable)) ? "respondents within ½ SD" : "respondents"}
              </th>
            )}
            <th scope="col">
              {byEffect ? "difference" : "slope"} {probe.metric === "z" ? "β" : <i>b</i>}
            </th>
            <th scope="col">
              <i>SE</i>
            </th>
            <th scope="col">
              <i>t</i>({ground.of.df})
            </th>
            <th scope="col">
              <i>p</i>
            </th>
            <th scope="col">{formatPercent(ground.confidence)} interval</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row, i) => {
            const se = row.found?.se ?? null;
            const print = (v: number | null) => (probe.metric === "z" ? formatShare(v) : formatNumber(v, decimalsFor(se)));
            return (
              <tr key={i} style={i === first && i > 0 ? { borderTop: "1px solid var(--ink)" } : undefined}>
                <th scope="row">{row.place}</th>
                {byEffect && <td>{row.effect}</td>}
                {near && <td>{row.near === null ? "" : formatCount(row.near)}</td>}
                <td className={ladders.value}>{print(row.found?.estimate ?? null)}</td>
                <td>{print(se)}</td>
                <td>{formatNumber(row.found?.t ?? null)}</td>
                <td>{formatP(row.found?.p ?? null)}</td>
                <td className={ladders.interval}>{formatInterval(row.found?.lower ?? null, row.found?.upper ?? null, print)}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
