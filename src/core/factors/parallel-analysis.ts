import { quantile } from "../describe/quantile";
import { symmetricEigenvalues } from "../linear-algebra/symmetric-eigen";
import { chiDeviate } from "../random/chi-deviate";
import { type RandomStream, randomStream } from "../random/random-stream";

/**
 * Horn's parallel analysis with full correlation matrices. A set stands for n cases of k independent normal items; its cross-products
 * are drawn from their exact distribution (L·Lᵀ, L lower triangular with χ deviates on the diagonal and normal ones
 * below), so that the time a set takes does not depend on n. Set s draws from the stream (seed, s).
 * @param k items; @param n cases; @param share of the sets' eigenvalues that lie below the percentile, as .95
 * @param done called after each set with how many there are; may throw to end it
 * @returns the percentile at each place, largest eigenvalue first
 * Source: Horn (1965), Psychometrika 30, 179–185; Bartlett (1933), Proceedings of the Royal Society of Edinburgh 53, 260–283.
 */
export function randomEigenvalues(
  k: number,
  n: number,
  { sets, seed, share }: { sets: number; seed: number; share: number },
  done: (sets: number) => void = () => {},
): Float64Array {
  const byPlace = Array.from({ length: k }, () => new Float64Array(sets));
  for (let set = 0; set < sets; set++) {
    symmetricEigenvalues(randomCorrelations(k, n, randomStream(seed, set)), k).forEach((value, place) => (byPlace[place]![set] = value));
    done(set + 1);
  }
  return Float64Array.from(byPlace, (values) => quantile(values.sort(), share));
}

/** How many leading eigenvalues lie above those of random data: the factors to keep. */
export function leadingAbove(eigenvalues: Float64Array, percentile: Float64Array): number {
  const first = eigenvalues.findIndex((value, place) => value <= percentile[place]!);
  return first < 0 ? eigenvalues.length : first;
}

/** Correlations of n cases of k independent normal items: k × k, row-major. */
export function randomCorrelations(k: number, n: number, random: RandomStream): Float64Array {
  const wide = Math.min(k, n - 1); // fewer cases than items: the cross-products have that rank
  const l = new Float64Array(k * wide);
  for (let i = 0; i < k; i++) {
    let square = 0;
    for (let j = 0; j < Math.min(i + 1, wide); j++) {
      const value = i === j ? chiDeviate(n - 1 - j, random) : random.normal();
      l[i * wide + j] = value;
      square += value * value;
    }
    const length = Math.sqrt(square);
    for (let j = 0; j < Math.min(i + 1, wide); j++) l[i * wide + j] = l[i * wide + j]! / length;
  }
  const r = new Float64Array(k * k);
  for (let i = 0; i < k; i++) {
    r[i * k + i] = 1;
    for (let j = 0; j < i; j++) {
      let sum = 0;
      for (let m = 0; m < Math.min(j + 1, wide); m++) sum += l[i * wide + m]! * l[j * wide + m]!;
      r[i * k + j] = r[j * k + i] = sum;
    }
  }
  return r;
}
