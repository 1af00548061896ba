import type { Announcements, UniqueIdentifier } from "@dnd-kit/core";

/**
 * What is said while a row of a list is carried by keys: its name and its place, never an id.
 * @param what one row, as the instructions call it: "block"
 * @param ids the rows in their order
 */
export function listCarried(what: string, ids: readonly UniqueIdentifier[], nameOf: (id: UniqueIdentifier) => string) {
  const begins = (id: UniqueIdentifier) => nameOf(id).replace(/^./u, (letter) => letter.toUpperCase());
  const at = (id: UniqueIdentifier) => `at place ${ids.indexOf(id) + 1} of ${ids.length}`;
  const announcements: Announcements = {
    onDragStart: ({ active }) => `${begins(active.id)} picked up.`,
    onDragOver: ({ active, over }) => `${begins(active.id)} ${over ? at(over.id) : "over no place that takes it"}.`,
    onDragEnd: ({ active, over }) => (over ? `${begins(active.id)} put down ${at(over.id)}.` : `${begins(active.id)} stays where it was.`),
    onDragCancel: ({ active }) => `${begins(active.id)} stays where it was.`,
  };
  return {
    announcements,
    screenReaderInstructions: {
      draggable: `Press Space to pick the ${what} up, arrow keys to move it, Space to put it down, Escape to leave it.`,
    },
  };
}
