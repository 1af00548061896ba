/**
 * Numbers of twice the precision, as an unevaluated sum hi + lo of two doubles (about 32 digits).
 * Used where a difference must not lose what it is made of: residuals, sums of squares, the intercept.
 * Source: Dekker (1971), Numerische Mathematik 18, 224–242; Knuth, The Art of Computer Programming 2, 4.2.2.
 */
export type DoubleDouble = readonly [hi: number, lo: number];

/** A vector of n numbers of 32 digits: high and low parts. */
export interface ExactVector {
  readonly hi: Float64Array;
  readonly lo: Float64Array;
}

const SPLITTER = 134217729; // 2^27 + 1 cuts a double's 53 bits in two halves

/** a + b exactly. */
export function twoSum(a: number, b: number): DoubleDouble {
  const hi = a + b;
  const bb = hi - a;
  return [hi, a - (hi - bb) + (b - bb)];
}

/** a · b exactly; |a|, |b| below 1e290. */
export function twoProduct(a: number, b: number): DoubleDouble {
  const hi = a * b;
  const ca = SPLITTER * a;
  const ah = ca - (ca - a);
  const al = a - ah;
  const cb = SPLITTER * b;
  const bh = cb - (cb - b);
  const bl = b - bh;
  return [hi, al * bl - (hi - ah * bh - al * bh - ah * bl)];
}

/** a + b for two pairs. */
export function add(a: DoubleDouble, b: DoubleDouble): DoubleDouble {
  const [s, e] = twoSum(a[0], b[0]);
  return twoSum(s, e + a[1] + b[1]);
}

/** a − b for two pairs. */
export function subtract(a: DoubleDouble, b: DoubleDouble): DoubleDouble {
  return add(a, [-b[0], -b[1]]);
}

/** a · b for two pairs. */
export function multiply(a: DoubleDouble, b: DoubleDouble): DoubleDouble {
  const [p, e] = twoProduct(a[0], b[0]);
  return twoSum(p, e + a[0] * b[1] + a[1] * b[0]);
}

/** a · f where f is a power of two: exact. */
export function scaleByPower(a: DoubleDouble, f: number): DoubleDouble {
  return [a[0] * f, a[1] * f];
}

/** Σ v² of a vector given as hi and lo parts, in double-double. */
export function sumOfSquares(hi: Float64Array, lo: Float64Array): DoubleDouble {
  let s = 0;
  let c = 0;
  for (let i = 0; i < hi.length; i++) {
    const a = hi[i]!;
    const p = a * a;
    const ca = SPLITTER * a;
    const ah = ca - (ca - a);
    const al = a - ah;
    const e = al * al - (p - ah * ah - 2 * al * ah) + 2 * a * lo[i]!;
    const t = s + p;
    const bb = t - s;
    c += s - (t - bb) + (p - bb) + e;
    s = t;
  }
  return twoSum(s, c);
}
