"use client";

import type { LadderFit } from "@/core/regression/ladder";
import type { ReplicateIntervals } from "@/study/model/replicate-intervals";
import type { Titles } from "@/study/report/level-title";
import { BetaDifferences } from "./BetaDifferences";
import { ReplicateSpread } from "./ReplicateSpread";

/** What only replicates can tell of a step: how its β differ, and how the replicates of a figure are spread. */
export function FromReplicates(props: { boot: ReplicateIntervals; fit: LadderFit; step: number; percent: string; title: Titles }) {
  return (
    <>
      <BetaDifferences {...props} />
      <ReplicateSpread {...props} />
    </>
  );
}
