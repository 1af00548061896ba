"use client";

import { CancelledError, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { drawJackknife, drawReplicates, limitsOfAll, type RunJob } from "@/compute/bootstrap";
import { browserPool, poolSize } from "@/compute/browser/browser-pool";
import type { Scale } from "@/study/model/scale";
import type { ReplicateInterval } from "@/study/model/replicate-intervals";
import { useStudy } from "./study-context";
import { scaleJob } from "./use-computed";

/** How the replicates are drawn; a scale has no words of its own for it. */
export const RELIABILITY_REPLICATES = { replicates: 5000, seed: 1, by: "bca", confidence: 0.95 } as const;

/** Intervals of alpha and omega from replicates, while they are drawn. */
export interface ReliabilityIntervals {
  intervals: { figure: string; interval: ReplicateInterval }[] | null;
  units: number;
  redrawn: number;
  /** Replicates drawn so far. */
  done: number;
  computing: boolean;
  failed: boolean;
  stop: () => void;
  again: () => void;
}

/** @param enabled false until somebody asks: omega is a factor solution in each replicate */
export function useReliabilityIntervals(scale: Scale, enabled: boolean): ReliabilityIntervals {
  const house = useStudy();
  const client = useQueryClient();
  const [done, setDone] = useState(0);
  const { job, columns } = scaleJob(house.study, scale, house.dataset.columns);
  const { replicates, seed, by, confidence } = RELIABILITY_REPLICATES;
  const asked = { context: job.context, of: { what: "scale" as const, scale: { ...job.scale, byGroup: null }, seed } };
  const queryKey = ["reliability", house.dataset.id, scale.id, asked];
  const found = useQuery({
    queryKey,
    enabled,
    queryFn: async ({ signal }) => {
      const data = await house.columns.columns(columns);
      const run: RunJob = (one) => browserPool().run(one, house.dataset.id, data, signal);
      setDone(0);
      const [jackknife, so] = await Promise.all([
        drawJackknife(run, asked, null, by),
        drawReplicates(run, asked, replicates, poolSize(), { progress: setDone }),
      ]);
      const limits = await limitsOfAll(run, jackknife, so, { by, confidence });
      return {
        units: jackknife.units,
        redrawn: so.redrawn,
        intervals: limits.map(({ interval }, k) => ({ figure: String(jackknife.figures[k]), interval })),
      };
    },
    structuralSharing: false,
    gcTime: 300_000,
  });
  return {
    intervals: found.data?.intervals ?? null,
    units: found.data?.units ?? 0,
    redrawn: found.data?.redrawn ?? 0,
    done,
    computing: found.isFetching,
    failed: enabled && found.isError && !found.isFetching && !(found.error instanceof CancelledError),
    stop: () => void client.cancelQueries({ queryKey }),
    again: () => void found.refetch(),
  };
}
