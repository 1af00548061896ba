import { randomStream } from "../random/random-stream";

const SEED = 1967;
/** Places a search begins from: a criterion may have several valleys. */
export const STARTS = 10;

/**
 * Uniquenesses from which a search for factors begins: a good guess first, then seeded ones spread from nearly nothing to nearly all. The same on every
 * machine.
 */
export function uniquenessStarts(guess: Float64Array, count: number): Float64Array[] {
  return Array.from({ length: count }, (_, start) => {
    if (start === 0) return guess;
    const random = randomStream(SEED, start);
    return Float64Array.from(guess, () => 0.02 + 0.96 * random.uniform());
  });
}
