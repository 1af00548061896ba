import type { Words } from "./words";

/** A table of set cells as a journal prints it; rows of the same width as the head. */
export interface PrintTable {
  title: Words;
  head: Words[];
  sections: { heading: Words; rows: Words[][] }[];
  note: Words;
}
