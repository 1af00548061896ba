import { useState } from "react";
import { useReplicates } from "@/features/study/use-replicates";
import type { Scale } from "@/study/model/scale";
import { counted, formatCount, formatInterval, formatShare } from "@/study/report/format-number";
import { REPLICATING } from "@/study/kinds/scale";
import css from "./scales.module.css";

const NAMES: Record<string, string> = { alpha: "α", omega: "ω" };

/** Intervals of α and ω from replicates, on request: ω has no other. */
export function ReliabilityIntervals({ scale, omega }: { scale: Scale; omega: boolean }) {
  const [asked, setAsked] = useState(false);
  const { intervals: found, progress, computing, fault, stop, again } = useReplicates("scale", scale, null, asked);
  const { replicates, seed } = REPLICATING;
  const what = omega ? "α and ω" : "α";
  return (
    <p className={css.byGroup} role="status" data-testid="reliability-intervals">
      {!asked ? (
        <button type="button" className="link" onClick={() => setAsked(true)}>
          Intervals of {what} by bootstrap
        </button>
      ) : computing ? (
        <>
          {formatCount(progress?.done ?? 0)} of {formatCount(replicates)} replicates{" "}
          <progress value={progress?.done ?? 0} max={replicates} aria-label="Replicates drawn" />{" "}
          <button type="button" className="link" onClick={stop}>
            Stop
          </button>
        </>
      ) : found?.replicates === replicates ? (
        <>
          BCa bootstrap intervals of 95 %:{" "}
          {found.intervals
            .map(({ figure, interval }) => `${NAMES[String(figure)]} ${formatInterval(interval.lower, interval.upper, formatShare)}`)
            .join(", ")}
          {" · "}
          {formatCount(replicates)} resamples of {counted(found.units, "respondent")}, seed {seed}
          {found.redrawn > 0 &&
            `; ${counted(found.redrawn, "resample was", "resamples were")} drawn again because an item did not vary in it or no factor was found`}
        </>
      ) : (
        <>
          {fault ? "The replicates broke off." : "Stopped."}{" "}
          <button type="button" className="link" onClick={again}>
            Draw them again
          </button>
        </>
      )}
    </p>
  );
}
