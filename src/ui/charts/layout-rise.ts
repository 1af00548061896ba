import { scaleLinear } from "d3-scale";

/** One step's bar: what was there before, what it adds, in pixels. */
export interface RiseBar {
  before: number;
  added: number;
  /** Where the bar ends. */
  end: number;
}

/**
 * The cumulative R² of a flight of steps, all to one scale that ends at a round number.
 * @param steps R² and ΔR² of each step, 0…1
 * @param width pixels for the whole scale
 */
export function layoutRise(
  steps: readonly { R2: number; change: number }[],
  width: number,
): { bars: RiseBar[]; top: number; ticks: { at: number; value: number }[] } {
  const highest = Math.max(0.01, ...steps.map((s) => s.R2));
  const scale = scaleLinear().domain([0, highest]).nice(4).range([0, width]);
  const bars = steps.map(({ R2, change }) => {
    const end = scale(R2);
    const added = scale(change) - scale(0);
    return { before: Math.max(0, end - added), added, end };
  });
  return { bars, top: scale.domain()[1]!, ticks: scale.ticks(4).map((value) => ({ at: scale(value), value })) };
}
