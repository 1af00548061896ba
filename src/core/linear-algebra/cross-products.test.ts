import fc from "fast-check";
import { randomStream } from "../random/random-stream";
import { crossProducts } from "./cross-products";

test("law: every sum is that of the two columns, for odd and even numbers of columns and rows beyond a block", () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 7 }), fc.constantFrom(0, 1, 5, 1023, 1024, 1025, 2500), fc.nat(), (k, rows, seed) => {
      const random = randomStream(seed);
      const columns = Array.from({ length: k }, () => Float64Array.from({ length: rows }, () => random.normal()));
      const sums = crossProducts(columns);
      expect(sums).toHaveLength(k * k);
      for (let i = 0; i < k; i++) {
        for (let j = 0; j < k; j++) {
          const wanted = columns[i]!.reduce((sum, v, row) => sum + v * columns[j]![row]!, 0);
          expect(sums[i * k + j]).toBeCloseTo(wanted, 8);
        }
      }
    }),
    { numRuns: 40 },
  );
});
