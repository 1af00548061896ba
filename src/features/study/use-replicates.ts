"use client";

import { CancelledError, useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { browserPool, poolSize } from "@/compute/browser/browser-pool";
import { drawJackknife, drawReplicates, intervalsOf, type ReplicatesSoFar, resampled, type RunJob } from "@/compute/replicates";
import { JobError } from "@/compute/worker-pool";
import type { Jackknife } from "@/study/analyse/resampling";
import { refKey } from "@/study/kinds/kind";
import { type AskedName, type AskedOf, askedKind, keptKind } from "@/study/kinds/kinds";
import { ENGINE_VERSION, type ReplicateIntervals } from "@/study/model/replicate-intervals";
import { fingerprint } from "./fingerprint";
import { KeptStore } from "./kept-store";
import { useStudy } from "./study-context";
import { Turns } from "./turns";
import { jobOf } from "./job-of";
import { type ComputedName, faultWords } from "./use-computed";

/** A worker keeps one thing ready to be resampled: two that took turns with each range would be made ready each time. */
export const TURNS = new Turns();

/** Something that is drawn many times, while it comes in. */
export interface Drawn {
  /** How many there are, of those asked for; null when none are asked for. */
  progress: { done: number; of: number } | null;
  computing: boolean;
  /** Null until it can be told, and when it is no more than a moment. */
  secondsLeft: number | null;
  /** A sentence when it broke off; null otherwise. */
  fault: string | null;
  stop: () => void;
  again: () => void;
}

/** Intervals from replicates, while these come in. */
export interface Replicated extends Drawn {
  /** Null where none are asked for, and until the first replicates are there. */
  intervals: ReplicateIntervals | null;
}

/**
 * The intervals that an object's replicates give: those kept with the study at once, where there are any; otherwise from a few hundred replicates drawn on
 * the pool, then from all.
 * @param step whose β are compared, from 0; null for none
 * @param enabled false until the object's own numbers are there, or until somebody asks
 */
export function useReplicates<K extends ComputedName>(name: K, object: AskedOf<K>, step: number | null, enabled: boolean): Replicated {
  const house = useStudy();
  const client = useQueryClient();
  const [pace, setPace] = useState({ done: 0, secondsLeft: null as number | null });
  const { job, columns } = jobOf<AskedName>(name, object as AskedOf<AskedName>, house.study, house.dataset);
  const subject = refKey({ kind: name, id: keptKind(name).idOf(object) });
  const [how, asked] = useMemo(() => {
    const { context, rows, spec } = job;
    return [askedKind(name).replicating?.(spec) ?? null, resampled({ context, rows, of: { kind: name, spec } }, false)];
  }, [name, job]);
  const wanted = how !== null && enabled;
  const runWith = async (signal: AbortSignal): Promise<RunJob> => {
    const data = await house.columns.columns(columns);
    return (one) => browserPool().run(one, house.dataset.id, data, signal);
  };
  const of = how?.replicates ?? 0;

  const key = useMemo(
    () => fingerprint(JSON.stringify([ENGINE_VERSION, house.dataset.id, asked, how, step])),
    [house.dataset.id, asked, how, step],
  );
  const store = new KeptStore(house.store.id);
  const kept = useQuery({
    queryKey: ["kept", house.store.id, key],
    enabled: wanted,
    queryFn: () => store.find(key),
    staleTime: Infinity,
  });
  const drawing = wanted && kept.data === null;
  const turn = JSON.stringify([subject, asked]);

  const replicatesKey: readonly unknown[] = ["replicates", house.dataset.id, subject, asked, of, how?.seed];
  const replicates = useQuery<ReplicatesSoFar, Error, ReplicatesSoFar, readonly unknown[]>({
    queryKey: replicatesKey,
    enabled: drawing,
    queryFn: async ({ signal }) => {
      const run = await runWith(signal);
      setPace({ done: 0, secondsLeft: null });
      return TURNS.take(turn, signal, () => {
        const began = performance.now();
        return drawReplicates(run, asked, how!, poolSize(), {
          first: (so) => client.setQueryData(replicatesKey, so),
          progress: (done, all) => {
            const left = Math.round((((performance.now() - began) / done) * (all - done)) / 1000);
            setPace({ done, secondsLeft: left >= 2 ? left : null });
          },
        });
      });
    },
    structuralSharing: false,
  });
  const jackknifeKey: readonly unknown[] = ["jackknife", house.dataset.id, subject, asked, step, how?.by];
  const jackknife = useQuery<Jackknife, Error, Jackknife, readonly unknown[]>({
    queryKey: jackknifeKey,
    enabled: drawing,
    queryFn: async ({ signal }) => {
      const run = await runWith(signal);
      return TURNS.take(turn, signal, () => drawJackknife(run, asked, step, how!.by));
    },
    structuralSharing: false,
  });
  const so = replicates.data;
  const read = useQuery<ReplicateIntervals, Error, ReplicateIntervals, readonly unknown[]>({
    queryKey: ["intervals", house.dataset.id, subject, asked, how, step, so?.count ?? 0],
    enabled: drawing && so !== undefined && jackknife.data !== undefined,
    queryFn: async ({ signal }) => {
      const found = await intervalsOf(await runWith(signal), jackknife.data!, so!, how!);
      if (so!.count === of) void store.keep(key, found);
      return found;
    },
    // intervals of the same thing stay until more replicates refine them; those of another never show
    placeholderData: (previous, before) =>
      before?.queryKey[2] === subject && JSON.stringify(before.queryKey[3]) === JSON.stringify(asked) ? previous : undefined,
    structuralSharing: false,
  });
  const computing = kept.isFetching || replicates.isFetching || jackknife.isFetching || read.isFetching;
  // what was stopped did not break off
  const errors = [replicates.error, jackknife.error, read.error].filter(
    (error) => error !== null && !(error instanceof CancelledError) && !(error instanceof JobError && error.code === "stopped"),
  );
  const done = kept.data ? of : replicates.isFetching ? pace.done : (so?.count ?? 0);
  return {
    intervals: wanted ? (kept.data ?? read.data ?? null) : null,
    progress: how === null ? null : { done, of },
    secondsLeft: pace.secondsLeft,
    computing: wanted && computing,
    fault: wanted && errors[0] && !computing ? faultWords(errors[0], house.title) : null,
    stop: () => {
      for (const queryKey of [replicatesKey, jackknifeKey]) void client.cancelQueries({ queryKey }, { revert: false });
    },
    again: () => void [replicates, jackknife].forEach((one) => void one.refetch()),
  };
}
