import { normalQuantile, normalUpperTail } from "../distributions/normal-distribution";
import { TooFewCasesError, TooManyCasesError } from "../errors";
import { isConstant } from "./constant";
import { mean } from "./mean";

export interface ShapiroWilk {
  /** 0…1; near 1 when the values look normal. */
  W: number;
  p: number;
}

/** Royston's polynomials, lowest power first. */
const polynomial = (coefficients: readonly number[], x: number) => coefficients.reduceRight((sum, c) => sum * x + c, 0);
const LAST = [0, 0.221157, -0.147981, -2.07119, 4.434685, -2.706056];
const SECOND_LAST = [0, 0.042981, -0.293762, -1.752461, 5.682633, -3.582633];

/**
 * Shapiro–Wilk test that values come from a normal distribution; null when they do not vary.
 * @param values finite numbers, 3 ≤ n ≤ 5,000, in any order
 * @throws TooFewCasesError, TooManyCasesError
 * Source: Royston (1995), Applied Statistics 44, 547–551 (AS R94).
 */
export function shapiroWilk(values: Float64Array): ShapiroWilk | null {
  const n = values.length;
  if (n < 3) throw new TooFewCasesError({ cases: n, needed: 3, purpose: "The Shapiro–Wilk test" });
  if (n > 5000) throw new TooManyCasesError({ cases: n, most: 5000, purpose: "The Shapiro–Wilk test" });
  if (isConstant(values)) return null;
  const sorted = values.slice().sort();
  const centre = mean(sorted);
  const range = sorted[n - 1]! - sorted[0]!;
  const half = upperWeights(n);
  let along = 0;
  let squares = 0;
  for (let i = 0; i < half.length; i++) along += half[i]! * ((sorted[n - 1 - i]! - sorted[i]!) / range);
  for (const value of sorted) squares += ((value - centre) / range) ** 2;
  const W = Math.min(1, (along * along) / squares);
  return { W, p: pOf(W, n) };
}

/** Weights of the largest, second largest, … value; those of the small ones are the same with a minus. */
function upperWeights(n: number): Float64Array {
  const pairs = Math.floor(n / 2);
  if (n === 3) return Float64Array.of(Math.SQRT1_2);
  const scores = Float64Array.from({ length: pairs }, (_, i) => -normalQuantile((i + 1 - 0.375) / (n + 0.25)));
  const squares = 2 * scores.reduce((sum, m) => sum + m * m, 0);
  const u = 1 / Math.sqrt(n);
  const weights = new Float64Array(pairs);
  weights[0] = scores[0]! / Math.sqrt(squares) + polynomial(LAST, u);
  let from = 1;
  let left = squares - 2 * scores[0]! ** 2;
  let taken = 1 - 2 * weights[0] ** 2;
  if (n > 5) {
    weights[1] = scores[1]! / Math.sqrt(squares) + polynomial(SECOND_LAST, u);
    from = 2;
    left -= 2 * scores[1]! ** 2;
    taken -= 2 * weights[1] ** 2;
  }
  const scale = Math.sqrt(left / taken);
  for (let i = from; i < pairs; i++) weights[i] = scores[i]! / scale;
  return weights;
}

function pOf(W: number, n: number): number {
  if (n === 3) {
    const least = Math.asin(Math.sqrt(0.75));
    return Math.max(0, Math.min(1, (6 / Math.PI) * (Math.asin(Math.sqrt(W)) - least)));
  }
  const logged = Math.log1p(-W);
  const logN = Math.log(n);
  if (n <= 11) {
    const gamma = -2.273 + 0.459 * n;
    if (logged >= gamma) return 0; // below the least W that n values can have
    const centre = polynomial([0.544, -0.39978, 0.025054, -6.714e-4], n);
    const spread = Math.exp(polynomial([1.3822, -0.77857, 0.062767, -0.0020322], n));
    return normalUpperTail((-Math.log(gamma - logged) - centre) / spread);
  }
  const centre = polynomial([-1.5861, -0.31082, -0.083751, 0.0038915], logN);
  const spread = Math.exp(polynomial([-0.4803, -0.082676, 0.0030302], logN));
  return normalUpperTail((logged - centre) / spread);
}
