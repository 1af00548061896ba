"use client";

import { useQueries, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { browserPool } from "@/compute/browser/browser-pool";
import { JobError, type Urgency } from "@/compute/worker-pool";
import type { Job } from "@/compute/protocol/jobs";
import type { LadderResult } from "@/study/analyse/analyse-ladder";
import type { ScaleResult } from "@/study/analyse/analyse-scale";
import type { StructureResult } from "@/study/analyse/analyse-structure";
import type { AnswerStrip } from "@/study/analyse/answer-strip";
import type { JobResults } from "@/compute/protocol/jobs";
import type { Comparison } from "@/study/model/comparison";
import { columnsBehind, filterInputs, filtersBehind, namesBehind } from "@/study/model/dependencies";
import type { DerivedVariable } from "@/study/model/derived";
import { type Ladder, ladderNames } from "@/study/model/ladder";
import type { RespondentFilter } from "@/study/model/respondent-filter";
import type { Scale } from "@/study/model/scale";
import { type Structure, structureParts } from "@/study/model/structure";
import type { Study } from "@/study/model/study";
import { Variable } from "@/study/model/variable";
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

/** A ladder's numbers, computed in a worker whenever the ladder or anything it stands on changes. */
export function useLadderResult(ladder: Ladder): Computed<LadderResult> {
  const { study, dataset } = useStudy();
  const { job, columns } = ladderJob(study, ladder, dataset.columns);
  return useJob(job, columns, ladder.id);
}

/**
 * Several ladders' numbers, by id; what is not there yet is worked out when nobody waits for anything else.
 * @param open the ladder whose numbers another part of the page asks for, at once
 */
export function useLadderResults(ladders: readonly Ladder[], open: string | null): ReadonlyMap<string, LadderResult> {
  const house = useStudy();
  const results = useQueries({
    queries: ladders.map((ladder) => {
      const { job, columns } = ladderJob(house.study, ladder, house.dataset.columns);
      return {
        ...jobQuery<LadderResult>(house, job, columns, ladder.id, "background"),
        enabled: ladder.id !== open,
        placeholderData: staysFor(ladder.id),
      };
    }),
  });
  return new Map(ladders.flatMap((ladder, i) => (results[i]?.data ? [[ladder.id, results[i].data] as const] : [])));
}

/** Begins to work a ladder out before the page has drawn its change: the two then take their time side by side. */
export function useBeginLadder(): (ladder: Ladder) => void {
  const house = useStudy();
  const client = useQueryClient();
  return (ladder) => {
    const { job, columns } = ladderJob(house.study, ladder, house.dataset.columns);
    if (!house.columns.ready(columns)) return;
    void client.prefetchQuery({ ...jobQuery<LadderResult>(house, job, columns, ladder.id, "now"), staleTime: Infinity });
  };
}

/** What takes longer than a ladder's tables; begun once these are there. @param step from 0 */
export function useLadderDepth(ladder: Ladder, step: number, enabled: boolean): Computed<JobResults["ladder-depth"]> {
  const { study, dataset } = useStudy();
  const { job, columns } = ladderJob(study, ladder, dataset.columns);
  return useJob({ ...job, kind: "ladder-depth", step }, columns, `depth ${ladder.id}`, enabled, "background");
}

/** Ladders side by side. */
export function useComparison(comparison: Comparison): Computed<JobResults["comparison"]> {
  const { study, dataset } = useStudy();
  const ladders = study.ladders.filter((l) => comparison.models.some((m) => m.ladder === l.id));
  const { context, columns } = contextOf(
    study,
    ladders.flatMap(ladderNames),
    ladders.map((l) => l.respondents),
    dataset.columns,
  );
  const bare = { ...comparison, name: "-" };
  return useJob(
    { kind: "comparison", context, comparison: bare, ladders: ladders.map(bareLadder) },
    columns,
    `comparison ${comparison.id}`,
  );
}

/** Names, labels and the metric that is shown do not change numbers: renaming a step computes nothing. */
function bareLadder(ladder: Ladder): Ladder {
  return { ...ladder, name: "-", metric: "z", steps: ladder.steps.map((step) => ({ ...step, name: "" })) };
}

/** The job behind a ladder's numbers: it holds everything they depend on. */
export function ladderJob(study: Study, ladder: Ladder, all: readonly string[]) {
  const { context, columns } = contextOf(study, ladderNames(ladder), [ladder.respondents], all);
  return { job: { kind: "ladder" as const, context, ladder: bareLadder(ladder) }, columns };
}

/** The job behind a scale's numbers. */
export function scaleJob(study: Study, scale: Scale, all: readonly string[]) {
  const names = [...scale.items.map((item) => item.variable), ...(scale.byGroup === null ? [] : [scale.byGroup])];
  const { context, columns } = contextOf(study, names, [scale.respondents], all);
  return { job: { kind: "scale" as const, context, scale: { ...scale, name: "-", weightsFrom: "" } }, columns };
}

/** The job behind a structure's numbers. */
export function structureJob(study: Study, structure: Structure, all: readonly string[]) {
  const { context, columns } = contextOf(study, structure.items, [structure.respondents], all);
  const { respondents, extraction, rotation, factors, sets, seed } = structure;
  const parts = structureParts(study.scales, structure).map(({ name, reversed }) => ({ name, reversed }));
  return {
    job: { kind: "structure" as const, context, structure: { parts, respondents, extraction, rotation, factors, sets, seed } },
    columns,
  };
}

/** What lies behind a set of items. */
export function useStructureResult(structure: Structure): Computed<StructureResult> {
  const { study, dataset } = useStudy();
  const { job, columns } = structureJob(study, structure, dataset.columns);
  return useJob(job, columns, structure.id);
}

/** A scale's scores and reliability. */
export function useScaleResult(scale: Scale): Computed<ScaleResult> {
  const { study, dataset } = useStudy();
  const { job, columns } = scaleJob(study, scale, dataset.columns);
  return useJob(job, columns, scale.id);
}

/** How the answers of some variables are spread. */
export function useStrips(variables: string[]): Computed<AnswerStrip[]> {
  const { study, dataset } = useStudy();
  const { context, columns } = contextOf(study, variables, [], dataset.columns);
  return useJob({ kind: "strips", context, variables }, columns, "strips");
}

/** What a variable holds; with `draft`, what one would hold that is not in the study yet. */
export function useLook(name: string, draft: DerivedVariable | null = null): Computed<JobResults["look"]> {
  const { study, dataset } = useStudy();
  const codebook = study.codebook.some((v) => v.name === name) ? study.codebook : [...study.codebook, Variable.parse({ name })];
  const derived = draft ? [...study.derived.filter((d) => d.name !== draft.name), draft] : study.derived;
  const { context, columns } = contextOf({ ...study, codebook, derived }, [name], [], dataset.columns);
  return useJob({ kind: "look", context, name }, columns, `look ${name}`);
}

/** Whom a filter would keep of all respondents. */
export function useFilterResult(filter: RespondentFilter): Computed<JobResults["filter"]> {
  const { study, dataset } = useStudy();
  const { context, columns } = contextOf(study, filterInputs(filter), [], dataset.columns);
  const bare = { ...filter, name: "-", reason: "" };
  return useJob({ kind: "filter", context, rows: dataset.rows, filter: bare }, columns, `filter ${filter.id}`);
}

/** Every check on every variable of the file. */
export function useChecks(enabled: boolean): Computed<JobResults["checks"]> {
  const { study, dataset } = useStudy();
  const { context, columns } = contextOf(study, dataset.columns, [], dataset.columns);
  return useJob({ kind: "checks", context, rows: dataset.rows }, columns, "checks", enabled);
}

/** Who left what open. */
export function useMissingPattern(names: string[], enabled: boolean): Computed<JobResults["missing"]> {
  const { study, dataset } = useStudy();
  const { context, columns } = contextOf(study, names, [], dataset.columns);
  return useJob({ kind: "missing", context, names, rows: dataset.rows }, columns, "missing", enabled);
}

/** The rows a sheet shows, in order. */
export function useRowList(
  shown: Extract<Job, { kind: "row-list" }>["shown"],
  order: Extract<Job, { kind: "row-list" }>["order"],
): Computed<JobResults["row-list"]> {
  const { study, dataset } = useStudy();
  const filter = shown.kind === "kept" || shown.kind === "left-out" ? shown.filter : null;
  const { context, columns } = contextOf(study, order ? [order.by] : [], [filter], dataset.columns);
  return useJob({ kind: "row-list", context, rows: dataset.rows, shown, order }, columns, "row-list");
}

/**
 * Only what a computation depends on, so that other changes leave its result alone, and the columns of the file it needs.
 * @param names what it is about; @param chosen filters it names
 */
export function contextOf(study: Study, names: readonly string[], chosen: readonly (string | null)[], all: readonly string[]) {
  const named = [...chosen, ...filtersBehind(study, namesBehind(study, names))];
  const filters = study.filters.filter((f) => f.everywhere || named.includes(f.id));
  const behind = namesBehind(study, [...names, ...filters.flatMap((f) => filterInputs(f))]);
  const needed = columnsBehind(study, names, named).filter((name) => all.includes(name));
  // a formula of numbers alone stands on no column, but is as long as one
  const columns = needed.length > 0 ? needed : all.slice(0, 1);
  const wanted = new Set([...behind, ...columns]);
  const context = {
    codebook: study.codebook.filter((v) => wanted.has(v.name)).map((v) => ({ ...v, label: "", short: "", unit: "", note: "" })),
    // only what makes their scores: how else they are looked at moves nothing that stands on them
    scales: study.scales
      .filter((s) => behind.has(s.id))
      .map((s) => ({ ...s, name: "-", weightsFrom: "", respondents: null, byGroup: null })),
    corrections: study.corrections.filter((c) => wanted.has(c.variable)),
    derived: study.derived.filter((d) => behind.has(d.name)),
    filters: filters.map((f) => ({ ...f })),
  };
  return { context, columns };
}

/** Numbers of the same object stay, greyed, until new ones arrive; another object's never show. */
function staysFor(subject: string) {
  return <T>(previous: T | undefined, before: { queryKey: readonly unknown[] } | undefined): T | undefined =>
    before?.queryKey[2] === subject ? previous : undefined;
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
  const queryKey: readonly unknown[] = ["computed", house.dataset.id, subject, job];
  return {
    queryKey,
    queryFn: async ({ signal }: { signal: AbortSignal }) => {
      // without waiting where nothing is to be fetched: the worker begins while the page is still drawing the change
      const data = house.columns.ready(columns) ?? (await house.columns.columns(columns));
      progress?.(null);
      return (await browserPool().run(job, house.dataset.id, data, signal, (done, of) => progress?.(done / of), urgency)) as T;
    },
    gcTime: 300_000,
    structuralSharing: false, // results are new as a whole: comparing a hundred thousand rows finds nothing to share
  };
}

function useJob<T>(job: Job, columns: string[], subject: string, enabled = true, urgency: Urgency = "now"): Computed<T> {
  const house = useStudy();
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
    ? query.error instanceof JobError
      ? "The computation broke off. Nothing was changed."
      : "The responses could not be fetched: the server does not answer."
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
