import type { LargeSampleInterval } from "./change-interval";

/** The limits of a squared correlation from those of the correlation: from 0 when they enclose it. Null where there are none. */
export function squaredInterval(of: LargeSampleInterval | null | undefined): { lower: number | null; upper: number | null } {
  if (!of) return { lower: null, upper: null };
  const [a, b] = [of.lower ** 2, of.upper ** 2];
  return { lower: of.lower <= 0 && of.upper >= 0 ? 0 : Math.min(a, b), upper: Math.max(a, b) };
}
