import type { Coefficient } from "@/core/regression/coefficients";
import type { LargeSampleInterval } from "@/core/regression/change-interval";
import { squaredInterval } from "@/core/regression/squared-interval";
import { decimalsFor, formatNumber, formatShare } from "@/study/report/format-number";
import type { Told } from "@/study/report/ladder/coefficient-words";

/** What is shown of a coefficient: a number with its interval, and how it is printed. */
export interface Shown {
  c: Coefficient;
  estimate: number;
  lower: number | null;
  upper: number | null;
  print: (value: number | null) => string;
}

/**
 * @param part interval of the part correlation; undefined until it is worked out
 * @returns null for a coefficient that the metric does not hold
 */
export function shownOf(c: Coefficient, told: Told, part: LargeSampleInterval | null | undefined): Shown | null {
  switch (told) {
    case "beta":
      return c.beta && { c, ...limits(c.beta), print: (v) => formatShare(v) };
    case "b":
      return { c, ...limits(c.b), print: (v) => formatNumber(v, decimalsFor(c.b.se)) };
    case "part":
      return { c, estimate: c.part, lower: part?.lower ?? null, upper: part?.upper ?? null, print: (v) => formatShare(v) };
    case "part2":
      return { c, estimate: c.part ** 2, ...squaredInterval(part), print: (v) => formatShare(v, 3) };
  }
}

const limits = ({ estimate, lower, upper }: { estimate: number; lower: number | null; upper: number | null }) => ({
  estimate,
  lower,
  upper,
});
