import { newId } from "@/study/model/new-id";
import type { RespondentFilter } from "@/study/model/respondent-filter";
import type { Study } from "@/study/model/study";

/**
 * A named filter that leaves these rows out, besides whom the one chosen so far leaves out. It holds where it is chosen.
 * @param respondents the filter chosen so far, by its id
 */
export function filterWithout(
  study: Study,
  respondents: string | null,
  { rows, name, reason }: { rows: number[]; name: string; reason: string },
): RespondentFilter {
  const named = study.filters.find((f) => f.id === respondents && !f.everywhere);
  return {
    id: newId(name, study.filters.map((f) => f.id)), // prettier-ignore
    name,
    reason: [reason, ...(named ? [`Besides whom “${named.name}” leaves out.`] : [])].join(" "),
    everywhere: false,
    conditions: [...(named?.conditions ?? []), { kind: "not-rows", rows }],
  };
}
