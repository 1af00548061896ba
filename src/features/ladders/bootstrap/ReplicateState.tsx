import type { Replicated } from "@/features/study/use-replicates";
import { formatCount } from "@/study/report/format-number";
import { DrawnState } from "@/features/study/DrawnState";

/** How many replicates there are, and a way to stop or go on. One line that is always there while something has them. */
export function ReplicateState({ boot, testId = "replicates" }: { boot: Replicated; testId?: string }) {
  const done = boot.progress?.done ?? 0;
  return (
    <DrawnState
      drawn={boot}
      noun="replicates"
      testId={testId}
      stopped={
        done === 0 || !boot.intervals
          ? "Stopped before there was any interval."
          : `Stopped: intervals from ${formatCount(done)} of ${formatCount(boot.progress!.of)} replicates.`
      }
      whole={`Intervals from ${formatCount(boot.progress?.of ?? 0)} replicates.`}
    />
  );
}
