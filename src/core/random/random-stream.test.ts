import { chiDeviate } from "./chi-deviate";
import { randomStream } from "./random-stream";
import { shuffle } from "./shuffle";

test("the same pair of seed and stream gives the same numbers; another pair gives others", () => {
  const take = (seed: number, stream: number) => Array.from({ length: 5 }, randomStream(seed, stream).bits);
  expect(take(7, 3)).toEqual(take(7, 3));
  expect(new Set([...take(7, 3), ...take(7, 4), ...take(8, 3), ...take(3, 7)]).size).toBe(20);
});

test("uniform numbers fill [0, 1) evenly", () => {
  const random = randomStream(11);
  const counts = new Array<number>(10).fill(0);
  for (let i = 0; i < 100_000; i++) counts[random.below(10)]!++;
  const chiSquare = counts.reduce((sum, n) => sum + (n - 10_000) ** 2 / 10_000, 0);
  expect(chiSquare).toBeLessThan(27.9); // χ²(9) beyond which one run in a thousand falls
});

test("normal deviates have mean 0, variance 1 and a normal kurtosis", () => {
  const random = randomStream(12);
  let [m1, m2, m4] = [0, 0, 0];
  const n = 100_000;
  for (let i = 0; i < n; i++) {
    const z = random.normal();
    m1 += z / n;
    m2 += z ** 2 / n;
    m4 += z ** 4 / n;
  }
  expect(Math.abs(m1)).toBeLessThan(4 / Math.sqrt(n));
  expect(Math.abs(m2 - 1)).toBeLessThan(4 * Math.sqrt(2 / n));
  expect(Math.abs(m4 - 3)).toBeLessThan(4 * Math.sqrt(96 / n));
});

test("neighbouring streams do not go together", () => {
  const [a, b] = [randomStream(1, 100), randomStream(1, 101)];
  let sum = 0;
  for (let i = 0; i < 20_000; i++) sum += (a.uniform() - 0.5) * (b.uniform() - 0.5) * 12;
  expect(Math.abs(sum / 20_000)).toBeLessThan(4 / Math.sqrt(20_000));
});

test("a shuffle keeps all, and every order comes about equally often", () => {
  const counts = new Map<string, number>();
  for (let k = 0; k < 6000; k++) {
    const list = Int32Array.of(1, 2, 3);
    shuffle(list, randomStream(5, k));
    counts.set(list.join(""), (counts.get(list.join("")) ?? 0) + 1);
  }
  expect([...counts.keys()].sort()).toEqual(["123", "132", "213", "231", "312", "321"]);
  for (const count of counts.values()) expect(Math.abs(count - 1000)).toBeLessThan(130); // 4.5 standard errors
});

test.each([1, 2, 7, 300])("squares of χ deviates with %i degrees of freedom have their mean and variance", (df) => {
  const random = randomStream(23, df);
  const n = 60_000;
  let [sum, squares] = [0, 0];
  for (let i = 0; i < n; i++) {
    const x2 = chiDeviate(df, random) ** 2;
    sum += x2 / n;
    squares += (x2 - df) ** 2 / n;
  }
  expect(Math.abs(sum - df)).toBeLessThan(4.5 * Math.sqrt((2 * df) / n));
  // the fourth central moment of χ² is 12·df·(df + 4)
  expect(Math.abs(squares - 2 * df)).toBeLessThan(4.5 * Math.sqrt((12 * df * (df + 4) - 4 * df * df) / n));
});
