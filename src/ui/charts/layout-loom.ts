import { wrapped } from "./wrapped";

/** What came in and what went at one size of one method. */
export interface LoomCell {
  size: number;
  came: readonly string[];
  went: readonly string[];
}

export interface LoomRow {
  key: string;
  name: string;
  cells: readonly LoomCell[];
}

/** Where everything of a loom lies, in pixels. */
export interface Loom {
  width: number;
  height: number;
  left: number;
  cell: number;
  /** Upper and lower end of the lines above. */
  top: number;
  foot: number;
  rows: { key: string; name: string; y: number; height: number; chips: Chip[] }[];
}

interface Chip {
  x: number;
  y: number;
  /** At most two lines; what is longer ends in …. */
  lines: string[];
  full: string;
  gone: boolean;
}

const LEFT = 106;
const LINES = 150;
const TOP = 16;
const AXIS = 34;
const CHIP = 31;
const GAP = 5;
const LETTER = 5.6;

/**
 * Columns are sizes 0 … most; lines have their place above, below them a row a method with a chip for each that came in or went.
 * @param room width that is there; what needs more becomes wider
 */
export function layoutLoom(rows: readonly LoomRow[], most: number, room = 790): Loom {
  const cell = Math.max(50, Math.min(104, (room - LEFT) / (most + 1)));
  const letters = Math.floor((cell - 6) / LETTER);
  const foot = TOP + LINES;
  let y = foot + AXIS;
  const placed = rows.map(({ key, name, cells }) => {
    const chips = cells.flatMap(
      ({ size, came, went }) =>
      [...came.map((full) => ({ full, gone: false })), ...went.map((full) => ({ full, gone: true }))].map(({ full, gone }, k) => ({ x: LEFT + size * cell, y: y + k * CHIP, lines: wrapped(full, letters, 2), full, gone })), // prettier-ignore
    );
    const height = CHIP * Math.max(1, ...cells.map(({ came, went }) => came.length + went.length));
    const row = { key, name, y, height, chips };
    y += height + GAP;
    return row;
  });
  return { width: LEFT + (most + 1) * cell + 4, height: y + 22, left: LEFT, cell, top: TOP, foot, rows: placed };
}
