"use client";

import { type KeyboardEvent, useState } from "react";

const MOVES: Record<string, readonly [number, number]> = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] };

/**
 * One stop of the Tab key for a whole table of numbers; the arrow keys go from one to the next that is there.
 * Cells are found by `data-cell="row column"` below the element that hears the keys.
 */
export function useCellKeys(first: string) {
  const [stop, setStop] = useState(first);
  const onKeyDown = (event: KeyboardEvent<HTMLElement>) => {
    const move = MOVES[event.key];
    const from = (event.target as HTMLElement).closest<HTMLElement>("[data-cell]")?.dataset["cell"];
    if (!move || !from || event.shiftKey) return;
    const cells = new Map(
      [...event.currentTarget.querySelectorAll<HTMLElement>("[data-cell]")].map((cell) => [cell.dataset["cell"]!, cell]),
    );
    let [row, column] = from.split(" ").map(Number) as [number, number];
    for (let steps = 0; steps < 500; steps++) {
      row += move[0];
      column += move[1];
      if (row < 0 || column < 0) break;
      const next = cells.get(`${row} ${column}`);
      if (!next) continue;
      event.preventDefault();
      next.focus();
      return;
    }
  };
  return { stop, setStop, onKeyDown };
}
