import type { Active, Announcements, Over, UniqueIdentifier } from "@dnd-kit/core";

/**
 * What is said while something is carried: what it is and where it would stand, never an id.
 * @param place where it would be let go: "in step 2"; null where nothing takes it
 */
export function carriedWords(what: (active: Active) => string, place: (over: Over | null) => string | null): Announcements {
  const stays = (active: Active) => `${what(active)} stays where it was.`;
  return {
    onDragStart: ({ active }) => `${what(active)} picked up.`,
    onDragOver: ({ active, over }) => `${what(active)} ${place(over) ?? "over no place that takes it"}.`,
    onDragEnd: ({ active, over }) => {
      const at = place(over);
      return at === null ? stays(active) : `${what(active)} put down ${at}.`;
    },
    onDragCancel: ({ active }) => stays(active),
  };
}

/**
 * The same of a list whose rows are carried by keys, with how that is done.
 * @param what one row, as the instructions call it: "block"
 * @param ids the rows in their order
 */
export function listCarried(what: string, ids: readonly UniqueIdentifier[], nameOf: (id: UniqueIdentifier) => string) {
  return {
    announcements: carriedWords(
      ({ id }) => nameOf(id).replace(/^./u, (letter) => letter.toUpperCase()),
      (over) => over && `at place ${ids.indexOf(over.id) + 1} of ${ids.length}`,
    ),
    screenReaderInstructions: howByKeys(what),
  };
}

export const howByKeys = (what: string) => ({
  draggable: `Press Space to pick the ${what} up, arrow keys to move it, Space to put it down, Escape to leave it.`,
});
