import { useState } from "react";
import { RELIABILITY_REPLICATES, useReliabilityIntervals } from "@/features/study/use-reliability-intervals";
import type { Scale } from "@/study/model/scale";
import { counted, formatCount, formatInterval, formatShare } from "@/study/report/format-number";
import css from "./scales.module.css";

const NAMES: Record<string, string> = { alpha: "α", omega: "ω" };

/** Intervals of α and ω from replicates, on request: ω has no other. */
export function ReliabilityIntervals({ scale, omega }: { scale: Scale; omega: boolean }) {
  const [asked, setAsked] = useState(false);
  const found = useReliabilityIntervals(scale, asked);
  const { replicates, seed } = RELIABILITY_REPLICATES;
  const what = omega ? "α and ω" : "α";
  return (
    <p className={css.byGroup} role="status" data-testid="reliability-intervals">
      {!asked ? (
        <button type="button" className="link" onClick={() => setAsked(true)}>
          Intervals of {what} by bootstrap
        </button>
      ) : found.computing ? (
        <>
          {formatCount(found.done)} of {formatCount(replicates)} replicates{" "}
          <progress value={found.done} max={replicates} aria-label="Replicates drawn" />{" "}
          <button type="button" className="link" onClick={found.stop}>
            Stop
          </button>
        </>
      ) : found.intervals ? (
        <>
          BCa bootstrap intervals of 95 %:{" "}
          {found.intervals
            .map(({ figure, interval }) => `${NAMES[figure]} ${formatInterval(interval.lower, interval.upper, formatShare)}`)
            .join(", ")}
          {" · "}
          {formatCount(replicates)} resamples of {counted(found.units, "respondent")}, seed {seed}
          {found.redrawn > 0 &&
            `; ${counted(found.redrawn, "resample was", "resamples were")} drawn again because an item did not vary in it or no factor was found`}
        </>
      ) : (
        <>
          {found.failed ? "The replicates broke off." : "Stopped."}{" "}
          <button type="button" className="link" onClick={found.again}>
            Draw them again
          </button>
        </>
      )}
    </p>
  );
}
