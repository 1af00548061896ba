import type { Simulated } from "@/core/planning/simulate";

/** What samples of the assumptions found, all of them or some. */
export interface SimulatedPower extends Simulated {
  /** Respondents asked in each. */
  n: number;
}

/** Several ranges as one. */
export function joinedSamples(pieces: readonly (SimulatedPower | null)[]): SimulatedPower | null {
  const [first, ...rest] = pieces.filter((piece) => piece !== null);
  if (!first) return null;
  const sum = { ...first };
  for (const one of rest) for (const key of ["samples", "held", "failed", "left", "halfWidths"] as const) sum[key] += one[key];
  return sum;
}
