"use client";

import { useEffect } from "react";
import type { LadderResult } from "@/study/analyse/analyse-ladder";
import { type FirstNumbers, resultOf, resultText } from "@/study/model/first-numbers";
import type { Ladder } from "@/study/model/ladder";
import { firstKey, firstNumbersOf, PROGRAM } from "./first-numbers";
import { useStudy } from "./study-context";
import { type Computed, useGiven } from "./use-computed";

/** How long numbers must stand before they are kept: those that pass by while something is being changed are not. */
const REST_MS = 1500;

/** The key of what the server has of each ladder, as far as this page knows. */
const kept = new Map<string, string>();
const placeOf = (study: string, ladder: string) => `${study} ${ladder}`;

/** Draws a ladder by the numbers the server has kept of it, should they belong to the ladder as it stands. */
export function useFirstNumbers(ladder: Ladder | null, first: FirstNumbers | null): void {
  const { dataset, store } = useStudy();
  useGiven(
    "ladder",
    ladder,
    first && ((job) => (firstKey(job, dataset.id, PROGRAM) === first.key ? (resultOf(first.result) as LadderResult) : null)),
  );
  useEffect(() => {
    if (first && !kept.has(placeOf(store.id, first.id))) kept.set(placeOf(store.id, first.id), first.key);
  }, [first, store]);
}

/** Keeps a ladder's numbers with the study once they stand, so that opening it again shows them at once. Losing them costs time alone. */
export function useKeepFirst(ladder: Ladder, { result, outdated }: Computed<LadderResult>): void {
  const { study, store } = useStudy();
  const stands = outdated ? null : result;
  useEffect(() => {
    if (stands === null || PROGRAM === "") return;
    const later = setTimeout(() => {
      const place = firstNumbersOf(study, ladder, PROGRAM);
      const text = kept.get(placeOf(store.id, ladder.id)) === place.key ? null : resultText(stands);
      if (text !== null) send(store.id, { ...place, result: text });
    }, REST_MS);
    return () => clearTimeout(later);
  }, [study, store, ladder, stands]);
}

function send(study: string, numbers: FirstNumbers): void {
  kept.set(placeOf(study, numbers.id), numbers.key);
  const request = { method: "PUT", headers: { "content-type": "application/json" }, body: JSON.stringify(numbers) };
  void fetch(`/api/studies/${study}/first-numbers`, request).catch(() => kept.delete(placeOf(study, numbers.id)));
}
