import { UnknownLevelError } from "../errors";

/** A categorical variable of the analysis sample: the level of case i is levels[codes[i]]. */
export interface Category {
  /** In codebook order; may hold levels without a case. */
  readonly levels: readonly string[];
  readonly codes: Int32Array;
}

/** How a category becomes columns: 0/1 against a reference level, or deviations from the unweighted mean of the levels. */
export type CategoryCoding = "indicator" | "deviation";

export interface CategoryChoice {
  readonly coding: CategoryCoding;
  /** Null, or a level without cases: the first level that has some. */
  readonly reference: string | null;
}

/** What stands for each level in the columns of a category. Always viewable. */
export interface CodingTable {
  readonly variable: string;
  readonly coding: CategoryCoding;
  readonly reference: string;
  /** Levels that have a column, in codebook order: every level with cases but the reference. */
  readonly columns: readonly string[];
  /** Per level with cases, in codebook order: its value in each column, and how many cases it has. */
  readonly levels: readonly { readonly level: string; readonly cases: number; readonly values: readonly number[] }[];
  /** Levels without a case in the sample: they take no column. */
  readonly empty: readonly string[];
  /** The reference that was chosen, when nobody in the sample has it; else null. */
  readonly replacedReference: string | null;
}

/**
 * The coding of a category on its sample (docs/methods.md, “Categories”). The reference level has 0 in every column, or −1 with
 * deviation coding.
 * @param choice null: indicator coding against the first level that has cases
 * @throws UnknownLevelError when the chosen reference is none of the levels
 */
export function codingTable(variable: string, category: Category, choice: CategoryChoice | null): CodingTable {
  const cases = new Array<number>(category.levels.length).fill(0);
  for (const code of category.codes) cases[code]!++;
  const filled = category.levels.filter((_, i) => cases[i]! > 0);
  const wanted = choice?.reference ?? null;
  if (wanted !== null && !category.levels.includes(wanted)) throw new UnknownLevelError({ variable, level: wanted });
  const reference = wanted !== null && filled.includes(wanted) ? wanted : (filled[0] ?? category.levels[0] ?? "");
  const coding = choice?.coding ?? "indicator";
  const columns = filled.filter((level) => level !== reference);
  const values = (level: string) => {
    if (level === reference) return columns.map(() => (coding === "deviation" ? -1 : 0));
    return columns.map((column) => (column === level ? 1 : 0));
  };
  return {
    variable,
    coding,
    reference,
    columns,
    levels: filled.map((level) => ({ level, cases: cases[category.levels.indexOf(level)]!, values: values(level) })),
    empty: category.levels.filter((_, i) => cases[i] === 0),
    replacedReference: wanted !== null && wanted !== reference ? wanted : null,
  };
}

/** One column of a category for all cases. */
export function categoryColumn(category: Category, table: CodingTable, column: number): Float64Array {
  const byCode = category.levels.map((level) => table.levels.find((l) => l.level === level)?.values[column] ?? 0);
  const values = new Float64Array(category.codes.length);
  for (let i = 0; i < values.length; i++) values[i] = byCode[category.codes[i]!]!;
  return values;
}
