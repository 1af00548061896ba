"use client";

import {
  type CollisionDetection,
  type DragEndEvent,
  DndContext,
  DragOverlay,
  PointerSensor,
  pointerWithin,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { type ReactNode, useState } from "react";
import { carriedWords } from "@/ui/parts/carried";
import css from "./flight.module.css";

/** What is being carried: a variable from the list, a term of a step, or a step. Steps are counted from 0. */
export type Dragged =
  { kind: "name"; name: string } | { kind: "term"; step: number; components: readonly string[] } | { kind: "step"; step: number };

/** Where it can be let go: in a step, before one of its terms, or below the last step. */
export type DropPlace = { kind: "step"; step: number } | { kind: "term"; step: number; place: number } | { kind: "new-step" };

const placeOf = (over: { data: { current?: unknown } } | null) => (over?.data.current as { place?: DropPlace } | undefined)?.place ?? null;
const draggedOf = (active: { data: { current?: unknown } }) =>
  (active.data.current as { dragged?: Dragged; words?: string } | undefined) ?? null;

/** The term under the pointer, or the step it is in. A step that is carried looks for steps only. */
const collisions: CollisionDetection = (args) => {
  const kindOf = (id: unknown) => placeOf(args.droppableContainers.find((c) => c.id === id) ?? null)?.kind;
  const hits = pointerWithin(args);
  const steps = hits.filter((hit) => kindOf(hit.id) !== "term");
  const terms = draggedOf(args.active)?.dragged?.kind === "step" ? [] : hits.filter((hit) => kindOf(hit.id) === "term");
  return terms.length > 0 ? terms : steps;
};

/** Lets terms, steps and variables be carried with the pointer. By keyboard the same is done with Shift and the arrow keys, and with the buttons below the steps. */
export function LaddersDrag(props: { onDrop: (dragged: Dragged, place: DropPlace) => void; children: ReactNode }) {
  const [carried, setCarried] = useState<string | null>(null);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const end = ({ active, over }: DragEndEvent) => {
    setCarried(null);
    const [dragged, place] = [draggedOf(active)?.dragged, placeOf(over)];
    if (dragged && place) props.onDrop(dragged, place);
  };
  const words = (active: Parameters<typeof draggedOf>[0]) => draggedOf(active)?.words ?? "";
  const announcements = carriedWords(words, (over) => placeWords(placeOf(over)));
  return (
    <DndContext
      id="ladders"
      sensors={sensors}
      collisionDetection={collisions}
      accessibility={{ announcements }}
      onDragStart={({ active }) => setCarried(words(active))}
      onDragEnd={end}
      onDragCancel={() => setCarried(null)}
    >
      {props.children}
      <DragOverlay dropAnimation={null}>{carried !== null && <span className={css.carried}>{carried}</span>}</DragOverlay>
    </DndContext>
  );
}

function placeWords(place: DropPlace | null): string | null {
  switch (place?.kind) {
    case "step":
      return `in step ${place.step + 1}`;
    case "term":
      return `in step ${place.step + 1}, place ${place.place + 1}`;
    case "new-step":
      return "in a new step";
    default:
      return null;
  }
}

/** Makes an element a place where something can be let go. */
export function useDropPlace(id: string, place: DropPlace) {
  const { setNodeRef, isOver, active } = useDroppable({ id, data: { place } });
  return { attach: setNodeRef, isOver, carrying: active !== null };
}

/** Lets an element be carried with the pointer. @param words what is carried, for the eye and for a screen reader */
export function useCarry(id: string, dragged: Dragged, words: string) {
  const { setNodeRef, listeners, isDragging } = useDraggable({ id, data: { dragged, words } });
  return { attach: setNodeRef, onPointerDown: listeners?.["onPointerDown"] as React.PointerEventHandler | undefined, isDragging };
}
