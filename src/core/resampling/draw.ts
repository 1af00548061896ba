import { randomStream } from "../random/random-stream";

/** A redraw takes another seed, so that no replicate ever shares its numbers with another's first draw. */
const REDRAW = 0x632be5ab;

/**
 * How often each unit (case, or cluster) stands in a replicate: `units` draws with replacement. The same for (seed, replicate, attempt) on every
 * machine and whatever was drawn before.
 * @param counts length `units`; overwritten
 * @param attempt 0, and one more each time a replicate came out singular
 */
export function drawCounts(counts: Uint16Array, seed: number, replicate: number, attempt: number): void {
  const stream = randomStream(seed ^ Math.imul(attempt, REDRAW), replicate);
  const units = counts.length;
  counts.fill(0);
  for (let i = 0; i < units; i++) {
    const at = Math.floor(stream.bits() * (units / 4294967296));
    counts[at] = counts[at]! + 1;
  }
}
