import { z } from "zod";
import { EditSet } from "@/study/model/edit";
import { RevisionKind } from "@/study/model/history";

/** Edits that were asked for here and are not yet confirmed as saved. */
export const UnsavedEdits = z.strictObject({
  /** Known to the server by it when they are sent a second time. */
  id: z.uuid(),
  edits: EditSet,
  how: RevisionKind,
  of: z.int().nullable(),
});
export type UnsavedEdits = z.infer<typeof UnsavedEdits>;

/** Where they outlive a reload of the page. */
export type UnsavedShelf = Pick<Storage, "getItem" | "setItem" | "removeItem">;

const keyOf = (study: string) => `beta-step-unsaved ${study}`;

/** What is not saved, and the revision it was made on. */
const Shelved = z.strictObject({ on: z.int().min(1), edits: z.array(UnsavedEdits).min(1) });
type Shelved = z.infer<typeof Shelved>;

/** What an earlier load of this page could not save any more; null when there is nothing. */
export function unsavedOf(study: string, shelf: UnsavedShelf | null): Shelved | null {
  try {
    return Shelved.parse(JSON.parse(shelf?.getItem(keyOf(study)) ?? "null"));
  } catch {
    return null; // nothing, of another version, or a browser that keeps nothing
  }
}

/** Only until they are saved: answers do not stay in the browser. */
export function keepUnsaved(study: string, unsaved: Shelved, shelf: UnsavedShelf | null): void {
  try {
    if (unsaved.edits.length === 0) shelf?.removeItem(keyOf(study));
    else shelf?.setItem(keyOf(study), JSON.stringify(unsaved));
  } catch {
    // full, or a browser that keeps nothing: they are on the page all the same
  }
}

/** A random id; also where the page's address is not one that browsers call secure. */
export function randomId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  bytes[6] = (bytes[6]! & 0x0f) | 0x40;
  bytes[8] = (bytes[8]! & 0x3f) | 0x80;
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, "0")).join("");
  return hex.replace(/^(.{8})(.{4})(.{4})(.{4})/, "$1-$2-$3-$4-");
}
