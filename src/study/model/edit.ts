import { z } from "zod";
import { Comparison } from "./comparison";
import { Ladder } from "./ladder";
import { ObjectId, Title, VariableName } from "./names";
import { Scale } from "./scale";
import { Study } from "./study";
import { Variable } from "./variable";

/**
 * One change a person asks for: which object, and what it should become. `to: null` removes it; `at` is the place
 * in the list where a new one stands (the end, if left out). There is no other way to change a study.
 */
export const Edit = z.discriminatedUnion("subject", [
  z.strictObject({ subject: z.literal("name"), to: Title }),
  z.strictObject({ subject: z.literal("variable"), id: VariableName, to: Variable }),
  z.strictObject({ subject: z.literal("scale"), id: ObjectId, to: Scale.nullable(), at: z.int().min(0).optional() }),
  z.strictObject({ subject: z.literal("ladder"), id: ObjectId, to: Ladder.nullable(), at: z.int().min(0).optional() }),
  z.strictObject({ subject: z.literal("comparison"), id: ObjectId, to: Comparison.nullable(), at: z.int().min(0).optional() }),
]);
export type Edit = z.infer<typeof Edit>;

/** One or more edits that belong together: they take effect all or none. */
export const EditSet = z.array(Edit).min(1).max(2000);

/** What the trail keeps: the edit with what was there before. Swapping `from` and `to` takes it back. */
export interface Change {
  subject: Edit["subject"];
  id: string;
  from: unknown;
  to: unknown;
  at: number | null;
}

/** An edit that cannot be carried out, with the reason in words for the screen. */
export class EditRefusedError extends Error {
  readonly code = "edit-refused";
}

/**
 * Carries out edits on a study document.
 * @returns the new study, checked as a whole, and a change for each edit
 * @throws EditRefusedError when the object is not there, is still used, or the study would no longer be sound
 */
export function applyEdits(study: Study, edits: readonly Edit[]): { study: Study; changes: Change[] } {
  let current = study;
  const changes: Change[] = [];
  for (const edit of edits) {
    const done = applyOne(current, edit);
    current = done.study;
    changes.push(done.change);
  }
  const checked = Study.safeParse(current);
  if (!checked.success) throw new EditRefusedError(checked.error.issues.map((issue) => issue.message).join(" "));
  return { study: checked.data, changes };
}

function applyOne(study: Study, edit: Edit): { study: Study; change: Change } {
  switch (edit.subject) {
    case "name":
      return { study: { ...study, name: edit.to }, change: { subject: "name", id: "study", from: study.name, to: edit.to, at: null } };
    case "variable": {
      const at = study.codebook.findIndex((v) => v.name === edit.id);
      if (at < 0) throw new EditRefusedError(`There is no variable "${edit.id}".`);
      if (edit.to.name !== edit.id) throw new EditRefusedError("A variable keeps the name it has in the data file.");
      const change: Change = { subject: "variable", id: edit.id, from: study.codebook[at], to: edit.to, at };
      return { study: { ...study, codebook: study.codebook.with(at, edit.to) }, change };
    }
    case "scale": {
      const { list, change } = put(study.scales, edit);
      return { study: { ...study, scales: list }, change };
    }
    case "ladder": {
      const { list, change } = put(study.ladders, edit);
      return { study: { ...study, ladders: list }, change };
    }
    case "comparison": {
      const { list, change } = put(study.comparisons, edit);
      return { study: { ...study, comparisons: list }, change };
    }
  }
}

function put<T extends { id: string }>(
  list: readonly T[],
  edit: { subject: "scale" | "ladder" | "comparison"; id: string; to: T | null; at?: number | undefined },
): { list: T[]; change: Change } {
  if (edit.to && edit.to.id !== edit.id) throw new EditRefusedError("An object keeps its id.");
  const found = list.findIndex((o) => o.id === edit.id);
  if (found < 0 && edit.to === null) throw new EditRefusedError(`There is no ${edit.subject} "${edit.id}" to remove.`);
  const at = found < 0 ? Math.min(edit.at ?? list.length, list.length) : found;
  const next = [...list];
  if (found < 0) next.splice(at, 0, edit.to!);
  else if (edit.to) next[at] = edit.to;
  else next.splice(at, 1);
  return { list: next, change: { subject: edit.subject, id: edit.id, from: list[found] ?? null, to: edit.to, at } };
}

/** The edit that takes a change back. */
export function inverseEdit(change: Change): Edit {
  if (change.subject === "name") return Edit.parse({ subject: "name", to: change.from });
  if (change.subject === "variable") return Edit.parse({ subject: "variable", id: change.id, to: change.from });
  return Edit.parse({ subject: change.subject, id: change.id, to: change.from, at: change.at ?? undefined });
}
