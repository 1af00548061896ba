import type { Analysis } from "../../kinds/kind";
import type { ResponseColumn } from "../../model/response-column";

/** A column as it counts: corrected or derived. */
export const analysis: Analysis<{ name: string }, { name: string }, ResponseColumn> = {
  run: ({ name }, { columns }) => columns.column(name),
};
