/**
 * Numbers of which the smallest, second smallest and so on can be asked for without sorting them all.
 * Source: Hoare (1961), Communications of the ACM 4(7), 321–322.
 */
export class OrderStatistics {
  private readonly values: Float64Array;

  /** @param values none of them NaN; copied */
  constructor(values: Float64Array) {
    this.values = values.slice();
  }

  get count(): number {
    return this.values.length;
  }

  /** The numbers at a rank and the next one, the last one twice. */
  pairAt(rank: number): [number, number] {
    const at = this.at(rank);
    let next = rank < this.count ? Infinity : at;
    // what stands beyond a rank that was found is not smaller
    for (let i = rank; i < this.count; i++) if (this.values[i]! < next) next = this.values[i]!;
    return [at, next];
  }

  /** The number at a rank from 1. */
  at(rank: number): number {
    const { values } = this;
    const wanted = rank - 1;
    let [left, right] = [0, values.length - 1];
    while (left < right) {
      const pivot = values[(left + right) >> 1]!;
      let [i, j] = [left, right];
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
}
