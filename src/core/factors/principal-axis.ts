import { symmetricEigen } from "../linear-algebra/symmetric-eigen";
import type { CorrelationMatrix } from "./correlation-matrix";
import { communalities, type Extraction } from "./extraction";
import { leadingLoadings } from "./principal-components";

const MOST_ROUNDS = 1000;
const STILL = 1e-6;

/**
 * Principal-axis factors: components of the correlations with communalities in the diagonal, which are put in anew until none changes by
 * 1e-6 or after 1,000 rounds.
 * @param start communalities to begin with, an item each
 * Source: Harman (1976), Modern Factor Analysis, 3rd ed., ch. 8.
 */
export function principalAxis({ r, items: k }: CorrelationMatrix, start: Float64Array, factors: number): Extraction {
  const reduced = r.slice();
  let shared = start;
  for (let round = 1; ; round++) {
    for (let i = 0; i < k; i++) reduced[i * k + i] = shared[i]!;
    const loadings = leadingLoadings(symmetricEigen(reduced, k), k, factors);
    const next = communalities(loadings, k, factors);
    const moved = next.reduce((most, h2, i) => Math.max(most, Math.abs(h2 - shared[i]!)), 0);
    shared = next;
    if (moved < STILL || round === MOST_ROUNDS)
      return { loadings, uniqueness: next.map((h2) => 1 - h2), rounds: round, settled: moved < STILL, minimum: null, search: null };
  }
}
