/**
 * A stream of random numbers for (seed, stream): xoshiro128**, its state filled by splitmix32.
 * The same pair gives the same numbers on every machine, whatever ran before.
 * Source: Blackman & Vigna (2021), ACM Transactions on Mathematical Software 47(4), 36.
 */
export interface RandomStream {
  /** Whole number 0 … 2³² − 1. */
  bits(): number;
  /** 0 ≤ u < 1 in steps of 2⁻³². */
  uniform(): number;
  /** Whole number 0 … bound − 1. */
  below(bound: number): number;
  /** Standard normal deviate. */
  normal(): number;
}

/** The four words a stream begins with. @param state length 4; overwritten */
export function streamState(seed: number, stream: number, state: Int32Array): void {
  let mix = (Math.imul(seed | 0, 0x9e3779b1) ^ Math.imul((stream | 0) + 0x7f4a7c15, 0x85ebca6b)) | 0;
  for (let i = 0; i < 4; i++) {
    mix = (mix + 0x9e3779b9) | 0;
    let z = mix;
    z = Math.imul(z ^ (z >>> 16), 0x21f0aaad);
    z = Math.imul(z ^ (z >>> 15), 0x735a2d97);
    state[i] = (z ^ (z >>> 15)) | 0;
  }
  state[3] = state[3]! | 1;
}

/** @param seed, stream whole numbers; only their lowest 32 bits count */
export function randomStream(seed: number, stream = 0): RandomStream {
  const state = new Int32Array(4);
  streamState(seed, stream, state);
  let [a, b, c, d] = state as unknown as [number, number, number, number];
  const bits = () => {
    const scrambled = Math.imul(b, 5);
    const result = Math.imul((scrambled << 7) | (scrambled >>> 25), 9) >>> 0;
    const t = b << 9;
    c ^= a;
    d ^= b;
    b ^= c;
    a ^= d;
    c ^= t;
    d = (d << 11) | (d >>> 21);
    return result;
  };
  const uniform = () => bits() / 4294967296;
  return {
    bits,
    uniform,
    below: (bound) => Math.floor(uniform() * bound),
    // Box and Muller (1958), The Annals of Mathematical Statistics 29(2), 610–611
    normal: () => Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform()),
  };
}
