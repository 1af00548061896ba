import type { GappedColumn } from "./gapped-column";

/** Where each row's value stands among the distinct values of its column, from 1; 0 where nothing is. */
export interface ValuePlaces {
  readonly places: Int32Array;
  /** How often each distinct value stands there; the first is of nothing. */
  readonly counts: Int32Array;
  /** Rows without a value. */
  readonly gone: Int32Array;
}

export function valuePlaces({ values, missing }: GappedColumn): ValuePlaces {
  const rows = Int32Array.from([...values.keys()].filter((row) => missing[row] === 0));
  rows.sort((a, b) => values[a]! - values[b]!);
  const places = new Int32Array(values.length);
  const counts = [0];
  rows.forEach((row, i) => {
    if (i === 0 || values[row] !== values[rows[i - 1]!]) counts.push(0);
    places[row] = counts.length - 1;
    counts[counts.length - 1]!++;
  });
  return { places, counts: Int32Array.from(counts), gone: Int32Array.from([...missing.keys()].filter((row) => missing[row] === 1)) };
}

/** Ranks from 1 about their mean, by place, among the rows that another column has too; equal values share the mean of theirs. The first is 0. */
export function ranksWithout(of: ValuePlaces, other: Pick<ValuePlaces, "gone">): { ranks: Float64Array; count: number; squares: number } {
  const counts = of.counts.slice();
  for (const row of other.gone) counts[of.places[row]!]!--;
  counts[0] = 0;
  let count = 0;
  for (const many of counts) count += many;
  const ranks = new Float64Array(counts.length);
  let [before, squares] = [0, 0];
  for (let place = 1; place < counts.length; place++) {
    const tied = counts[place]!;
    const rank = before + (tied + 1) / 2 - (count + 1) / 2;
    ranks[place] = rank;
    squares += tied * rank * rank;
    before += tied;
  }
  return { ranks, count, squares };
}

/** Ranks of a whole column from 1; equal values share the mean of theirs. @param values finite */
export function ranks(values: Float64Array): Float64Array {
  const of = valuePlaces({ values, missing: new Uint8Array(values.length) });
  const { ranks: own } = ranksWithout(of, { gone: new Int32Array(0) });
  const middle = (values.length + 1) / 2;
  return Float64Array.from(of.places, (place) => own[place]! + middle);
}
