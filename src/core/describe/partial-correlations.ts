import { cholesky, solveLower } from "../linear-algebra/cholesky";
import { correlationTable } from "./correlation-table";
import type { GappedColumn } from "./gapped-column";
import type { PairTable } from "./pair-correlations";

/**
 * Correlations of what some controls leave of every two columns, each pair over the rows that both and all controls have. Not a number where the controls leave
 * nothing of one of them, or are combinations of each other.
 */
export function partialCorrelations(columns: readonly GappedColumn[], controls: readonly GappedColumn[]): PairTable {
  const k = columns.length;
  const rows = columns[0]?.values.length ?? 0;
  const n = new Float64Array(k * k);
  const r = new Float64Array(k * k).fill(NaN);
  const held = new Uint8Array(rows);
  for (const { missing } of controls) for (let row = 0; row < rows; row++) held[row] = held[row]! | missing[row]!;
  const whole = columns.every(({ missing }) => missing.every((gone, row) => !gone || held[row]));
  if (whole) {
    const all = takenRows(held);
    const left = leftOf(columns, controls, all);
    for (let i = 0; i < k; i++) for (let j = 0; j < k; j++) r[i * k + j] = left?.[i * k + j] ?? NaN;
    return { n: n.fill(all.length), r };
  }
  for (let i = 0; i < k; i++) {
    for (let j = 0; j <= i; j++) {
      const [x, y] = [columns[i]!, columns[j]!];
      const both = takenRows(held.map((gone, row) => gone | x.missing[row]! | y.missing[row]!));
      n[i * k + j] = n[j * k + i] = both.length;
      const left = both.length < 2 ? null : leftOf([x, y], controls, both);
      r[i * k + j] = r[j * k + i] = (i === j ? left?.[0] : left?.[1]) ?? NaN;
    }
  }
  return { n, r };
}

function takenRows(gone: Uint8Array): Int32Array {
  return Int32Array.from([...gone.keys()].filter((row) => gone[row] === 0));
}

/** What is left of a column's variance below this share of it is rounding. */
const NOTHING = 1e-11;

/** Correlations after the controls, k × k; null: the controls are combinations of each other. */
function leftOf(columns: readonly GappedColumn[], controls: readonly GappedColumn[], rows: Int32Array): Float64Array | null {
  if (rows.length < 2) return null;
  const take = ({ values }: GappedColumn) => Float64Array.from(rows, (row) => values[row]!);
  const [c, k] = [controls.length, columns.length];
  const all = correlationTable([...controls, ...columns].map(take));
  const size = c + k;
  const block = new Float64Array(c * c);
  for (let i = 0; i < c; i++) for (let j = 0; j < c; j++) block[i * c + j] = all[i * size + j]!;
  const l = cholesky(block, c);
  if (l === null) return null;
  // what is left of the columns' correlations once each is projected off the controls
  const seen = columns.map((_, i) => solveLower(l, all.subarray((c + i) * size, (c + i) * size + c), c));
  const left = new Float64Array(k * k);
  for (let i = 0; i < k; i++) {
    for (let j = 0; j < k; j++) {
      let value = all[(c + i) * size + c + j]!;
      for (let a = 0; a < c; a++) value -= seen[i]![a]! * seen[j]![a]!;
      left[i * k + j] = value;
    }
  }
  const r = new Float64Array(k * k).fill(NaN);
  for (let i = 0; i < k; i++) {
    for (let j = 0; j < k; j++) {
      const [own, other] = [left[i * k + i]!, left[j * k + j]!];
      if (own > NOTHING && other > NOTHING) r[i * k + j] = i === j ? 1 : Math.max(-1, Math.min(1, left[i * k + j]! / Math.sqrt(own * other))); // prettier-ignore
    }
  }
  return r;
}
