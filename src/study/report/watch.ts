import type { Words } from "./words";

/** A caution, and what can be done about it: as data, which the room that shows it carries out. */
export interface Watch<Fix> {
  id: string;
  words: Words;
  fixes?: readonly Fix[];
}
