"use client";

import { CancelledError, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { drawJackknife, drawReplicates, forReplicates, ladderIntervals, type ReplicatesSoFar, type RunJob } from "@/compute/bootstrap";
import { browserPool, poolSize } from "@/compute/browser/browser-pool";
import type { Jackknife } from "@/study/analyse/resampled";
import type { Ladder } from "@/study/model/ladder";
import { ENGINE_VERSION, type LadderReplicateIntervals } from "@/study/model/replicate-intervals";
import { fingerprint } from "./fingerprint";
import { KeptStore } from "./kept-store";
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
  /** A code when it broke off; null otherwise. */
  fault: string | null;
  stop: () => void;
  again: () => void;
}

/** How long results of the page are kept in its memory while nothing shows them. */
const KEPT_MS = 300_000;

/**
 * The intervals that a ladder's replicates give: those kept with the study at once, where there are any; otherwise from a few hundred replicates drawn on
 * the pool, then from all.
 * @param step whose β are compared, from 0
 * @param enabled false until the ladder's own numbers are there
 */
export function useBootstrap(ladder: Ladder, step: number, enabled: boolean): Bootstrapped {
  const house = useStudy();
  const client = useQueryClient();
  const [pace, setPace] = useState({ done: 0, secondsLeft: null as number | null });
  const { by } = ladder.intervals;
  const wanted = by !== "normal" && enabled;
  const { job, columns } = ladderJob(house.study, ladder, house.dataset.columns);
  const drawn = forReplicates(job.ladder);
  const asked = { context: job.context, of: { what: "ladder" as const, ladder: drawn, extent: "tables" as const } };
  const runWith = async (signal: AbortSignal): Promise<RunJob> => {
    const data = await house.columns.columns(columns);
    return (one) => browserPool().run(one, house.dataset.id, data, signal);
  };
  const of = ladder.intervals.by === "normal" ? 0 : ladder.intervals.replicates;

  const key = fingerprint(JSON.stringify([ENGINE_VERSION, house.dataset.id, job.context, job.ladder, step]));
  const store = new KeptStore(house.store.id);
  const kept = useQuery({
    queryKey: ["kept", house.store.id, key],
    enabled: wanted,
    queryFn: () => store.find(key),
    gcTime: KEPT_MS,
    staleTime: Infinity,
  });
  const drawing = wanted && kept.data === null;

  const replicatesKey: readonly unknown[] = ["replicates", house.dataset.id, ladder.id, job.context, drawn];
  const replicates = useQuery<ReplicatesSoFar, Error, ReplicatesSoFar, readonly unknown[]>({
    queryKey: replicatesKey,
    enabled: drawing,
    queryFn: async ({ signal }) => {
      const run = await runWith(signal);
      setPace({ done: 0, secondsLeft: null });
      const began = performance.now();
      return drawReplicates(run, asked, of, poolSize(), {
        first: (so) => client.setQueryData(replicatesKey, so),
        progress: (done, all) => {
          const left = Math.round((((performance.now() - began) / done) * (all - done)) / 1000);
          setPace({ done, secondsLeft: left >= 2 ? left : null });
        },
      });
    },
    structuralSharing: false,
    gcTime: KEPT_MS,
  });
  const jackknifeKey: readonly unknown[] = [
    "jackknife",
    house.dataset.id,
    ladder.id,
    job.context,
    { ...drawn, intervals: null, seed: null },
    step,
    by,
  ];
  const jackknife = useQuery<Jackknife, Error, Jackknife, readonly unknown[]>({
    queryKey: jackknifeKey,
    enabled: drawing,
    queryFn: async ({ signal }) => drawJackknife(await runWith(signal), asked, step, by === "bca" ? "bca" : "percentile"),
    structuralSharing: false,
    gcTime: KEPT_MS,
  });
  const so = replicates.data;
  const read = useQuery<LadderReplicateIntervals, Error, LadderReplicateIntervals, readonly unknown[]>({
    queryKey: ["intervals", house.dataset.id, ladder.id, job.context, job.ladder, step, so?.count ?? 0],
    enabled: drawing && so !== undefined && jackknife.data !== undefined,
    queryFn: async ({ signal }) => {
      if (by === "normal") throw new Error("asked of normal theory");
      const found = await ladderIntervals(await runWith(signal), jackknife.data!, so!, { by, confidence: ladder.confidence });
      if (so!.count === of) void store.keep(key, found);
      return found;
    },
    placeholderData: (previous, before) =>
      before?.queryKey[2] === ladder.id && sameModel(before.queryKey, job.ladder) ? previous : undefined,
    structuralSharing: false,
    gcTime: KEPT_MS,
  });
  const computing = kept.isFetching || replicates.isFetching || jackknife.isFetching || read.isFetching;
  // what was stopped did not break off
  const errors = [replicates.error, jackknife.error, read.error].filter(
    (error) => error !== null && !(error instanceof CancelledError) && codeOf(error) !== "stopped",
  );
  const done = kept.data ? of : replicates.isFetching ? pace.done : (so?.count ?? 0);
  return {
    intervals: wanted ? (kept.data ?? read.data ?? null) : null,
    progress: by === "normal" ? null : { done, of },
    secondsLeft: pace.secondsLeft,
    computing: wanted && computing,
    fault: wanted && errors[0] && !computing ? codeOf(errors[0]) : null,
    stop: () => {
      for (const queryKey of [replicatesKey, jackknifeKey]) void client.cancelQueries({ queryKey }, { revert: false });
    },
    again: () => void [replicates, jackknife].forEach((one) => void one.refetch()),
  };
}

const codeOf = (error: Error) => String((error as { code?: unknown }).code ?? "job-failed");

/** Intervals of the same model stay until more replicates refine them; those of another model never show. */
function sameModel(key: readonly unknown[], ladder: Ladder): boolean {
  return JSON.stringify({ ...(key[4] as Ladder), intervals: null }) === JSON.stringify({ ...ladder, intervals: null });
}
