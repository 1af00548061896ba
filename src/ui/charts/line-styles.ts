/** How lines of one picture are told apart, without colour too: by dash and by the label at their end. */
export const LINES = [
  { colour: "var(--rust)", dash: "7 4" },
  { colour: "var(--ink)", dash: "" },
  { colour: "var(--pine)", dash: "2 4" },
  { colour: "var(--slate)", dash: "10 3 2 3" },
  { colour: "var(--ochre)", dash: "4 2" },
  { colour: "var(--moss)", dash: "12 4" },
  { colour: "var(--plum)", dash: "1 3" },
] as const;

export const lineStyle = (i: number) => LINES[i % LINES.length]!;

/** Heights of labels that would stand on one another, moved apart by as little as it takes; order kept. */
export function apart(heights: readonly number[], gap: number, low: number, high: number): number[] {
  const order = heights.map((_, i) => i).sort((a, b) => heights[a]! - heights[b]!);
  const placed = order.map((i) => heights[i]!);
  for (let k = 1; k < placed.length; k++) placed[k] = Math.max(placed[k]!, placed[k - 1]! + gap);
  const over = placed.length === 0 ? 0 : Math.max(0, placed.at(-1)! - high);
  for (let k = placed.length - 1; k >= 0; k--)
    placed[k] = Math.min(placed[k]!, k === placed.length - 1 ? placed[k]! - over : placed[k + 1]! - gap);
  const moved = [...heights];
  order.forEach((i, k) => (moved[i] = Math.max(low, placed[k]!)));
  return moved;
}
