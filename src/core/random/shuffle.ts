import type { RandomStream } from "./random-stream";

/**
 * Puts a list into a random order, every order equally likely, in place.
 * Source: Durstenfeld (1964), Communications of the ACM 7(7), 420.
 */
export function shuffle(list: Int32Array, random: RandomStream): void {
  for (let i = list.length - 1; i > 0; i--) {
    const j = ((random.bits() * (i + 1)) / 4294967296) | 0;
    const kept = list[i]!;
    list[i] = list[j]!;
    list[j] = kept;
  }
}
