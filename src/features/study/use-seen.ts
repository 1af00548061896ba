"use client";

import { useEffect, useMemo, useRef, useSyncExternalStore } from "react";
import type { LadderResult } from "@/study/analyse/analyse-ladder";
import type { ScaleResult } from "@/study/analyse/analyse-scale";
import type { StructureResult } from "@/study/analyse/analyse-structure";
import type { Ladder } from "@/study/model/ladder";
import type { Scale } from "@/study/model/scale";
import type { SeenResult } from "@/study/model/seen-result";
import type { Structure } from "@/study/model/structure";
import { SeenStore } from "./seen-store";
import { fingerprint } from "./fingerprint";
import { useSeenStore, useStudy } from "./study-context";
import { type Computed, ladderJob, scaleJob, structureJob } from "./use-computed";

/** Which scales, structures and ladders stand on other inputs than when they were last looked at, by id. */
export function useOutdated(): ReadonlySet<string> {
  const { study, dataset } = useStudy();
  const store = useSeenStore();
  const seen = useSyncExternalStore(store.subscribe, store.snapshot, store.snapshot);
  return useMemo(() => {
    const stale = (kind: SeenResult["kind"], id: string, job: unknown) =>
      seen.has(`${kind} ${id}`) && store.outdated({ kind, id }, inputsOf(dataset.id, job));
    const scales = study.scales.filter((s) => stale("scale", s.id, scaleJob(study, asScored(s), dataset.columns).job));
    const ladders = study.ladders.filter((l) => stale("ladder", l.id, ladderJob(study, l, dataset.columns).job));
    const structures = study.structures.filter((s) => stale("structure", s.id, structureJob(study, s, dataset.columns).job));
    return new Set([...scales, ...structures, ...ladders].map((o) => o.id));
  }, [study, dataset, store, seen]);
}

/** Records that a ladder's numbers were looked at; tells what they were before a change. */
export function useSeenLadder(ladder: Ladder, computed: Computed<LadderResult>): SeenResult | null {
  const { study, dataset } = useStudy();
  const { result } = computed;
  const numbers =
    result?.status === "fitted"
      ? [{ name: "N", value: result.fit.n }, ...result.fit.steps.map((s, k) => ({ name: `R² of step ${k + 1}`, value: s.model.R2 }))]
      : [];
  return useSeen("ladder", ladder.id, inputsOf(dataset.id, ladderJob(study, ladder, dataset.columns).job), numbers, computed);
}

/** Telling reliability by group as well moves none of the numbers before it. */
const asScored = (scale: Scale): Scale => ({ ...scale, byGroup: null });

/** Records that a scale's numbers were looked at; tells what they were before a change. */
export function useSeenScale(scale: Scale, computed: Computed<ScaleResult>): SeenResult | null {
  const { study, dataset } = useStudy();
  const { result } = computed;
  const analysis = result?.status === "scored" ? result.analysis : null;
  const numbers = analysis
    ? [
        { name: "respondents scored", value: analysis.complete + analysis.prorated },
        { name: "M", value: analysis.description.mean },
        { name: "α", value: analysis.reliability.alpha?.alpha ?? null },
      ]
    : [];
  return useSeen("scale", scale.id, inputsOf(dataset.id, scaleJob(study, asScored(scale), dataset.columns).job), numbers, computed);
}

/** Records that a structure's numbers were looked at; tells what they were before a change. */
export function useSeenStructure(structure: Structure, computed: Computed<StructureResult>): SeenResult | null {
  const { study, dataset } = useStudy();
  const { result } = computed;
  const analysis = result?.status === "explored" ? result.analysis : null;
  const numbers = analysis
    ? [
        { name: "complete respondents", value: analysis.n },
        { name: "sampling adequacy", value: analysis.adequacy?.overall ?? null },
        { name: "factors", value: analysis.factors },
      ]
    : [];
  return useSeen("structure", structure.id, inputsOf(dataset.id, structureJob(study, structure, dataset.columns).job), numbers, computed);
}

/** How long numbers must stand on the page to count as looked at. */
const LOOK_MS = 250;

const inputsOf = (dataset: string, job: unknown) => fingerprint(JSON.stringify([dataset, job]));

function useSeen(
  kind: SeenResult["kind"],
  id: string,
  inputs: string,
  numbers: SeenResult["numbers"],
  computed: Computed<unknown>,
): SeenResult | null {
  const { revision } = useStudy();
  const store = useSeenStore();
  const earlier = useSyncExternalStore(store.subscribe, store.earlierSnapshot, store.earlierSnapshot);
  const ready = computed.result !== null && !computed.outdated && numbers.length > 0;
  const watched = useRef("");
  useEffect(() => {
    if (!ready) return;
    // after the numbers are on the screen: recording the look draws parts of the page anew
    const later = setTimeout(() => {
      store.look({ kind, id, inputs, numbers, revision, at: new Date().toISOString() }, watched.current === `${kind} ${id}`);
      watched.current = `${kind} ${id}`;
    }, LOOK_MS);
    return () => clearTimeout(later);
  });
  return SeenStore.earlier(earlier, { kind, id });
}
