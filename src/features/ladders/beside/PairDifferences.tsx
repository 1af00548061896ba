"use client";

import Link from "next/link";
import type { ComparedPair } from "@/core/comparison/compare-models";
import { rowsAddress } from "@/features/study/rows-address";
import { useStudy } from "@/features/study/study-context";
import { formatNumber } from "@/study/report/format-number";
import { ChartFrame } from "@/ui/charts/ChartFrame";
import { DifferenceChart } from "@/ui/charts/DifferenceChart";
import page from "@/ui/parts/page.module.css";
import css from "../ladders.module.css";

/** How far the predictions of each two lie apart, in SDs of the outcome, and for whom most. */
export function PairDifferences({ pairs }: { pairs: readonly ComparedPair[] }) {
  const { store } = useStudy();
  return (
    <section aria-label="Predictions" style={{ marginTop: 22 }}>
      <h2 className={page.heading}>How far their predictions lie apart</h2>
      {pairs.map((pair) => {
        const name = `${pair.first} less ${pair.second}`;
        const { signed, absolute, farthest } = pair;
        return (
          <div key={name}>
            <ChartFrame
              title={name}
              note="predictions, SDs of the outcome; the bracket spans the middle half"
              table={
                <table className={css.table} data-testid={`differences ${name}`}>
                  <caption className="visually-hidden">{name}</caption>
                  <thead>
                    <tr>
                      {["", "smallest", "1st quartile", "median", "mean", "3rd quartile", "largest"].map((head) => (
                        <th key={head} scope="col">
                          {head || <span className="visually-hidden">which</span>}
                        </th>
                      ))}
                    </tr>
                  </thead>
                  <tbody>
                    {[
                      { head: "signed", of: signed, mean: null },
                      { head: "size", of: absolute, mean: absolute.mean },
                    ].map(({ head, of, mean }) => (
                      <tr key={head}>
                        <th scope="row">{head}</th>
                        {[of.min, of.q1, of.median, mean, of.q3, of.max].map((value, k) => (
                          <td key={k}>{value === null ? "" : formatNumber(value)}</td>
                        ))}
                      </tr>
                    ))}
                  </tbody>
                </table>
              }
            >
              <DifferenceChart
                title={name}
                histogram={pair.histogram}
                quartiles={[signed.q1, signed.median, signed.q3]}
                axis={`higher by ${pair.second} ← → higher by ${pair.first}`}
                format={(v) => formatNumber(v)}
              />
            </ChartFrame>
            <p className={css.running}>
              They differ most about{" "}
              {farthest.slice(0, 5).map(({ case: row, difference }, k) => (
                <span key={row}>
                  {k > 0 && ", "}
                  <Link className="link" href={rowsAddress(store.id, [row])}>
                    row {row}
                  </Link>{" "}
                  ({formatNumber(difference)})
                </span>
              ))}
              .{" "}
              <Link
                className="link"
                href={rowsAddress(
                  store.id,
                  farthest.map((one) => one.case),
                )}
              >
                See the {farthest.length} rows
              </Link>
            </p>
          </div>
        );
      })}
    </section>
  );
}
