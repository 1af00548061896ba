import type { RandomStream } from "./random-stream";

/**
 * A χ deviate: the root of a χ² deviate with df degrees of freedom, exact in distribution.
 * @param df whole number ≥ 1
 * Source: Marsaglia & Tsang (2000), ACM Transactions on Mathematical Software 26(3), 363–372 (a gamma deviate of shape df/2).
 */
export function chiDeviate(df: number, random: RandomStream): number {
  if (df === 1) return Math.abs(random.normal());
  const d = df / 2 - 1 / 3;
  const c = 1 / Math.sqrt(9 * d);
  for (;;) {
    const x = random.normal();
    const v = (1 + c * x) ** 3;
    if (v <= 0) continue;
    if (Math.log(1 - random.uniform()) < 0.5 * x * x + d * (1 - v + Math.log(v))) return Math.sqrt(2 * d * v);
  }
}
