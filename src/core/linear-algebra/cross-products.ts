/** So many rows at a time: those of sixty columns stay in the processor's cache. */
const BLOCK = 1024;

/**
 * Σ over rows of column a times column b, for every two of k columns: k × k, row-major, symmetric. Two columns by two, block of rows after block of rows
 * (bench/README.md).
 * @param columns of one length
 */
export function crossProducts(columns: readonly Float64Array[]): Float64Array {
  const k = columns.length;
  const rows = columns[0]?.length ?? 0;
  const sums = new Float64Array(k * k);
  for (let from = 0; from < rows; from += BLOCK) {
    const to = Math.min(rows, from + BLOCK);
    for (let i = 0; i < k; i += 2) {
      for (let j = 0; j <= i; j += 2) addTile(columns, sums, k, i, j, from, to);
    }
  }
  for (let i = 0; i < k; i++) for (let j = 0; j < i; j++) sums[j * k + i] = sums[i * k + j]!;
  return sums;
}

function addTile(columns: readonly Float64Array[], sums: Float64Array, k: number, i: number, j: number, from: number, to: number): void {
  const a = columns[i]!;
  const b = columns[i + 1] ?? a;
  const c = columns[j]!;
  const d = columns[j + 1] ?? c;
  let s00 = 0;
  let s01 = 0;
  let s10 = 0;
  let s11 = 0;
  for (let row = from; row < to; row++) {
    const x0 = a[row]!;
    const x1 = b[row]!;
    const y0 = c[row]!;
    const y1 = d[row]!;
    s00 += x0 * y0;
    s01 += x0 * y1;
    s10 += x1 * y0;
    s11 += x1 * y1;
  }
  sums[i * k + j]! += s00;
  if (j + 1 < k && j + 1 <= i) sums[i * k + j + 1]! += s01;
  if (i + 1 < k) {
    sums[(i + 1) * k + j]! += s10;
    if (j + 1 < k) sums[(i + 1) * k + j + 1]! += s11;
  }
}
