/** Columns of a step in full that can be chosen; term and estimate always stand there. */
export const FULL_COLUMNS = ["SE", "interval", "beta", "t", "p", "r", "partial", "part", "part2", "tolerance", "VIF"] as const;
export type FullColumn = (typeof FULL_COLUMNS)[number];

/** What each is called on its button. */
export const COLUMN_WORDS: Record<FullColumn, string> = {
  SE: "SE",
  interval: "interval",
  beta: "β",
  t: "t",
  p: "p",
  r: "r",
  partial: "partial",
  part: "part",
  part2: "part²",
  tolerance: "tolerance",
  VIF: "VIF",
};

/** What the journal asks for, and what tells how far predictors overlap. */
export const FIRST_COLUMNS: readonly FullColumn[] = ["SE", "interval", "beta", "t", "p", "r", "partial", "part", "tolerance", "VIF"];

/** What was kept, as far as it names columns. */
export function readColumns(kept: unknown): readonly FullColumn[] | null {
  return Array.isArray(kept) ? FULL_COLUMNS.filter((column) => kept.includes(column)) : null;
}
