import { streamState } from "../random/random-stream";

/** A redraw takes another seed, so that no replicate ever shares its numbers with another's first draw. */
const REDRAW = 0x632be5ab;
/** Below this many units the upper half of 32 bits · units can be found in 32-bit numbers. */
const FEW = 65536;

/**
 * The four words the stream of a replicate begins with: the same for (seed, replicate, attempt) on every machine and whatever was drawn before.
 * @param attempt 0, and one more each time a replicate came out singular
 */
export function seededState(seed: number, replicate: number, attempt: number, state: Int32Array): void {
  streamState(seed ^ Math.imul(attempt, REDRAW), replicate, state);
}

/**
 * Counts how often each unit is drawn: as many draws with replacement as there are units.
 * The generator is that of random-stream.ts, written out: a call for each of ten million draws takes three times as long (bench/README.md).
 * @param counts one a unit, added to. A byte is enough: that one unit is drawn 256 times or more has a probability below 1/256! (10⁻⁵⁰⁷)
 * @param state where the stream stands; left where it stands afterwards
 */
export function drawCounts(counts: Uint8Array, state: Int32Array): void {
  let [a, b, c, d] = [state[0]!, state[1]!, state[2]!, state[3]!];
  const units = counts.length;
  for (let i = 0; i < units; i++) {
    const scrambled = Math.imul(b, 5);
    const bits = Math.imul((scrambled << 7) | (scrambled >>> 25), 9);
    const t = b << 9;
    c ^= a;
    d ^= b;
    b ^= c;
    a ^= d;
    c ^= t;
    d = (d << 11) | (d >>> 21);
    const at = units < FEW ? (Math.imul(bits >>> 16, units) + (Math.imul(bits & 65535, units) >>> 16)) >>> 16 : upperHalf(bits, units);
    counts[at] = counts[at]! + 1;
  }
  state[0] = a;
  state[1] = b;
  state[2] = c;
  state[3] = d;
}

/** ⌊bits · units / 2³²⌋ for whole numbers below 2³². */
function upperHalf(bits: number, units: number): number {
  const low = (bits & 65535) * units;
  return Math.floor(((bits >>> 16) * units + Math.floor(low / 65536)) / 65536);
}

/** How often each of so many units is drawn in a replicate: the same for (seed, replicate) everywhere. */
export function seededCounts(units: number, seed: number, replicate: number): Uint8Array {
  const state = new Int32Array(4);
  seededState(seed, replicate, 0, state);
  const counts = new Uint8Array(units);
  drawCounts(counts, state);
  return counts;
}
