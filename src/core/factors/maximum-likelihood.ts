import { symmetricEigen } from "../linear-algebra/symmetric-eigen";
import type { CorrelationMatrix } from "./correlation-matrix";
import type { Extraction } from "./extraction";
import type { InverseCorrelations } from "./inverse-correlations";
import { type Valley, searchFrom } from "../linear-algebra/minimize";
import { outer, secondDerivatives } from "./second-derivatives";
import { heywoodStarts, STARTS, uniquenessStarts } from "./uniqueness-starts";

/** Lowest uniqueness: at it a factor explains an item all but wholly, and the case is reported (Heywood). */
export const LOWEST_UNIQUENESS = 0.005;

/**
 * Maximum-likelihood factors: minimizes ln|Σ| − ln|R| + tr(RΣ⁻¹) − k over the logarithms of the uniquenesses ψ, with the loadings that are
 * best for each ψ, by Newton's method with exact second derivatives. Invariant to the items' units, so that correlations serve for covariances.
 * @param count how many starts; one where it is done thousands of times
 * @param factors with at least as many correlations as parameters (`mostFactors`)
 * Source: Jöreskog (1967), Psychometrika 32, 443–482; Clarke (1970), British Journal of Mathematical and Statistical Psychology 23, 43–52.
 */
export function maximumLikelihood(
  { r, items: k }: CorrelationMatrix,
  { inverse }: InverseCorrelations,
  factors: number,
  count = STARTS,
): Extraction {
  const look = (logs: Float64Array): Valley => {
    const eigen = scaledEigen(r, k, logs);
    const { values, vectors } = eigen;
    let value = 0;
    const gradient = new Float64Array(k);
    for (let j = factors; j < k; j++) {
      // a ratio of 0 is a singular matrix, which was refused before
      value += values[j]! - Math.log(values[j]!) - 1;
      for (let i = 0; i < k; i++) gradient[i] = gradient[i]! + (1 - values[j]!) * vectors[j * k + i]! ** 2;
    }
    const second = secondDerivatives(
      eigen,
      k,
      factors,
      (ones) => {
        const weighted = outer(vectors, k, factors, k, (j) => values[j]!);
        return { hessian: ones.map((a, at) => a * weighted[at]!), safe: ones.map((a) => a * a) };
      },
      (j, m) => ((1 - values[j]!) * (values[j]! + values[m]!)) / (values[m]! - values[j]!),
    );
    return { value, gradient, ...second };
  };
  const guess = Float64Array.from({ length: k }, (_, i) => Math.min(1, (1 - factors / (2 * k)) / inverse[i * k + i]!));
  const starts = uniquenessStarts(guess, count).map((start) => start.map(Math.log));
  const further = () => heywoodStarts(guess, LOWEST_UNIQUENESS).map((start) => start.map(Math.log));
  const found = searchFrom(starts, Math.log(LOWEST_UNIQUENESS), look, further);
  const uniqueness = found.at.map(Math.exp);
  const { values, vectors } = scaledEigen(r, k, found.at);
  const loadings = new Float64Array(k * factors);
  for (let m = 0; m < factors; m++) {
    const size = Math.sqrt(Math.max(0, values[m]! - 1));
    for (let i = 0; i < k; i++) loadings[i * factors + m] = Math.sqrt(uniqueness[i]!) * vectors[m * k + i]! * size;
  }
  return {
    loadings,
    uniqueness,
    rounds: found.rounds,
    settled: found.settled,
    minimum: found.value,
    search: { starts: found.starts, higher: found.higher },
  };
}

/** Eigenvectors of Ψ^−½·R·Ψ^−½. */
function scaledEigen(r: Float64Array, k: number, logs: Float64Array) {
  const scale = logs.map((x) => Math.exp(-x / 2));
  return symmetricEigen(
    r.map((value, at) => value * scale[Math.floor(at / k)]! * scale[at % k]!),
    k,
  );
}
