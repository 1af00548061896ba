import betainc from "@stdlib/math-base-special-betainc";
import gammaln from "@stdlib/math-base-special-gammaln";
import type { BothTails } from "./noncentral-t";

/**
 * P(F ≤ f) and P(F > f) of the noncentral F: central ones with df1 + 2j, weighed by Poisson's probabilities of j at ncp/2. All terms are positive, so both tails keep their own
 * precision; they are added from the largest weight outwards until nothing counts any more.
 * @param ncp λ = n·f², ≥ 0
 * Source: Johnson, Kotz & Balakrishnan (1995), Continuous Univariate Distributions 2, ch. 30.
 */
export function noncentralF(f: number, df1: number, df2: number, ncp: number): BothTails {
  if (f <= 0) return { lower: 0, upper: 1 };
  if (f === Infinity) return { lower: 1, upper: 0 };
  const x = (df1 * f) / (df1 * f + df2);
  const rest = df2 / (df1 * f + df2);
  const half = ncp / 2;
  const logWeight = (j: number) => (half === 0 ? (j === 0 ? 0 : -Infinity) : j * Math.log(half) - half - gammaln(j + 1));
  const lowerTerm = (j: number) => Math.exp(logWeight(j)) * incomplete(x, rest, df1 / 2 + j, df2 / 2);
  const upperTerm = (j: number) => Math.exp(logWeight(j)) * incomplete(rest, x, df2 / 2, df1 / 2 + j);
  return { lower: Math.min(1, sumAround(lowerTerm, half)), upper: Math.min(1, sumAround(upperTerm, half)) };
}

/** Iₓ(a, b) with 1 − x given as well: of the two sides the one that does not lose digits. */
function incomplete(x: number, rest: number, a: number, b: number): number {
  return x < 0.5 ? betainc(x, a, b, true, false) : betainc(rest, b, a, true, true);
}

/** Σ of terms with one peak somewhere about `near`. */
function sumAround(term: (j: number) => number, near: number): number {
  const start = Math.floor(near);
  let sum = term(start);
  const walk = (from: number, by: 1 | -1) => {
    let largest = 0;
    for (let j = from; j >= 0; j += by) {
      const own = term(j);
      sum += own;
      largest = Math.max(largest, own);
      // behind the peak of the terms, and nothing to the sum
      if (own < largest && own <= sum * 1e-18) break;
      if (own === 0 && Math.abs(j - start) > 40 + 12 * Math.sqrt(near + 1)) break;
    }
  };
  walk(start + 1, 1);
  walk(start - 1, -1);
  return sum;
}
