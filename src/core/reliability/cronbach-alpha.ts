import { centredSumOfSquares } from "../describe/centred-sum-of-squares";
import { correlation } from "../describe/correlation";
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
 * Cronbach's alpha, k/(k − 1)·(1 − Σs²ᵢ/s²_total), with Feldt's interval and each item's part in it (contract section 9).
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
  const total = sumOfColumns(items, n);
  const alpha = alphaOf(variances, total);
  const interItem = items.map(() => new Array<number | null>(k).fill(1));
  const rs: (number | null)[] = [];
  for (let a = 0; a < k; a++) {
    for (let b = a + 1; b < k; b++) {
      const r = correlation(items[a]!, items[b]!);
      interItem[a]![b] = interItem[b]![a] = r;
      rs.push(r);
    }
  }
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
      const rest = total.map((sum, row) => sum - item[row]!);
      return {
        mean: mean(item),
        sd: Math.sqrt(variances[i]!),
        withTheRest: k < 2 ? null : correlation(item, rest),
        alphaWithout:
          k < 3
            ? null
            : alphaOf(
                variances.filter((_, j) => j !== i),
                rest,
              ),
      };
    }),
  };
}

function sumOfColumns(items: readonly Float64Array[], n: number): Float64Array {
  const total = new Float64Array(n);
  for (const item of items) for (let row = 0; row < n; row++) total[row]! += item[row]!;
  return total;
}

function alphaOf(variances: readonly number[], total: Float64Array): number | null {
  const k = variances.length;
  const all = centredSumOfSquares(total) / (total.length - 1);
  const sum = variances.reduce((s, v) => s + v, 0);
  return k < 2 || all <= sum * 1e-14 ? null : (k / (k - 1)) * (1 - sum / all);
}
