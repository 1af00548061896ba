"use client";

import {
  closestCenter,
  type CollisionDetection,
  type DragEndEvent,
  DndContext,
  DragOverlay,
  KeyboardSensor,
  PointerSensor,
  pointerWithin,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { sortableKeyboardCoordinates } from "@dnd-kit/sortable";
import { type ReactNode, useState } from "react";
import { listed } from "@/study/report/format-number";
import { carriedWords, howByKeys } from "@/ui/parts/carried";
import css from "./scales.module.css";

/** What is being dragged: items from the bench, or one that stands in the open scale. */
export interface Dragged {
  names: string[];
  from: "bench" | "sheet";
}

/** Where it can be let go: before or after a row of the open scale, anywhere on its sheet, on the title of a scale, on the place for a new one, on the bench. */
export type DropPlace =
  { kind: "row"; index: number } | { kind: "sheet" } | { kind: "title"; scale: string; name: string } | { kind: "new" } | { kind: "bench" };

const placeOf = (over: { data: { current?: unknown } } | null) => (over?.data.current as { place?: DropPlace } | undefined)?.place ?? null;
const draggedOf = (active: { data: { current?: unknown } }) => (active.data.current as { dragged?: Dragged } | undefined)?.dragged ?? null;

/** The row under the pointer, or the place it is in; by keyboard the nearest row. */
const collisions: CollisionDetection = (args) => {
  const isRow = (id: unknown) => placeOf(args.droppableContainers.find((c) => c.id === id) ?? null)?.kind === "row";
  if (!args.pointerCoordinates) return closestCenter({ ...args, droppableContainers: args.droppableContainers.filter((c) => isRow(c.id)) });
  const hits = pointerWithin(args);
  const rows = hits.filter((hit) => isRow(hit.id));
  return rows.length > 0 ? rows : hits;
};

/** Lets items be carried from place to place with the pointer, and rows with the keyboard. */
export function ScalesDrag(props: {
  title: (name: string) => string;
  onDrop: (dragged: Dragged, place: DropPlace) => void;
  children: ReactNode;
}) {
  const [carried, setCarried] = useState<Dragged | null>(null);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const end = ({ active, over }: DragEndEvent) => {
    setCarried(null);
    const [dragged, place] = [draggedOf(active), placeOf(over)];
    if (dragged && place) props.onDrop(dragged, place);
  };
  const words = (active: Parameters<typeof draggedOf>[0]) => listed((draggedOf(active)?.names ?? []).map(props.title));
  const announcements = carriedWords(words, (over) => placeWords(placeOf(over)));
  return (
    <DndContext
      id="scales"
      sensors={sensors}
      collisionDetection={collisions}
      accessibility={{ announcements, screenReaderInstructions: howByKeys("item") }}
      onDragStart={({ active }) => setCarried(draggedOf(active))}
      onDragEnd={end}
      onDragCancel={() => setCarried(null)}
    >
      {props.children}
      <DragOverlay dropAnimation={null}>
        {carried && (
          <span className={css.carried}>
            {carried.names.length > 3 ? `${carried.names.length} items` : carried.names.map(props.title).join(", ")}
          </span>
        )}
      </DragOverlay>
    </DndContext>
  );
}

function placeWords(place: DropPlace | null): string | null {
  switch (place?.kind) {
    case "row":
      return `at place ${place.index + 1} of the scale`;
    case "sheet":
      return "at the end of the scale";
    case "title":
      return `in ${place.name}`;
    case "new":
      return "as a new scale";
    case "bench":
      return "out of the scale";
    default:
      return null;
  }
}

/** Makes an element a place where items can be let go. */
export function useDropPlace(id: string, place: DropPlace) {
  const { setNodeRef, isOver, active } = useDroppable({ id, data: { place } });
  return { attach: setNodeRef, isOver, carrying: active !== null };
}

/** Lets an item of the bench be carried, with all that are chosen together with it. By pointer: keyboards use the buttons below the bench. */
export function useBenchDrag(name: string, names: string[]) {
  const { setNodeRef, listeners, isDragging } = useDraggable({
    id: `bench ${name}`,
    data: { dragged: { names, from: "bench" } satisfies Dragged },
  });
  return { attach: setNodeRef, onPointerDown: listeners?.["onPointerDown"] as React.PointerEventHandler | undefined, isDragging };
}
