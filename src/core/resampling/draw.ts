import { streamState } from "../random/random-stream";

/** A redraw takes another seed, so that no replicate ever shares its numbers with another's first draw. */
const REDRAW = 0x632be5ab;
const state = new Int32Array(4);

/**
 * How often each unit (case, or cluster) stands in a replicate: as many draws with replacement as there are units. The same for
 * (seed, replicate, attempt) on every machine and whatever was drawn before.
 * The generator is that of random-stream.ts, written out: a call for each of ten million draws takes three times as long (bench/README.md).
 * @param counts one a unit; overwritten
 * @param attempt 0, and one more each time a replicate came out singular
 */
export function drawCounts(counts: Int32Array, seed: number, replicate: number, attempt: number): void {
  streamState(seed ^ Math.imul(attempt, REDRAW), replicate, state);
  let [a, b, c, d] = [state[0]!, state[1]!, state[2]!, state[3]!];
  const units = counts.length;
  const share = units / 4294967296;
  counts.fill(0);
  for (let i = 0; i < units; i++) {
    const scrambled = Math.imul(b, 5);
    const bits = Math.imul((scrambled << 7) | (scrambled >>> 25), 9) >>> 0;
    const t = b << 9;
    c ^= a;
    d ^= b;
    b ^= c;
    a ^= d;
    c ^= t;
    d = (d << 11) | (d >>> 21);
    const at = Math.floor(bits * share);
    counts[at] = counts[at]! + 1;
  }
}
