import type { KeyboardCoordinateGetter } from "@dnd-kit/core";

/** Where a block that is moved by arrow keys goes: over the middle of the next one, however high the two are. */
export const oneFurther: KeyboardCoordinateGetter = (event, { active, context: { over, collisionRect, droppableRects } }) => {
  const step = event.code === "ArrowDown" ? 1 : event.code === "ArrowUp" ? -1 : 0;
  if (step === 0 || !collisionRect) return undefined;
  event.preventDefault();
  const inOrder = [...droppableRects].sort(([, a], [, b]) => a.top - b.top);
  const next = inOrder[inOrder.findIndex(([id]) => id === (over?.id ?? active)) + step]?.[1];
  if (!next) return undefined;
  return { x: next.left + (next.width - collisionRect.width) / 2, y: next.top + (next.height - collisionRect.height) / 2 };
};
