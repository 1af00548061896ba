/** Marks between the answers of a cell that holds several. */
export const SEPARATORS = [";", "|", "\n", ",", "/"] as const;
export type Separator = (typeof SEPARATORS)[number];

/** The answers of a cell, each once. */
export function choicesIn(cell: string, separator: Separator): string[] {
  return [...new Set(cell.split(separator).map((part) => part.trim()))].filter((part) => part !== "");
}
