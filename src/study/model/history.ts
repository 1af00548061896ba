import { z } from "zod";

/**
 * How a revision came about: by a person's change, by taking one back, by doing it again, by going back to an earlier point, or by erasing a respondent
 * who withdrew. */
export const RevisionKind = z.enum(["edit", "undo", "redo", "restore", "withdrawal"]);
export type RevisionKind = z.infer<typeof RevisionKind>;

/** One step of the trail: what came about, and of which revision it is the undoing, the redoing or the point gone back to. */
export interface RevisionMark {
  revision: number;
  how: RevisionKind;
  of: number | null;
}

/**
 * Which revision would be taken back next, and which done again: the latest change that is not taken back, and the
 * latest that is and that no newer change has overtaken. Works from the record alone, so it outlives a restart.
 * @param marks oldest first; the import itself (revision 1) is never taken back, nor a withdrawal, nor what was before it
 */
export function undoable(marks: readonly RevisionMark[]): { undo: number | null; redo: number | null } {
  const done: number[] = [];
  const undone: number[] = [];
  for (const { revision, how } of marks) {
    if (revision === 1) continue;
    if (how === "undo") {
      done.pop();
      // to do it again is to take the undoing back
      undone.push(revision);
    } else if (how === "redo") {
      undone.pop();
      done.push(revision);
    } else if (how === "withdrawal") {
      // what was before it would bring the answers back
      done.length = 0;
      undone.length = 0;
    } else {
      done.push(revision);
      undone.length = 0;
    }
  }
  return { undo: done.at(-1) ?? null, redo: undone.at(-1) ?? null };
}
