"use client";

import { useQuery, useQueryClient } from "@tanstack/react-query";
import { browserPool } from "@/compute/browser/browser-pool";
import { JobError } from "@/compute/browser/worker-pool";
import type { Job } from "@/compute/protocol/jobs";
import { ladderColumns, type LadderResult } from "@/study/analyse/analyse-ladder";
import type { ScaleResult } from "@/study/analyse/analyse-scale";
import type { AnswerStrip } from "@/study/analyse/answer-strip";
import type { Ladder } from "@/study/model/ladder";
import type { Scale } from "@/study/model/scale";
import type { Study } from "@/study/model/study";
import { useStudy } from "./study-context";

/** A result that is being kept up to date. */
export interface Computed<T> {
  /** The newest result there is; of the inputs before while `outdated`. */
  result: T | null;
  /** True while the result on show belongs to inputs that have changed since. */
  outdated: boolean;
  /** True while a new result is being computed. */
  computing: boolean;
  /** Ends the computation; what is on show stays, greyed. */
  stop: () => void;
  /** A sentence when the computation broke off or was stopped. */
  fault: string | null;
  retry: () => void;
}

/** A ladder's numbers, computed in a worker whenever the ladder or anything it stands on changes. */
export function useLadderResult(ladder: Ladder): Computed<LadderResult> {
  const { study } = useStudy();
  const columns = ladderColumns(study, ladder);
  const names = new Set([...ladder.steps.flatMap((s) => s.terms.flatMap((t) => t.components)), ladder.outcome]);
  const context = contextOf(study, columns, (scale) => names.has(scale.id));
  // names and labels do not change numbers: renaming a step computes nothing
  const bare: Ladder = { ...ladder, name: "-", steps: ladder.steps.map((step) => ({ ...step, name: "" })) };
  return useJob({ kind: "ladder", context, ladder: bare }, columns, ladder.id);
}

/** A scale's scores and reliability. */
export function useScaleResult(scale: Scale): Computed<ScaleResult> {
  const { study } = useStudy();
  const columns = scale.items.map((item) => item.variable);
  return useJob({ kind: "scale", context: contextOf(study, columns, () => false), scale: { ...scale, name: "-" } }, columns, scale.id);
}

/** How the answers of some variables are spread. */
export function useStrips(variables: string[]): Computed<AnswerStrip[]> {
  const { study } = useStudy();
  return useJob({ kind: "strips", context: contextOf(study, variables, () => false), variables }, variables, "strips");
}

/** Only what a computation depends on, so that other changes leave its result alone. */
function contextOf(study: Study, columns: readonly string[], scaleWanted: (scale: Scale) => boolean) {
  const wanted = new Set(columns);
  return {
    codebook: study.codebook.filter((v) => wanted.has(v.name)).map((v) => ({ ...v, label: "" })),
    scales: study.scales.filter(scaleWanted).map((s) => ({ ...s, name: "-" })),
  };
}

function useJob<T>(job: Job, columns: string[], subject: string): Computed<T> {
  const house = useStudy();
  const client = useQueryClient();
  const queryKey = ["computed", house.dataset.id, subject, job];
  const query = useQuery({
    queryKey,
    queryFn: async ({ signal }) => {
      const data = await house.columns.columns(columns);
      return (await browserPool().run(job, house.dataset.id, data, signal)) as T;
    },
    // numbers of the same object stay, greyed, until new ones arrive; another object's never show
    placeholderData: (previous, before) => (before?.queryKey[2] === subject ? previous : undefined),
    gcTime: 300_000,
  });
  const fault = query.error
    ? query.error instanceof JobError
      ? "The computation broke off. Nothing was changed."
      : "The responses could not be fetched: the server does not answer."
    : query.fetchStatus === "idle" && (query.isPending || query.isPlaceholderData)
      ? "The computation was stopped. What is shown belongs to what stood here before."
      : null;
  return {
    result: query.data ?? null,
    outdated: query.isPlaceholderData,
    computing: query.isFetching,
    stop: () => void client.cancelQueries({ queryKey }),
    fault,
    retry: () => void query.refetch(),
  };
}
