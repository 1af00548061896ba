"use client";

import { useStudy } from "@/features/study/study-context";
import { type Computed, useAsked } from "@/features/study/use-computed";
import type { LookResult } from "@/study/analyse/responses/variable-look";
import type { DerivedVariable } from "@/study/model/derived";
import { Variable } from "@/study/model/variable";

/** What a derived variable would hold that is not in the study yet, or as its recipe is being changed. */
export function useDraftLook(draft: DerivedVariable): Computed<LookResult> {
  const { study } = useStudy();
  const { name } = draft;
  const codebook = study.codebook.some((v) => v.name === name) ? study.codebook : [...study.codebook, Variable.parse({ name })];
  const derived = [...study.derived.filter((d) => d.name !== name), draft];
  return useAsked("look", { name }, { subject: `look ${name}`, study: { ...study, codebook, derived } });
}
