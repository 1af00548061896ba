import type { Replicated } from "@/features/study/use-replicates";
import { formatCount } from "@/study/report/format-number";
import css from "../ladders.module.css";

/** How many replicates there are, and a way to stop or go on. One line that is always there while a ladder has them. */
export function ReplicateState({ boot }: { boot: Replicated }) {
  const { progress, computing, fault } = boot;
  if (!progress) return null;
  const { done, of } = progress;
  const left = computing ? boot.secondsLeft : null;
  return (
    <p className={css.replicates} role="status" data-testid="replicates" data-done={!computing && done === of}>
      {fault ? (
        <>
          {fault}{" "}
          <button type="button" className="link" onClick={boot.again}>
            Draw them again
          </button>
        </>
      ) : computing ? (
        <>
          {formatCount(done)} of {formatCount(of)} replicates{left !== null && `, about ${left} s left`}{" "}
          <progress value={done} max={of} aria-label="Replicates drawn" />{" "}
          <button type="button" className="link" onClick={boot.stop}>
            Stop
          </button>
        </>
      ) : done < of ? (
        <>
          {done === 0 || !boot.intervals
            ? "Stopped before there was any interval."
            : `Stopped: intervals from ${formatCount(done)} of ${formatCount(of)} replicates.`}{" "}
          <button type="button" className="link" onClick={boot.again}>
            Draw all
          </button>
        </>
      ) : (
        <>Intervals from {formatCount(of)} replicates.</>
      )}
    </p>
  );
}
