import { TooFewCasesError } from "../errors";

/**
 * The value below which a share of the sample lies, linear between neighbours: rank (n − 1)·share + 1 (type 7).
 * @param sorted finite numbers in ascending order, n ≥ 1
 * @param share 0…1
 * @throws TooFewCasesError when n = 0
 * Source: Hyndman & Fan (1996), The American Statistician 50, 361–365.
 */
export function quantile(sorted: Float64Array, share: number): number {
  if (sorted.length === 0) throw new TooFewCasesError({ cases: 0, needed: 1, purpose: "A quantile" });
  const rank = (sorted.length - 1) * share;
  const below = Math.floor(rank);
  const low = sorted[below]!;
  const high = sorted[Math.min(below + 1, sorted.length - 1)]!;
  return low + (rank - below) * (high - low);
}
