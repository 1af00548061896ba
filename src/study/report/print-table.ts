import type { PrintedCells } from "../model/printed";
import type { Words } from "./words";

/** A table of set cells as a journal prints it; rows of the same width as the head. */
export interface PrintTable {
  title: Words;
  /** Headings that stand over several columns each, in their order; what is "" stands over nothing. */
  over?: { words: Words; columns: number }[] | undefined;
  head: Words[];
  sections: { heading: Words; rows: Words[][] }[];
  note: Words;
}

/** The table as a study keeps it, its parts always in the same order: two that print alike are the same text. */
export function keptCells({ title, over, head, sections, note }: PrintTable): PrintedCells {
  const kept = { title, ...(over ? { over: over.map(({ words, columns }) => ({ words, columns })) } : {}), head, sections: sections.map(({ heading, rows }) => ({ heading, rows })), note }; // prettier-ignore
  return kept as unknown as PrintedCells;
}
