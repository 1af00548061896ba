import { symmetricEigen } from "../linear-algebra/symmetric-eigen";
import type { CorrelationMatrix } from "./correlation-matrix";
import type { Extraction } from "./extraction";
import { LOWEST_UNIQUENESS } from "./maximum-likelihood";
import { leadingLoadings } from "./principal-components";
import { type Valley, searchFrom } from "../linear-algebra/minimize";
import { secondDerivatives } from "./second-derivatives";
import { heywoodStarts, STARTS, uniquenessStarts } from "./uniqueness-starts";

/**
 * Minimum-residual factors: the least sum of squared differences between the correlations and those the factors make, off the diagonal,
 * by Newton's method on the uniquenesses. These are bounded below as in maximum likelihood.
 * Source: Harman & Jones (1966), Psychometrika 31, 351–368; Jöreskog (1977), in Enslein et al., Statistical Methods for Digital Computers III, 125–153.
 */
export function minimumResidual({ r, items: k }: CorrelationMatrix, start: Float64Array, factors: number): Extraction {
  const look = (uniqueness: Float64Array): Valley => {
    const eigen = symmetricEigen(withDiagonal(r, k, uniqueness), k);
    const { values, vectors } = eigen;
    let value = 0;
    const gradient = new Float64Array(k);
    for (let j = factors; j < k; j++) {
      value += values[j]! ** 2 / 2;
      for (let i = 0; i < k; i++) gradient[i] = gradient[i]! - values[j]! * vectors[j * k + i]! ** 2;
    }
    const second = secondDerivatives(
      eigen,
      k,
      factors,
      (ones) => ({ hessian: ones.map((a) => a * a), safe: ones.map((a) => a * a) }),
      (j, m) => (2 * values[j]!) / (values[j]! - values[m]!),
    );
    return { value, gradient, ...second };
  };
  const guess = start.map((h2) => 1 - h2);
  const found = searchFrom(uniquenessStarts(guess, STARTS), LOWEST_UNIQUENESS, look, () => heywoodStarts(guess, LOWEST_UNIQUENESS));
  const loadings = leadingLoadings(symmetricEigen(withDiagonal(r, k, found.at), k), k, factors);
  return {
    loadings,
    uniqueness: found.at,
    rounds: found.rounds,
    settled: found.settled,
    minimum: found.value,
    search: { starts: found.starts, higher: found.higher },
  };
}

/** R − Ψ. */
function withDiagonal(r: Float64Array, k: number, uniqueness: Float64Array): Float64Array {
  const reduced = r.slice();
  for (let i = 0; i < k; i++) reduced[i * k + i] = 1 - uniqueness[i]!;
  return reduced;
}
