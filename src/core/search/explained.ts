import type { Searchable } from "./search-ground";

/** A column of which less than this share of its length² is left beside those before it is determined by them: nothing but rounding. */
const COMBINATION = 1e-14;

/** What a set of columns explains of what the controls leave. */
export interface Explained {
  /** Share of it, 0…1. */
  share: number;
  /** Columns that count: those before them do not determine them. */
  rank: number;
  /** What each column adds to those before it. */
  gains: Float64Array;
}

/**
 * By sweeping the correlations of the columns one after another.
 * @param set places of the columns
 */
export function explainedBy(of: Pick<Searchable, "G" | "r">, set: readonly number[]): Explained {
  const { share, rank, gains } = swept(of, set);
  return { share, rank, gains };
}

/** Least squares on some columns, in the SDs of the ground: β of every column, 0 of the others and of those that the ones before them determine. */
export function coefficientsOn(of: Pick<Searchable, "G" | "r">, set: readonly number[]): Float64Array {
  const { l, z, counts } = swept(of, set);
  const m = set.length;
  const beta = new Float64Array(of.r.length);
  for (let i = m - 1; i >= 0; i--) {
    if (!counts[i]) continue;
    let sum = z[i]!;
    for (let k = i + 1; k < m; k++) if (counts[k]) sum -= l[k * m + i]! * beta[set[k]!]!;
    beta[set[i]!] = sum / l[i * m + i]!;
  }
  return beta;
}

function swept({ G, r }: Pick<Searchable, "G" | "r">, set: readonly number[]) {
  const q = r.length;
  const m = set.length;
  const l = new Float64Array(m * m);
  const z = new Float64Array(m);
  const counts = new Uint8Array(m);
  const gains = new Float64Array(m);
  let [share, rank] = [0, 0];
  for (let i = 0; i < m; i++) {
    let pivot = G[set[i]! * q + set[i]!]!;
    let along = r[set[i]!]!;
    for (let j = 0; j < i; j++) {
      if (!counts[j]) continue;
      let sum = G[set[i]! * q + set[j]!]!;
      for (let k = 0; k < j; k++) if (counts[k]) sum -= l[i * m + k]! * l[j * m + k]!;
      const value = sum / l[j * m + j]!;
      l[i * m + j] = value;
      pivot -= value * value;
      along -= value * z[j]!;
    }
    if (!(pivot > COMBINATION)) continue;
    counts[i] = 1;
    rank++;
    l[i * m + i] = Math.sqrt(pivot);
    z[i] = along / l[i * m + i]!;
    gains[i] = z[i]! ** 2;
    share += gains[i]!;
  }
  return { share: Math.min(1, share), rank, gains, l, z, counts };
}
