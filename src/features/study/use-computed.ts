"use client";

import { useQueries, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { Job } from "@/compute/protocol/jobs";
import { JobError, type Urgency } from "@/compute/worker-pool";
import { refKey } from "@/study/kinds/kind";
import { type AskedName, type AskedOf, type KeptName, KEPT, type ObjectOf, type ResultOf } from "@/study/kinds/kinds";
import type { Refusal } from "@/study/analyse/refusal";
import type { Study } from "@/study/model/study";
import { refusalWords } from "@/study/report/refusals";
import { runBegun } from "./early-job";
import { jobOf } from "./job-of";
import { type StudyView, useStudy } from "./study-context";

/** A result that is being kept up to date. */
export interface Computed<T> {
  /** The newest result there is; of the inputs before while `outdated`. */
  result: T | null;
  /** True while the result on show belongs to inputs that have changed since. */
  outdated: boolean;
  /** True while a new result is being computed. */
  computing: boolean;
  /** How far a long computation is, 0…1; null while it has not told. */
  progress: number | null;
  /** Ends the computation; what is on show stays, greyed. */
  stop: () => void;
  /** A sentence when the computation broke off or was stopped. */
  fault: string | null;
  retry: () => void;
}

/** Whose numbers they are: an object of the study by kind and id, anything else by its kind. */
function subjectOf(kind: string, of: unknown): string {
  const kept = KEPT.find((one) => one.kind === kind);
  return kept ? refKey({ kind, id: kept.idOf(of) }) : kind;
}

/** Objects of the study that are computed. */
export type ComputedName = KeptName & AskedName;

/**
 * Anything that can be asked of the study, computed in a worker whenever it or anything it stands on changes.
 * @param how.subject whose numbers stay, greyed, until new ones arrive
 * @param how.study what it is asked of, when that is not the study as it stands
 */
export function useAsked<K extends AskedName>(
  kind: K,
  of: AskedOf<K>,
  how: { subject?: string; enabled?: boolean; urgency?: Urgency; study?: Study } = {},
): Computed<ResultOf<K>> {
  const house = useStudy();
  const { job, columns } = jobOf(kind, of, how.study ?? house.study, house.dataset);
  return useJob(house, job, columns, how.subject ?? subjectOf(kind, of), how.enabled ?? true, how.urgency ?? "now");
}

/**
 * The numbers of several objects of a kind, by id; what is not there yet is worked out when nobody waits for anything else.
 * @param open the one whose numbers another part of the page asks for, at once
 */
export function useResults<K extends ComputedName>(
  kind: K,
  objects: readonly ObjectOf<K>[],
  open: string | null,
): ReadonlyMap<string, ResultOf<K>> {
  const house = useStudy();
  const idOf = KEPT.find((one) => one.kind === kind)!.idOf;
  const results = useQueries({
    queries: objects.map((object) => {
      const { job, columns } = jobOf(kind, object as AskedOf<K>, house.study, house.dataset);
      const subject = subjectOf(kind, object);
      return {
        ...jobQuery<ResultOf<K>>(house, job, columns, subject, "background"),
        enabled: idOf(object) !== open,
        placeholderData: staysFor(subject),
      };
    }),
  });
  return new Map(
    objects.flatMap((object, i) => {
      const { data } = results[i] as { data?: ResultOf<K> };
      return data === undefined ? [] : [[idOf(object), data] as const];
    }),
  );
}

/** Begins to work an object out before the page has drawn its change: the two then take their time side by side. */
export function useBegin<K extends ComputedName>(kind: K): (object: ObjectOf<K>) => void {
  const house = useStudy();
  const client = useQueryClient();
  return (object) => {
    const { job, columns } = jobOf(kind, object as AskedOf<K>, house.study, house.dataset);
    if (!house.columns.ready(columns)) return;
    void client.prefetchQuery({ ...jobQuery(house, job, columns, subjectOf(kind, object), "now"), staleTime: Infinity });
  };
}

/** Numbers of the same object stay, greyed, until new ones arrive; another object's never show. */
function staysFor(subject: string) {
  return <T>(previous: T | undefined, before: { queryKey: readonly unknown[] } | undefined): T | undefined =>
    before?.queryKey[2] === subject ? previous : undefined;
}

/** What a result is kept by on the page. */
const resultKey = (dataset: string, subject: string, job: Job): readonly unknown[] => ["computed", dataset, subject, job];

/** Lets an object have numbers from the first drawing on. @param resultOf asked for them only where there are none yet */
export function useGiven<K extends ComputedName>(
  kind: K,
  object: ObjectOf<K> | null,
  resultOf: ((job: Job) => ResultOf<K> | null) | null,
): void {
  const { study, dataset } = useStudy();
  const client = useQueryClient();
  useState(() => {
    if (object === null || resultOf === null) return;
    const { job } = jobOf(kind, object as AskedOf<K>, study, dataset);
    const key = resultKey(dataset.id, subjectOf(kind, object), job);
    const given = client.getQueryData(key) === undefined ? resultOf(job) : null;
    if (given !== null) client.setQueryData(key, given);
  });
}

/** How a job is asked for and kept: two places that ask for the same share one answer. */
function jobQuery<T>(
  house: Pick<StudyView, "dataset" | "columns">,
  job: Job,
  columns: string[],
  subject: string,
  urgency: Urgency,
  progress?: (share: number | null) => void,
) {
  const queryKey = resultKey(house.dataset.id, subject, job);
  return {
    queryKey,
    queryFn: async ({ signal }: { signal: AbortSignal }) => {
      // without waiting where nothing is to be fetched: the worker begins while the page is still drawing the change
      const data = house.columns.ready(columns) ?? (await house.columns.columns(columns));
      try {
        return (await runBegun(job, house.dataset.id, data, signal, (done, of) => progress?.(done / of), urgency)) as T;
      } finally {
        progress?.(null); // the next one begins at nothing
      }
    },
    structuralSharing: false, // results are new as a whole: comparing a hundred thousand rows finds nothing to share
  };
}

function useJob<T>(house: StudyView, job: Job, columns: string[], subject: string, enabled: boolean, urgency: Urgency): Computed<T> {
  const client = useQueryClient();
  const [progress, setProgress] = useState<number | null>(null);
  const asked = jobQuery<T>(house, job, columns, subject, urgency, setProgress);
  const { queryKey } = asked;
  const query = useQuery<T, Error, T, readonly unknown[]>({
    ...asked,
    enabled,
    placeholderData: staysFor(subject),
  });
  const fault = query.error
    ? faultWords(query.error, house.title)
    : enabled && query.fetchStatus === "idle" && (query.isPending || query.isPlaceholderData)
      ? "The computation was stopped. What is shown belongs to what stood here before."
      : null;
  return {
    result: query.data ?? null,
    outdated: query.isPlaceholderData,
    computing: query.isFetching,
    progress: query.isFetching ? progress : null,
    stop: () => void client.cancelQueries({ queryKey }),
    fault,
    retry: () => void query.refetch(),
  };
}

/** What broke off, in words: what was refused with its reason, a fault of ours, or a server that does not answer. */
export function faultWords(error: Error, title: (name: string) => string): string {
  if (!(error instanceof JobError)) return "The responses could not be fetched: the server does not answer.";
  if (["worker-crashed", "job-failed"].includes(error.code)) return "The computation broke off. Nothing was changed.";
  const { what, remedy } = refusalWords({ code: error.code, details: error.details } as Refusal, title);
  return `${what} ${remedy}`;
}
