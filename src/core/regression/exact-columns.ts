import { add, type DoubleDouble, type ExactVector, multiply, subtract } from "../linear-algebra/double-double";
import type { ScaledColumn } from "./prepared-design";

const SPLITTER = 134217729; // 2^27 + 1, see double-double.ts

/**
 * v ← v − x·b in double-double, x the column as it stands in the factorization: (value − centre)·scale with all its digits, or
 * the intercept's ones (null). This and productSum are where a fit spends its time, so the products are split in place.
 */
export function subtractMultiple({ hi, lo }: ExactVector, column: ScaledColumn | null, bHi: number, bLo = 0): void {
  const n = hi.length;
  if (column === null) {
    for (let i = 0; i < n; i++) {
      const before = hi[i]!;
      const s = before - bHi;
      const t = s - before;
      lo[i] = lo[i]! + (before - (s - t) - (bHi + t)) - bLo;
      hi[i] = s;
    }
    return;
  }
  const { values, centre, scale, exact } = column;
  if (exact) return subtractExactMultiple({ hi, lo }, exact, [bHi, bLo]);
  const cb = SPLITTER * bHi;
  const bh = cb - (cb - bHi);
  const bl = bHi - bh;
  for (let i = 0; i < n; i++) {
    const x = values[i]!;
    const d = x - centre;
    const v = d - x;
    const a = d * scale;
    const aLow = (x - (d - v) - (centre + v)) * scale;
    const ca = SPLITTER * a;
    const ah = ca - (ca - a);
    const al = a - ah;
    const p = a * bHi;
    const pe = al * bl - (p - ah * bh - al * bh - ah * bl);
    const before = hi[i]!;
    const s = before - p;
    const t = s - before;
    lo[i] = lo[i]! + (before - (s - t) - (p + t)) - pe - a * bLo - aLow * bHi;
    hi[i] = s;
  }
}

/** Σ x·v in double-double, rounded once; x as in subtractMultiple. */
export function productSum({ hi, lo }: ExactVector, column: ScaledColumn | null): number {
  const n = hi.length;
  let [sum, rest] = [0, 0];
  if (column === null) {
    for (let i = 0; i < n; i++) {
      const e = hi[i]!;
      const u = sum + e;
      const v = u - sum;
      rest += sum - (u - v) + (e - v) + lo[i]!;
      sum = u;
    }
    return sum + rest;
  }
  const { values, centre, scale, exact } = column;
  if (exact) return exactProductSum({ hi, lo }, exact);
  for (let i = 0; i < n; i++) {
    const x = values[i]!;
    const d = x - centre;
    const v = d - x;
    const a = d * scale;
    const aLow = (x - (d - v) - (centre + v)) * scale;
    const ca = SPLITTER * a;
    const ah = ca - (ca - a);
    const al = a - ah;
    const e = hi[i]!;
    const ce = SPLITTER * e;
    const eh = ce - (ce - e);
    const el = e - eh;
    const m = a * e;
    const me = al * el - (m - ah * eh - al * eh - ah * el);
    const u = sum + m;
    const w = u - sum;
    rest += sum - (u - w) + (m - w) + me + a * lo[i]! + aLow * e;
    sum = u;
  }
  return sum + rest;
}

/** The same of a column that is given with all its digits: few are. */
function subtractExactMultiple({ hi, lo }: ExactVector, column: ExactVector, b: DoubleDouble): void {
  for (let i = 0; i < hi.length; i++) [hi[i], lo[i]] = subtract([hi[i]!, lo[i]!], multiply([column.hi[i]!, column.lo[i]!], b));
}

function exactProductSum({ hi, lo }: ExactVector, column: ExactVector): number {
  let sum: DoubleDouble = [0, 0];
  for (let i = 0; i < hi.length; i++) sum = add(sum, multiply([column.hi[i]!, column.lo[i]!], [hi[i]!, lo[i]!]));
  return sum[0] + sum[1];
}
