import { TooFewCasesError } from "../errors";
import { randomStream } from "../random/random-stream";
import { completeColumns, referenceSet, relativeError } from "../test-support/reference-set";
import { cronbachAlpha } from "./cronbach-alpha";

const set = referenceSet("repair_items");
const scales = (
  set.spec as unknown as { scales: Record<string, { items: string[]; reversed: string[]; minimum: number; maximum: number }> }
).scales;

function keyed(name: string, turn = true): Float64Array[] {
  const { items, reversed, minimum, maximum } = scales[name]!;
  const columns = completeColumns(set, items);
  return items.map((item) => (turn && reversed.includes(item) ? columns.get(item)!.map((x) => minimum + maximum - x) : columns.get(item)!));
}

describe.each(["skill", "thrift", "social", "green"])("repair_items, %s (relative 1e-9)", (name) => {
  test("alpha when the reversal is forgotten", () => {
    const want = set.expected[`reliability_unreversed_${name}`]!.values;
    expect(relativeError(cronbachAlpha(keyed(name, false), 0.95).alpha!, want.alpha)).toBeLessThan(1e-9);
  });

  test("every statistic of the scale and its items", () => {
    const want = set.expected[`reliability_${name}`]!.values;
    const got = cronbachAlpha(keyed(name), 0.95);
    expect([got.n, got.items]).toEqual([want.n, want.k]);
    const pairs: [number | null, number][] = [
      [got.alpha, want.alpha],
      [got.lower, want.alpha_lower],
      [got.upper, want.alpha_upper],
      [got.standardizedAlpha, want.alpha_standardized],
      [got.meanInterItemR, want.mean_inter_item_r],
      ...scales[name]!.items.flatMap((item, i): [number | null, number][] => {
        const [g, w] = [got.perItem[i]!, want.items[item]];
        return [
          [g.mean, w.mean],
          [g.sd, w.sd],
          [g.withTheRest, w.item_total_r],
          [g.alphaWithout, w.alpha_if_dropped],
        ];
      }),
    ];
    for (const [value, expected] of pairs) expect(relativeError(value!, expected)).toBeLessThan(1e-9);
  });
});

test("parallel items follow the prophecy formula: alpha = k·r/(1 + (k − 1)·r)", () => {
  const random = randomStream(21);
  const truth = Float64Array.from({ length: 200 }, () => random.normal());
  const first = truth.map((t) => t + random.normal());
  const second = truth.map((t) => t + random.normal());
  // two items of equal variance: alpha and Spearman and Brown's formula are one
  const standard = [first, second].map((x) => {
    const m = x.reduce((s, v) => s + v, 0) / 200;
    const sd = Math.sqrt(x.reduce((s, v) => s + (v - m) ** 2, 0) / 199);
    return x.map((v) => (v - m) / sd);
  });
  const result = cronbachAlpha(standard, 0.95);
  expect(result.alpha).toBeCloseTo((2 * result.meanInterItemR!) / (1 + result.meanInterItemR!), 12);
  expect(result.alpha).toBeCloseTo(result.standardizedAlpha!, 12);
});

test("the order of items and turning all of them round change nothing; items against each other make alpha negative", () => {
  const items = keyed("skill");
  const { alpha } = cronbachAlpha(items, 0.95);
  expect(cronbachAlpha([...items].reverse(), 0.95).alpha).toBeCloseTo(alpha!, 13);
  expect(
    cronbachAlpha(
      items.map((item) => item.map((x) => 6 - x)),
      0.95,
    ).alpha,
  ).toBeCloseTo(alpha!, 13);
  expect(cronbachAlpha([items[0]!, items[0]!.map((x, i) => 6 - x + (i % 3))], 0.95).alpha).toBeLessThan(0);
});

test("what cannot be answered is null or refused", () => {
  const varied = Float64Array.from([1, 2, 3, 4]);
  const flat = new Float64Array(4).fill(2);
  expect(() => cronbachAlpha([varied.slice(0, 1), varied.slice(0, 1)], 0.95)).toThrow(TooFewCasesError);
  expect(cronbachAlpha([flat, flat], 0.95)).toMatchObject({ alpha: null, lower: null, standardizedAlpha: null });
  expect(cronbachAlpha([varied, flat], 0.95).perItem[0]).toMatchObject({ withTheRest: null, alphaWithout: null });
});
