import { randomStream } from "../random/random-stream";

const SEED = 1967;
/** Places a search begins from: a criterion may have several valleys. */
export const STARTS = 10;

/** So many items at most are tried as one that a factor explains wholly. */
const MOST_HEYWOOD = 15;

/**
 * Further starts for a criterion whose valleys lie at the bound, as those of one factor too many do: at each of them one item, of those best explained, has next to
 * no uniqueness. With them none of 1,000 random problems (reference/factor-minima) ended above the best of forty starts; with ten seeded ones alone, ten did.
 */
export function heywoodStarts(guess: Float64Array, lowest: number): Float64Array[] {
  const items = Array.from(guess, (_, item) => item).sort((a, b) => guess[a]! - guess[b]!);
  return items.slice(0, MOST_HEYWOOD).map((item) => guess.map((u, i) => (i === item ? lowest : u)));
}

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
