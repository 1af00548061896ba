import { partKey } from "@/core/regression/terms";
import { codingTable } from "@/core/regression/categories";
import type { StudyColumns } from "../prepare/study-columns";
import { type Refusal, refusalOf, TooManyLevelsError } from "./refusal";

/** A column of a look: a number, or 1 for one level of a category and 0 for every other. */
export interface LookInput {
  /** `depth`; `coast[south]`. */
  readonly key: string;
  readonly variable: string;
  readonly level: string | null;
  readonly values: Float64Array;
  readonly missing: Uint8Array;
}

/** A category with more levels than this would be columns nobody reads. */
export const MOST_LEVELS = 12;

/** The columns of a look, and what cannot be one. @param kept 1 where a respondent is in: levels that nobody of these has take no column */
export function lookInputs(
  names: readonly string[],
  columns: StudyColumns,
  kept: Uint8Array,
): { inputs: LookInput[]; refused: { variable: string; refusal: Refusal }[] } {
  const refused: { variable: string; refusal: Refusal }[] = [];
  const inputs = names.flatMap((variable): LookInput[] => {
    try {
      if (!columns.isCategory(variable))
        return [{ key: partKey({ variable, level: null }), variable, level: null, ...columns.numbers(variable) }];
      return levelColumns(variable, columns, kept);
    } catch (error) {
      refused.push({ variable, refusal: refusalOf(error) });
      return [];
    }
  });
  return { inputs, refused };
}

/** A column for every level but the first. */
function levelColumns(variable: string, columns: StudyColumns, kept: Uint8Array): LookInput[] {
  const { levels, codes, missing } = columns.categories(variable);
  const present = codes.filter((_, row) => kept[row] === 1 && missing[row] === 0);
  const table = codingTable(variable, { levels, codes: present }, null);
  if (table.columns.length >= MOST_LEVELS) throw new TooManyLevelsError({ variable, levels: table.columns.length + 1, most: MOST_LEVELS });
  return table.columns.map((level) => {
    const code = levels.indexOf(level);
    const values = Float64Array.from(codes, (own, row) => (missing[row] === 0 && own === code ? 1 : 0));
    return { key: partKey({ variable, level }), variable, level, values, missing };
  });
}
