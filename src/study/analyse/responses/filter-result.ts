import type { Analysis } from "../../kinds/kind";
import type { RespondentFilter } from "../../model/respondent-filter";
import type { StudyColumns } from "../../prepare/study-columns";
import { type Refusal, refusalOf } from "../refusal";

/** Whom a filter keeps, or why that cannot be told. */
export type FilterResult =
  | { status: "kept"; kept: number; leftOut: number; /** Values that it names and no cell has. */ unmet: string[] }
  | { status: "refused"; refusal: Refusal };

/** Counts whom a filter keeps of all respondents. */
export function filterResult(filter: RespondentFilter, columns: StudyColumns, rows: number): FilterResult {
  try {
    const kept = columns.passes(filter, rows).reduce((sum, passes) => sum + passes, 0);
    return { status: "kept", kept, leftOut: rows - kept, unmet: columns.unmet(filter.conditions) };
  } catch (error) {
    return { status: "refused", refusal: refusalOf(error) };
  }
}

export const analysis: Analysis<RespondentFilter, RespondentFilter, FilterResult> = {
  run: (filter, { columns, rows }) => filterResult(filter, columns, rows),
};
