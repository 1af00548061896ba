"use client";

import { useEffect, useMemo, useRef, useSyncExternalStore } from "react";
import { refKey } from "@/study/kinds/kind";
import { type AnyAsked, type AskedOf, askedKind, TOLD, type ToldName, type ResultOf } from "@/study/kinds/kinds";
import { asked, objectsOf } from "@/study/kinds/standing";
import type { SeenResult } from "@/study/model/seen-result";
import type { Study } from "@/study/model/study";
import { fingerprint } from "./fingerprint";
import { SeenStore } from "./seen-store";
import type { DatasetFacts } from "./dataset-facts";
import { useSeenStore, useStudy } from "./study-context";
import type { Computed } from "./use-computed";

/** Goes up when the same inputs get another fingerprint: what was seen before is then not held against it. */
const SCHEME = "2";

/** A mark of everything the headline numbers of an object depend on. */
function inputsOf(kind: AnyAsked, object: unknown, study: Study, dataset: DatasetFacts): string {
  const { context, spec } = asked(kind.kind, object, study, dataset.columns);
  return `${SCHEME}:${fingerprint(JSON.stringify([dataset.id, context, kind.headlineSpec?.(spec) ?? spec]))}`;
}

/** Which objects stand on other inputs than when they were last looked at: by kind and id. */
export function useOutdated(): ReadonlySet<string> {
  const { study, dataset } = useStudy();
  const store = useSeenStore();
  const seen = useSyncExternalStore(store.subscribe, store.snapshot, store.snapshot);
  return useMemo(() => {
    const stale = TOLD.flatMap((kind) =>
      objectsOf(study, kind).flatMap((object) => {
        const ref = { kind: kind.kind, id: kind.idOf(object) };
        const before = seen.get(refKey(ref));
        const comparable = before?.inputs.startsWith(`${SCHEME}:`) ?? false;
        return comparable && store.outdated(ref, inputsOf(kind, object, study, dataset)) ? [refKey(ref)] : [];
      }),
    );
    return new Set(stale);
  }, [study, dataset, seen, store]);
}

/** How long numbers must stand on the page to count as looked at. */
const LOOK_MS = 250;

/** Records that an object's numbers were looked at; tells what they were before a change. */
export function useSeen<K extends ToldName>(name: K, object: AskedOf<K>, computed: Computed<ResultOf<K>>): SeenResult | null {
  const { study, dataset, store: changes } = useStudy();
  const store = useSeenStore();
  const earlier = useSyncExternalStore(store.subscribe, store.earlierSnapshot, store.earlierSnapshot);
  const kind = askedKind(name);
  const key = { kind: name, id: TOLD.find((one) => one.kind === name)!.idOf(object) };
  const numbers = computed.result === null ? null : kind.headline!(computed.result);
  const inputs = inputsOf(kind, object, study, dataset);
  const ready = numbers !== null && numbers.length > 0 && !computed.outdated;
  const watched = useRef("");
  useEffect(() => {
    if (!ready) return;
    // numbers that pass by while something is being changed were not looked at
    const later = setTimeout(() => {
      store.look(
        { ...key, inputs, numbers, revision: changes.snapshot().revision, at: new Date().toISOString() },
        watched.current === refKey(key),
      );
      watched.current = refKey(key);
    }, LOOK_MS);
    return () => clearTimeout(later);
  });
  return SeenStore.earlier(earlier, key);
}
