import type { Ladder } from "./ladder";

/** What a ladder that was made from a search is: exploratory where some of its respondents had a part in choosing it, else a test on new ones. */
export type ExploratoryMark =
  /** Of its respondents so many chose it; no respondents: they are not known yet. */
  { kind: "exploratory"; said: string; shared: number; used: number } | { kind: "on-others"; said: string; used: number };

/** Rows (from 1) as bits, in letters that a document can hold. */
export function rowsAsLetters(rows: ArrayLike<number>): string {
  let last = 0;
  for (let i = 0; i < rows.length; i++) last = Math.max(last, rows[i]!);
  const bytes = new Uint8Array((last >> 3) + 1);
  for (let i = 0; i < rows.length; i++) bytes[rows[i]! >> 3]! |= 1 << (rows[i]! & 7);
  let text = "";
  for (const byte of bytes) text += String.fromCharCode(byte);
  return btoa(text);
}

/** Rows of both. */
export function joinedRows(a: string, b: string): string {
  if (a === "" || b === "") return a || b;
  const [one, other] = [atob(a), atob(b)];
  const text = Array.from({ length: Math.max(one.length, other.length) }, (_, i) =>
    String.fromCharCode((one.charCodeAt(i) || 0) | (other.charCodeAt(i) || 0)),
  );
  return btoa(text.join(""));
}

/**
 * @param rowsUsed rows of the ladder's sample, from 1
 * @returns null for a ladder that no search has made
 */
export function exploratoryMark(ladder: Pick<Ladder, "exploratory" | "searchedOn">, rowsUsed: ArrayLike<number>): ExploratoryMark | null {
  const { exploratory: said, searchedOn } = ladder;
  if (said === "") return null;
  const used = rowsUsed.length;
  // nobody knows on whom: then on all
  if (searchedOn === "") return { kind: "exploratory", said, shared: used, used };
  const bits = atob(searchedOn);
  let shared = 0;
  for (let i = 0; i < used; i++) if ((bits.charCodeAt(rowsUsed[i]! >> 3) || 0) & (1 << (rowsUsed[i]! & 7))) shared++;
  return shared === 0 && used > 0 ? { kind: "on-others", said, used } : { kind: "exploratory", said, shared, used };
}

/** What stays with a ladder through every change: that a search has made it, and on whom. */
export function withItsSearch(before: Ladder, to: Ladder): Ladder {
  if (before.exploratory === "") return to;
  const kept = to.exploratory.startsWith(before.exploratory);
  return { ...to, exploratory: kept ? to.exploratory : before.exploratory, searchedOn: joinedRows(before.searchedOn, to.searchedOn) };
}
