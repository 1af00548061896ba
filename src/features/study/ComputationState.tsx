"use client";

import type { Refusal } from "@/study/analyse/refusal";
import { refusalWords } from "@/study/report/refusals";
import page from "@/ui/parts/page.module.css";
import { StillComputing } from "@/ui/parts/StillComputing";
import { useStudy } from "./study-context";
import type { Computed } from "./use-computed";

/** Everything between asking for numbers and having them: still computing, broken off, or refused with its reason. */
export function ComputationState({ of: computed, refusal }: { of: Computed<unknown>; refusal: Refusal | null }) {
  const { title } = useStudy();
  const refused = refusal && !computed.outdated ? refusalWords(refusal, title) : null;
  return (
    <>
      {computed.fault && (
        <p className={page.refusal} role="alert">
          {computed.fault}{" "}
          <button type="button" className="link" onClick={computed.retry}>
            Compute again
          </button>
        </p>
      )}
      {computed.computing && <StillComputing progress={computed.progress} onStop={computed.stop} />}
      {refused && (
        <p className={page.refusal} role="status" data-testid="refusal">
          {refused.what} {refused.remedy}
        </p>
      )}
    </>
  );
}
