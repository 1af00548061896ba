import { quantile } from "@/core/describe/quantile";

/** Shares of a range of resamples: resamples × terms, row-major. */
export interface ImportancePiece {
  terms: string[];
  /** Of the ladder's intervals, as .95. */
  confidence: number;
  shares: Float64Array;
}

/** Percentile intervals (type 7) of shares. */
export interface ImportanceIntervals {
  terms: string[];
  confidence: number;
  lower: Float64Array;
  upper: Float64Array;
  /** Of so many resamples; those in which the controls could not be fitted are left out. */
  resamples: number;
  failed: number;
}

/** All pieces as intervals, in whatever order they came. */
export function joinedImportance(pieces: readonly (ImportancePiece | null)[]): ImportanceIntervals | null {
  const there = pieces.filter((piece) => piece !== null);
  if (there.length === 0) return null;
  const { terms, confidence } = there[0]!;
  const m = terms.length;
  const resamples = there.reduce((sum, { shares }) => sum + shares.length / m, 0);
  const drawn = terms.map((_, k) => Float64Array.from(there.flatMap(({ shares }) => Array.from(shares.filter((__, at) => at % m === k)))).filter((v) => !Number.isNaN(v)).sort()); // prettier-ignore
  const at = (share: number) => Float64Array.from(drawn, (values) => (values.length === 0 ? NaN : quantile(values, share)));
  return {
    terms,
    confidence,
    lower: at((1 - confidence) / 2),
    upper: at((1 + confidence) / 2),
    resamples,
    failed: resamples - drawn[0]!.length,
  };
}
