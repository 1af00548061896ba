import fc from "fast-check";
import { randomStream } from "../random/random-stream";
import { cronbachAlpha } from "./cronbach-alpha";
import { itemsRunningAgainst } from "./keying";

test("law: whichever lesser part of the items of one scale is turned the wrong way, exactly that part is found", () => {
  fc.assert(
    fc.property(fc.integer({ min: 3, max: 9 }), fc.nat(1000), fc.nat(511), (k, seed, mask) => {
      const wrong = Array.from({ length: k }, (_, i) => i).filter((i) => (mask >> i) & 1);
      if (wrong.length * 2 >= k) return;
      const random = randomStream(seed, k);
      const truth = Float64Array.from({ length: 300 }, () => random.normal());
      const items = Array.from({ length: k }, (_, i) => truth.map((t) => (wrong.includes(i) ? -1 : 1) * t + 0.8 * random.normal()));
      expect(itemsRunningAgainst(cronbachAlpha(items, 0.95).interItem)).toEqual(wrong);
    }),
    { numRuns: 60 },
  );
});

test("nobody is accused where it cannot be said: two items, two camps of one size, an item that does not vary", () => {
  const camps = [0, 1, 2, 3].map((i) => [0, 1, 2, 3].map((j) => (i === j ? 1 : i < 2 === j < 2 ? 0.6 : -0.5)));
  const two = [
    [1, -0.6],
    [-0.6, 1],
  ];
  const still = [
    [1, 0.5, null],
    [0.5, 1, null],
    [null, null, 1],
  ];
  expect([two, camps, still].map(itemsRunningAgainst)).toEqual([[], [], []]);
});
