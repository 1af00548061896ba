import { centredSumOfSquares } from "../describe/centred-sum-of-squares";
import { correlationTable } from "../describe/correlation-table";
import { mean } from "../describe/mean";
import { fQuantile } from "../distributions/f-distribution";
import { TooFewCasesError } from "../errors";

/** One item among the others of its scale; keyed as in the scale. Null where an item or the rest does not vary. */
export interface ItemStatistics {
  mean: number;
  sd: number;
  /** Corrected item–total correlation: with the sum of the other items. */
  withTheRest: number | null;
  /** Alpha of the other items; null with fewer than three items. */
  alphaWithout: number | null;
}

export interface Reliability {
  /** Cases complete on all items. */
  n: number;
  items: number;
  /** May be negative when items run against each other. */
  alpha: number | null;
  lower: number | null;
  upper: number | null;
  standardizedAlpha: number | null;
  meanInterItemR: number | null;
  /** Of each pair of items, k × k; null where one of the two does not vary. */
  interItem: (number | null)[][];
  /** 2r/(1 + r), for two items; null otherwise, or at r = −1. */
  spearmanBrown: number | null;
  perItem: ItemStatistics[];
}

/**
 * Cronbach's alpha, k/(k − 1)·(1 − Σs²ᵢ/s²_total), with Feldt's interval and each item's part in it (docs/methods.md, “Scale scores”).
 * @param items k ≥ 2 columns of equal length n ≥ 2, complete cases, already reversed where reverse-keyed
 * @param confidence share of the interval, as .95
 * @throws TooFewCasesError when n < 2
 * Source: Cronbach (1951), Psychometrika 16, 297–334; Feldt (1965), Psychometrika 30, 357–370; Spearman (1910) and Brown (1910),
 * British Journal of Psychology 3, 271–295 and 296–322.
 */
export function cronbachAlpha(items: readonly Float64Array[], confidence: number): Reliability {
  const k = items.length;
  const n = items[0]?.length ?? 0;
  if (n < 2) throw new TooFewCasesError({ cases: n, needed: 2, purpose: "A reliability" });
  const variances = items.map((item) => centredSumOfSquares(item) / (n - 1));
  const table = correlationTable(items);
  const varies = (i: number) => table[i * k + i] === 1;
  const interItem = items.map((_, i) => items.map((__, j) => (varies(i) && varies(j) ? table[i * k + j]! : null)));
  // everything else follows from the covariances: one pass over each pair of items, however many statistics are asked for
  const covariance = (i: number, j: number) =>
    i === j ? variances[i]! : (interItem[i]![j] ?? 0) * Math.sqrt(variances[i]! * variances[j]!);
  const withAll = items.map((_, i) => items.reduce((sum, __, j) => sum + covariance(i, j), 0));
  const own = variances.reduce((sum, v) => sum + v, 0);
  const total = withAll.reduce((sum, c) => sum + c, 0);
  const alpha = cronbachAlphaOf(k, own, total);
  const rs = interItem.flatMap((row, i) => row.slice(i + 1));
  const known = rs.filter((r) => r !== null);
  const meanR = known.length === rs.length && rs.length > 0 ? known.reduce((sum, r) => sum + r, 0) / rs.length : null;
  const [df1, df2] = [n - 1, (n - 1) * (k - 1)];
  const tail = (1 - confidence) / 2;
  return {
    n,
    items: k,
    alpha,
    lower: alpha === null ? null : 1 - (1 - alpha) * fQuantile(1 - tail, df1, df2),
    upper: alpha === null ? null : 1 - (1 - alpha) * fQuantile(tail, df1, df2),
    standardizedAlpha: meanR === null ? null : (k * meanR) / (1 + (k - 1) * meanR),
    meanInterItemR: meanR,
    interItem,
    spearmanBrown: k !== 2 || meanR === null || meanR <= -1 ? null : (2 * meanR) / (1 + meanR),
    perItem: items.map((item, i) => {
      const variance = variances[i]!;
      const rest = total - 2 * withAll[i]! + variance;
      return {
        mean: mean(item),
        sd: Math.sqrt(variance),
        withTheRest:
          k < 2 || !varies(i) || rest <= NOTHING * own
            ? null
            : Math.max(-1, Math.min(1, (withAll[i]! - variance) / Math.sqrt(variance * rest))),
        alphaWithout: k < 3 ? null : cronbachAlphaOf(k - 1, own - variance, rest),
      };
    }),
  };
}

/** A variance below this share of the items' own is what rounding leaves of none. */
const NOTHING = 1e-14;

/** From the sum of the items' variances and the variance of their sum; null where that sum does not vary. */
export function cronbachAlphaOf(k: number, own: number, total: number): number | null {
  return k < 2 || total <= own * NOTHING ? null : (k / (k - 1)) * (1 - own / total);
}
