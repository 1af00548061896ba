import { scaleLinear } from "d3-scale";

/** One estimate with its interval, in pixels on a scale shared with others. */
export interface IntervalMark {
  from: number;
  to: number;
  dot: number;
  zero: number;
  excludesZero: boolean;
}

/**
 * Puts estimates with their intervals on one scale that includes zero.
 * @param estimates any units, the same for all
 * @param width pixels; the outermost ends lie `pad` pixels inside
 */
export function layoutIntervals(
  estimates: readonly { estimate: number; lower: number; upper: number }[],
  width: number,
  pad = 4,
): IntervalMark[] {
  const low = Math.min(0, ...estimates.map((e) => e.lower));
  const high = Math.max(0, ...estimates.map((e) => e.upper));
  const scale = scaleLinear()
    .domain(low === high ? [-1, 1] : [low, high])
    .range([pad, width - pad]);
  return estimates.map((e) => ({
    from: scale(e.lower),
    to: scale(e.upper),
    dot: scale(e.estimate),
    zero: scale(0),
    excludesZero: e.lower > 0 || e.upper < 0,
  }));
}
