import type { CaseFilter } from "../model/ladder";
import { type Study, titleOf } from "../model/study";

type Names = Pick<Study, "codebook" | "scales" | "filters">;

/** Who is in, as it reads after "among". */
export function filterWords(study: Names, filter: CaseFilter | null, respondents: string | null = null): string {
  const named = study.filters.find((f) => f.id === respondents);
  if (named) return `respondents in “${named.name}”`;
  return filter ? `respondents with ${titleOf(study, filter.variable)} ${filter.equals.join(" or ")}` : everyone(study);
}

/** Everybody, or everybody whom the filters that hold for the whole study leave in it. */
export const everyone = (study: Names) => (study.filters.some((f) => f.everywhere) ? "all respondents in the study" : "all respondents");
