import type { Stability } from "@/core/search/stability";

/** How often each candidate is chosen, over all resamples or some. */
export interface SearchStability {
  /** Candidates in the order given. */
  terms: string[];
  /** Of those, what the whole sample chooses. */
  chosen: string[];
  drawn: Stability;
}

/** Several ranges as one. */
export function joinedStability(pieces: readonly (SearchStability | null)[]): SearchStability | null {
  const [first, ...rest] = pieces.filter((piece) => piece !== null);
  if (!first) return null;
  const add = (a: Int32Array, b: Int32Array) => a.map((value, k) => value + b[k]!);
  const drawn = rest.reduce(
    (sum, { drawn: one }) => ({
      resamples: sum.resamples + one.resamples,
      failed: sum.failed + one.failed,
      times: add(sum.times, one.times),
      sizes: add(sum.sizes, one.sizes),
      same: sum.same + one.same,
    }),
    first.drawn,
  );
  return { ...first, drawn };
}
