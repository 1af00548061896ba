"use client";

import { useStudy } from "@/features/study/study-context";
import type { ProbeResult } from "@/study/analyse/analyse-probe";
import type { ProbeReading } from "@/study/analyse/read-probe";
import type { Probe } from "@/study/model/probe";
import { decimalsFor, formatCount, formatNumber, formatShare, listed } from "@/study/report/format-number";
import { probeRows } from "@/study/report/ladder/probe-rows";
import ladders from "../ladders.module.css";
import { TestCells, TestHeads } from "./test-cells";

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
            <TestHeads
              name={
                <>
                  {byEffect ? "difference" : "slope"} {probe.metric === "z" ? "β" : <i>b</i>}
                </>
              }
              df={ground.of.df}
              confidence={ground.confidence}
            />
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
                <TestCells found={row.found} print={print} />
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
