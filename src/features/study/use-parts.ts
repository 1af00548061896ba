"use client";

import { CancelledError, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { browserPool, poolSize } from "@/compute/browser/browser-pool";
import { inParts, type RunJob } from "@/compute/replicates";
import { JobError } from "@/compute/worker-pool";
import { refKey } from "@/study/kinds/kind";
import { type AskedName, type AskedOf, askedKind, keptKind } from "@/study/kinds/kinds";
import { useStudy } from "./study-context";
import { jobOf } from "./job-of";
import { type ComputedName, faultWords } from "./use-computed";
import { type Drawn, TURNS } from "./use-replicates";

/** So many ranges: each tells how far it is, and can be stopped after. */
const PIECES = 40;

/** Work of an object that is dealt out over the pool: shuffles of its labels. Nothing is shown until all of it is there. */
export function useParts<K extends ComputedName>(name: K, object: AskedOf<K>, enabled: boolean): Drawn & { found: unknown } {
  const house = useStudy();
  const client = useQueryClient();
  const [pace, setPace] = useState({ done: 0, of: 0, secondsLeft: null as number | null });
  const { job, columns } = jobOf<AskedName>(name, object as AskedOf<AskedName>, house.study, house.dataset);
  const subject = refKey({ kind: name, id: keptKind(name).idOf(object) });
  const asked = { context: job.context, rows: job.rows, of: { kind: name, spec: job.spec } };
  const queryKey: readonly unknown[] = ["parts", house.dataset.id, subject, asked];
  const query = useQuery<unknown, Error, unknown, readonly unknown[]>({
    queryKey,
    enabled,
    queryFn: async ({ signal }) => {
      const data = await house.columns.columns(columns);
      setPace({ done: 0, of: 0, secondsLeft: null });
      const run: RunJob = (one) => browserPool().run(one, house.dataset.id, data, signal);
      return TURNS.take(JSON.stringify([subject, "parts", asked]), signal, () => {
        const began = performance.now();
        return inParts(run, asked, askedKind(name).joined!, poolSize(), {
          pieces: PIECES,
          progress: (done, of) => {
            const left = Math.round((((performance.now() - began) / done) * (of - done)) / 1000);
            setPace({ done, of, secondsLeft: left >= 2 ? left : null });
          },
        });
      });
    },
    structuralSharing: false,
  });
  const stopped = query.error instanceof CancelledError || (query.error instanceof JobError && query.error.code === "stopped");
  return {
    found: enabled ? (query.data ?? null) : null,
    progress: enabled ? { done: query.data === undefined ? pace.done : pace.of, of: pace.of } : null,
    secondsLeft: pace.secondsLeft,
    computing: enabled && query.isFetching,
    fault: enabled && query.error && !stopped && !query.isFetching ? faultWords(query.error, house.title) : null,
    stop: () => void client.cancelQueries({ queryKey }, { revert: false }),
    again: () => void query.refetch(),
  };
}
