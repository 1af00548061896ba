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
 * @param estimates any units, the same for all; one without an interval is a dot alone
 * @param width pixels; the outermost ends lie `pad` pixels inside
 */
export function layoutIntervals(
  estimates: readonly { estimate: number; lower: number | null; upper: number | null }[],
  width: number,
  pad = 4,
): IntervalMark[] {
  const low = Math.min(0, ...estimates.map((e) => e.lower ?? e.estimate));
  const high = Math.max(0, ...estimates.map((e) => e.upper ?? e.estimate));
  const scale = scaleLinear()
    .domain(low === high ? [-1, 1] : [low, high])
    .range([pad, width - pad]);
  return estimates.map((e) => ({
    from: scale(e.lower ?? e.estimate),
    to: scale(e.upper ?? e.estimate),
    dot: scale(e.estimate),
    zero: scale(0),
    excludesZero: e.lower !== null && e.upper !== null && (e.lower > 0 || e.upper < 0),
  }));
}
