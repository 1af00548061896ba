"use client";

import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { forReplicates, replicatesOf, type ReplicatesSoFar, type RunJob } from "@/compute/bootstrap";
import { browserPool, poolSize } from "@/compute/browser/browser-pool";
import type { LadderReplicateIntervals } from "@/study/analyse/ladder-intervals";
import type { Ladder } from "@/study/model/ladder";
import { useStudy } from "./study-context";
import { ladderJob } from "./use-computed";

/** The intervals of a ladder from replicates, while these come in. */
export interface Bootstrapped {
  /** Null with normal theory, and until the first replicates are there. */
  intervals: LadderReplicateIntervals | null;
  /** Replicates there are, of those asked for; null when none are asked for. */
  progress: { done: number; of: number } | null;
  computing: boolean;
  /** Null until it can be told, and when it is no more than a moment. */
  secondsLeft: number | null;
  /** A sentence when it broke off. */
  fault: string | null;
  stop: () => void;
  again: () => void;
}

/**
 * Replicates of a ladder on the pool, and the intervals they give: first from a few hundred, then from all.
 * @param step whose β are compared, from 0
 * @param enabled false until the ladder's own numbers are there
 */
export function useBootstrap(ladder: Ladder, step: number, enabled: boolean): Bootstrapped {
  const house = useStudy();
  const client = useQueryClient();
  const [pace, setPace] = useState({ done: 0, secondsLeft: null as number | null });
  const wanted = ladder.intervals.by !== "normal";
  const { job, columns } = ladderJob(house.study, ladder, house.dataset.columns);
  const drawn = forReplicates(job.ladder);
  const replicatesKey: readonly unknown[] = ["replicates", house.dataset.id, ladder.id, job.context, drawn];
  const runWith = (data: Awaited<ReturnType<typeof house.columns.columns>>, signal: AbortSignal): RunJob => {
    return (one) => browserPool().run(one, house.dataset.id, data, signal);
  };
  const replicates = useQuery<ReplicatesSoFar, Error, ReplicatesSoFar, readonly unknown[]>({
    queryKey: replicatesKey,
    enabled: wanted && enabled,
    queryFn: async ({ signal }) => {
      const data = await house.columns.columns(columns);
      setPace({ done: 0, secondsLeft: null });
      const began = performance.now();
      return replicatesOf(runWith(data, signal), { context: job.context, ladder: drawn }, poolSize(), {
        first: (so) => client.setQueryData(replicatesKey, so),
        progress: (done, of) => {
          const left = Math.round((((performance.now() - began) / done) * (of - done)) / 1000);
          setPace({ done, secondsLeft: left >= 2 ? left : null });
        },
      });
    },
    structuralSharing: false,
    gcTime: 300_000,
  });
  const so = replicates.data;
  const intervals = useQuery<LadderReplicateIntervals, Error, LadderReplicateIntervals, readonly unknown[]>({
    queryKey: ["intervals", house.dataset.id, ladder.id, job.context, job.ladder, step, so?.count ?? 0],
    enabled: wanted && enabled && so !== undefined,
    queryFn: async ({ signal }) => {
      const data = await house.columns.columns(columns);
      const { values, redrawn } = so!;
      return runWith(data, signal)<"intervals">({ ...job, kind: "intervals", step, values, redrawn });
    },
    placeholderData: (previous, before) =>
      before?.queryKey[2] === ladder.id && sameModel(before.queryKey, job.ladder) ? previous : undefined,
    structuralSharing: false,
    gcTime: 300_000,
  });
  const computing = replicates.isFetching || intervals.isFetching;
  const of = wanted && ladder.intervals.by !== "normal" ? ladder.intervals.replicates : 0;
  return {
    intervals: wanted ? (intervals.data ?? null) : null,
    progress: wanted ? { done: replicates.isFetching ? pace.done : (so?.count ?? 0), of } : null,
    secondsLeft: pace.secondsLeft,
    computing: wanted && computing,
    fault: wanted && (replicates.error ?? intervals.error) && !computing ? "The replicates broke off. Nothing was changed." : null,
    stop: () => void client.cancelQueries({ queryKey: replicatesKey }, { revert: false }),
    again: () => void replicates.refetch(),
  };
}

/** Intervals of the same model stay until more replicates refine them; those of another model never show. */
function sameModel(key: readonly unknown[], ladder: Ladder): boolean {
  return JSON.stringify({ ...(key[4] as Ladder), intervals: null }) === JSON.stringify({ ...ladder, intervals: null });
}
