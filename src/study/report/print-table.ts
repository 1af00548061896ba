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
