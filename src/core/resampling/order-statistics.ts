/** So many of the numbers are looked at first, to tell where a tail begins. */
const SAMPLE = 256;

/**
 * Numbers of which the smallest, second smallest and so on can be asked for without sorting them all: in a tail only the few that can belong to it are gone
 * through.
 */
export class OrderStatistics {
  /** @param values none of them NaN */
  constructor(private readonly values: Float64Array) {}

  get count(): number {
    return this.values.length;
  }

  /** The numbers at a rank from 1 and at the next one; the last one twice. */
  pairAt(rank: number): [number, number] {
    const { values, count } = this;
    const next = Math.min(count, rank + 1);
    if (count > 8 * SAMPLE) {
      const low = next < count / 4 ? this.tail(1, next) : null;
      if (low) return [select(low, rank), select(low, next)];
      // the upper tail is the lower one of the opposite numbers
      const high = rank > (count * 3) / 4 ? this.tail(-1, count - rank + 1) : null;
      if (high) return [-select(high, count - rank + 1), -select(high, count - next + 1)];
    }
    const all = values.slice();
    return [select(all, rank), select(all, next)];
  }

  /** The smallest of sign · values, at least `needed` of them; null when the sample told wrongly. */
  private tail(sign: 1 | -1, needed: number): Float64Array | null {
    const { values, count } = this;
    const step = Math.floor(count / SAMPLE);
    const sample = Float64Array.from({ length: SAMPLE }, (_, i) => sign * values[i * step]!).sort();
    const share = (needed / count) * SAMPLE;
    const limit = sample[Math.min(SAMPLE - 1, Math.ceil(share + 4 * Math.sqrt(share) + 4))]!;
    const found = new Float64Array(count);
    let many = 0;
    for (let i = 0; i < count; i++) {
      const value = sign * values[i]!;
      if (value <= limit) found[many++] = value;
    }
    return many >= needed ? found.subarray(0, many) : null;
  }
}

/**
 * The number at a rank from 1; the values are put in another order.
 * Source: Hoare (1961), Communications of the ACM 4(7), 321–322.
 */
function select(values: Float64Array, rank: number): number {
  const wanted = rank - 1;
  let left = 0;
  let right = values.length - 1;
  while (left < right) {
    const pivot = values[(left + right) >> 1]!;
    let i = left;
    let j = right;
    while (i <= j) {
      while (values[i]! < pivot) i++;
      while (values[j]! > pivot) j--;
      if (i > j) break;
      const swapped = values[i]!;
      values[i++] = values[j]!;
      values[j--] = swapped;
    }
    if (wanted <= j) right = j;
    else if (wanted >= i) left = i;
    else break;
  }
  return values[wanted]!;
}
