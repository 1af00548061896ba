"use client";

import { useStudy } from "@/features/study/study-context";
import { useBegin } from "@/features/study/use-computed";
import type { Ladder } from "@/study/model/ladder";

/** Changes a ladder; its new numbers are begun at the same moment. */
export function useChangeLadder(): (to: Ladder) => void {
  const { store } = useStudy();
  const begin = useBegin("ladder");
  return (to) => {
    begin(to);
    store.edit({ subject: "ladder", id: to.id, to });
  };
}
