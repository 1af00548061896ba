import { scaleLinear } from "d3-scale";

/** One step's bar: what was there before, what it adds, in pixels. */
export interface RiseBar {
  before: number;
  added: number;
  /** Where the bar ends. */
  end: number;
  /** Where the step would end at the limits of the interval of what it adds; null without one. */
  interval: { from: number; to: number } | null;
}

/**
 * The cumulative R² of a flight of steps, all to one scale that ends at a round number.
 * @param steps R² and ΔR² of each step, 0…1, with the interval of ΔR²
 * @param width pixels for the whole scale
 */
export function layoutRise(
  steps: readonly { R2: number; change: number; interval?: { lower: number; upper: number } | null }[],
  width: number,
): { bars: RiseBar[]; top: number; ticks: { at: number; value: number }[] } {
  const highest = Math.max(0.01, ...steps.map((s) => Math.max(s.R2, s.R2 - s.change + (s.interval?.upper ?? 0))));
  const scale = scaleLinear().domain([0, highest]).nice(4).range([0, width]);
  const bars = steps.map(({ R2, change, interval }) => {
    const end = scale(R2);
    const added = scale(change) - scale(0);
    const reach = interval && { from: scale(R2 - change + interval.lower), to: scale(Math.min(1, R2 - change + interval.upper)) };
    return { before: Math.max(0, end - added), added, end, interval: reach ?? null };
  });
  return { bars, top: scale.domain()[1]!, ticks: scale.ticks(4).map((value) => ({ at: scale(value), value })) };
}
