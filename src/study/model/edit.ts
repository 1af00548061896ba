import { z } from "zod";
import { KEPT, keptKind, type KeptName, type ObjectOf } from "../kinds/kinds";
import { objectsOf } from "../kinds/standing";
import { Title } from "./names";
import { Study, StudyResponses } from "./study";

/**
 * One change a person asks for: which object, and what it should become. `to: null` removes it; `at` is the place
 * in the list where a new one stands (the end, if left out). There is no other way to change a study.
 */
export type Edit =
  | { subject: "name"; to: string }
  /** Which imported file the study stands on: one that was appended to, or one that replaces another. */
  | { subject: "responses"; to: StudyResponses }
  | { [K in KeptName]: { subject: K; id: string; to: ObjectOf<K> | null; at?: number | undefined } }[KeptName];

const place = z.int().min(0).optional();
const ofObjects = KEPT.map(({ kind, id, schema }) => z.strictObject({ subject: z.literal(kind), id, to: schema.nullable(), at: place }));
export const Edit = z.discriminatedUnion("subject", [
  z.strictObject({ subject: z.literal("name"), to: Title }),
  z.strictObject({ subject: z.literal("responses"), to: StudyResponses }),
  ...ofObjects,
]) as unknown as z.ZodType<Edit>;

/** One or more edits that belong together: they take effect all or none. */
export const EditSet = z.array(Edit).min(1).max(20_000);

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
  const draft = { ...study };
  // each list is copied once, however many of its objects change
  const lists = new Map<string, OwnList>();
  const changes = edits.map((edit) => applyOne(draft, lists, edit));
  const current: Study = draft;
  const checked = Study.safeParse(current);
  if (!checked.success) {
    const messages = [...new Set(checked.error.issues.map((issue) => issue.message))];
    throw new EditRefusedError(messages.slice(0, 5).join(" ") + (messages.length > 5 ? ` And ${messages.length - 5} more.` : ""));
  }
  return { study: checked.data, changes };
}

/** A list of the draft's own, and its objects by their ids. */
interface OwnList {
  list: unknown[];
  byId: Map<string, unknown>;
}

/** Carries one edit out on a draft whose lists are its own. */
function applyOne(draft: Study, lists: Map<string, OwnList>, edit: Edit): Change {
  if (edit.subject === "name" || edit.subject === "responses") {
    const from = draft[edit.subject];
    Object.assign(draft, { [edit.subject]: edit.to });
    return { subject: edit.subject, id: "study", from, to: edit.to, at: null };
  }
  const kind = keptKind(edit.subject);
  const id = kind.idOf;
  if (edit.to && id(edit.to) !== edit.id)
    throw new EditRefusedError(
      edit.subject === "variable" ? "A variable keeps the name it has in the data file." : "An object keeps its id.",
    );
  let own = lists.get(kind.list);
  if (!own) {
    const list = [...objectsOf(draft, kind)] as unknown[];
    own = { list, byId: new Map(list.map((o) => [id(o as never), o])) };
    lists.set(kind.list, own);
    Object.assign(draft, { [kind.list]: list });
  }
  const { list, byId } = own;
  const there = byId.get(edit.id);
  const found = there === undefined ? -1 : list.indexOf(there);
  if (found < 0 && edit.to === null) throw new EditRefusedError(`There is no ${edit.subject} "${edit.id}" to remove.`);
  if (found < 0 && edit.subject === "variable" && edit.at === undefined) throw new EditRefusedError(`There is no variable "${edit.id}".`);
  const to: unknown = edit.to && there !== undefined && kind.carried ? kind.carried(there, edit.to) : edit.to;
  const at = found < 0 ? Math.min(edit.at ?? list.length, list.length) : found;
  if (to) byId.set(edit.id, to);
  else byId.delete(edit.id);
  if (found < 0) list.splice(at, 0, to);
  else if (to) list[at] = to;
  else list.splice(at, 1);
  return { subject: edit.subject, id: edit.id, from: there ?? null, to, at };
}

/** The edit that takes a change back. */
export function inverseEdit(change: Change): Edit {
  const { subject, id, from, at } = change;
  if (subject === "name" || subject === "responses") return Edit.parse({ subject, to: from });
  return Edit.parse({ subject, id, to: from, at: at ?? undefined });
}

/**
 * The edits that turn one state of a study into another: what is no longer there goes, what differs becomes as it was,
 * what is missing comes back to its place.
 */
export function editsBetween(from: Study, to: Study): Edit[] {
  const edits: unknown[] = [];
  if (from.name !== to.name) edits.push({ subject: "name", to: to.name });
  if (to.responses && !same(from.responses, to.responses)) edits.push({ subject: "responses", to: to.responses });
  for (const kind of KEPT) {
    const { kind: subject, idOf: id } = kind;
    const [before, after] = [objectsOf(from, kind), objectsOf(to, kind)];
    const there = new Map(before.map((o) => [id(o), o]));
    const wanted = new Set(after.map(id));
    // from the first object that would stand in another order on, all are taken out and put back in their places
    const order = before.map(id).filter((one) => wanted.has(one));
    const stays = after.map(id).filter((one) => there.has(one));
    const first = stays.findIndex((one, i) => order[i] !== one);
    const turned = new Set(first < 0 ? [] : stays.slice(first));
    for (const o of before) if (!wanted.has(id(o)) || turned.has(id(o))) edits.push({ subject, id: id(o), to: null });
    after.forEach((o, at) => {
      const old = turned.has(id(o)) ? undefined : there.get(id(o));
      if (old === undefined) edits.push({ subject, id: id(o), to: o, at });
      else if (!same(old, o)) edits.push({ subject, id: id(o), to: o });
    });
  }
  return edits.map((edit) => Edit.parse(edit));
}

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
