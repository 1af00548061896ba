import type { FilterResult } from "../analyse/responses/filter-result";
import { filterInputs } from "../model/dependencies";
import { ObjectId } from "../model/names";
import { RespondentFilter } from "../model/respondent-filter";
import type { AskedKind, KeptKind } from "./kind";

/** Who is kept, and why; asked, how many. */
export const filter = {
  kind: "filter",
  list: "filters",
  schema: RespondentFilter,
  id: ObjectId,
  word: "Filter",
  fieldWords: { everywhere: "whole study" },
  place: "responses",
  idOf: (f: RespondentFilter) => f.id,
  nameOf: (f: RespondentFilter) => f.name,
  opens: { at: () => "responses#filters", words: (f: RespondentFilter) => f.reason },
  spec: RespondentFilter,
  specOf: (f: RespondentFilter) => ({ ...f, name: "-", reason: "" }),
  needs: (f: RespondentFilter) => ({ names: filterInputs(f).map((name) => ({ name })) }),
  load: () => import("../analyse/responses/filter-result"),
} satisfies KeptKind<"filter", "filters", RespondentFilter> & AskedKind<"filter", RespondentFilter, RespondentFilter, FilterResult>;
