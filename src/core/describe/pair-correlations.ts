import { crossProducts } from "../linear-algebra/cross-products";
import { correlationTable } from "./correlation-table";
import type { GappedColumn } from "./gapped-column";
import { mean } from "./mean";
import { ranks, ranksWithout, valuePlaces } from "./ranks";
import { standardDeviation } from "./standard-deviation";

/** Correlations of every pair of k columns, k × k, row-major. */
export interface PairTable {
  /** Rows that both have. */
  readonly n: Float64Array;
  /** Not a number where one of the two does not vary over these rows, or there are fewer than two. */
  readonly r: Float64Array;
}

export type Correlating = "pearson" | "spearman";

/**
 * Correlations of every two columns, each pair over the rows that both have (docs/methods.md, “First look”).
 * @param columns of one length; for rows complete on all, give columns without gaps
 */
export function pairCorrelations(columns: readonly GappedColumn[], by: Correlating): PairTable {
  const k = columns.length;
  const rows = columns[0]?.values.length ?? 0;
  const whole = columns.every(({ missing }) => !missing.includes(1));
  const table = { n: new Float64Array(k * k).fill(rows), r: new Float64Array(k * k).fill(NaN) };
  if (whole && rows > 1) {
    const own = by === "pearson" ? columns.map((c) => c.values) : columns.map((c) => ranks(c.values));
    const r = correlationTable(own);
    // one that does not vary has 0 with itself there
    for (let i = 0; i < k; i++) for (let j = 0; j < k; j++) if (r[i * k + i] && r[j * k + j]) table.r[i * k + j] = r[i * k + j]!;
    return table;
  }
  return by === "pearson" ? productMoments(columns, table) : rankPairs(columns, table);
}

/** A column about its own mean in its own SDs, 0 where nothing is, and its sums: those over what two have lose no digits. */
interface Scaled {
  readonly x: Float64Array;
  readonly gone: Int32Array;
  readonly count: number;
  readonly sum: number;
  readonly squares: number;
}

function productMoments(columns: readonly GappedColumn[], { n, r }: PairTable): PairTable {
  const k = columns.length;
  const scaled = columns.map(standardized);
  const products = crossProducts(scaled.map(({ x }) => x));
  for (let i = 0; i < k; i++) {
    for (let j = 0; j <= i; j++) {
      const [a, b] = [scaled[i]!, scaled[j]!];
      const [x, y] = [without(a, columns[i]!.missing, b.gone), without(b, columns[j]!.missing, a.gone)];
      const { count } = x;
      n[i * k + j] = n[j * k + i] = count;
      if (count < 2) continue;
      const [vx, vy] = [x.squares - x.sum ** 2 / count, y.squares - y.sum ** 2 / count];
      if (!(vx > 1e-13 * a.squares) || !(vy > 1e-13 * b.squares)) continue;
      const value = (products[i * k + j]! - (x.sum * y.sum) / count) / Math.sqrt(vx * vy);
      r[i * k + j] = r[j * k + i] = i === j ? 1 : Math.max(-1, Math.min(1, value));
    }
  }
  return { n, r };
}

/** The sums of a column without the rows that another does not have: they are few. */
function without(
  { x, count, sum, squares }: Scaled,
  missing: Uint8Array,
  gone: Int32Array,
): { count: number; sum: number; squares: number } {
  let [own, s, q] = [count, sum, squares];
  for (const row of gone) {
    if (missing[row]) continue;
    own--;
    s -= x[row]!;
    q -= x[row]! ** 2;
  }
  return { count: own, sum: s, squares: q };
}

function standardized({ values, missing }: GappedColumn): Scaled {
  const present = values.filter((_, row) => missing[row] === 0);
  const gone = Int32Array.from([...missing.keys()].filter((row) => missing[row] === 1));
  const x = new Float64Array(values.length);
  if (present.length === 0) return { x, gone, count: 0, sum: 0, squares: 0 };
  const centre = mean(present);
  const sd = (present.length > 1 && standardDeviation(present)) || 1;
  let [sum, squares] = [0, 0];
  for (let row = 0; row < x.length; row++) {
    if (missing[row]) continue;
    const value = (values[row]! - centre) / sd;
    x[row] = value;
    sum += value;
    squares += value * value;
  }
  return { x, gone, count: present.length, sum, squares };
}

/** Ranks are formed anew among the rows of each pair, from how often each value stands there. */
function rankPairs(columns: readonly GappedColumn[], { n, r }: PairTable): PairTable {
  const k = columns.length;
  const placed = columns.map(valuePlaces);
  for (let i = 0; i < k; i++) {
    for (let j = 0; j <= i; j++) {
      const [a, b] = [ranksWithout(placed[i]!, placed[j]!), ranksWithout(placed[j]!, placed[i]!)];
      n[i * k + j] = n[j * k + i] = a.count;
      if (a.count < 2 || !(a.squares > 0) || !(b.squares > 0)) continue;
      const [own, other] = [placed[i]!.places, placed[j]!.places];
      let xy = 0;
      for (let row = 0; row < own.length; row++) xy += a.ranks[own[row]!]! * b.ranks[other[row]!]!;
      r[i * k + j] = r[j * k + i] = i === j ? 1 : xy / Math.sqrt(a.squares * b.squares);
    }
  }
  return { n, r };
}
