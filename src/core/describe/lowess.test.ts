import { TooFewCasesError } from "../errors";
import { randomStream } from "../random/random-stream";
import { LARGE_SMOOTH, lowess } from "./lowess";

const random = randomStream(17);
const cloud = (n: number) => {
  const x = Float64Array.from({ length: n }, () => 10 * random.uniform());
  return { x, y: x.map((v) => Math.sin(v) + 0.2 * random.normal()) };
};

test("a straight line is its own smooth, and an outlier does not pull it", () => {
  const x = Float64Array.from({ length: 40 }, (_, i) => (i * 7) % 40);
  const line = x.map((v) => 3 - 2 * v);
  lowess(x, line).forEach((v, i) => expect(v).toBeCloseTo(line[i]!, 9));
  const noisy = line.map((v, i) => v + 0.1 * Math.sin(i * 12.9898));
  const spoilt = noisy.map((v, i) => (i === 20 ? v + 500 : v));
  const [plain, robust] = [lowess(x, spoilt, { rounds: 0 }), lowess(x, spoilt)];
  const off = (smooth: Float64Array) => Math.max(...smooth.map((v, i) => Math.abs(v - line[i]!)));
  expect(off(robust)).toBeLessThan(0.3);
  expect(off(plain)).toBeGreaterThan(10);
});

test("order does not matter, equal x share a value, another unit moves the line along", () => {
  const { x, y } = cloud(80);
  const rounded = x.map((v) => Math.round(v));
  const smooth = lowess(rounded, y);
  const order = Int32Array.from({ length: 80 }, (_, i) => (i * 37) % 80);
  const turned = lowess(
    Float64Array.from(order, (i) => rounded[i]!),
    Float64Array.from(order, (i) => y[i]!),
  );
  order.forEach((from, i) => expect(turned[i]).toBeCloseTo(smooth[from]!, 9));
  const byX = new Map<number, number>();
  rounded.forEach((v, i) => {
    expect(smooth[i]).toBe(byX.get(v) ?? smooth[i]);
    byX.set(v, smooth[i]!);
  });
  lowess(
    rounded.map((v) => 100 * v + 5),
    y.map((v) => 10 * v - 3),
  ).forEach((v, i) => expect(v).toBeCloseTo(10 * smooth[i]! - 3, 7));
});

test("drawn straight between places three hundredths of the range apart it stays beside the full smooth", () => {
  const { x, y } = cloud(600);
  const [full, quick] = [lowess(x, y, { span: 0.3 }), lowess(x, y, { span: 0.3, apart: 10 / 300 })];
  expect(Math.max(...full.map((v, i) => Math.abs(v - quick[i]!)))).toBeLessThan(0.01);
});

test("two cases are joined, all x alike give one value, one case is too few", () => {
  expect(Array.from(lowess(Float64Array.of(1, 2), Float64Array.of(5, 9)))).toEqual([5, 9]);
  const flat = lowess(new Float64Array(6).fill(3), Float64Array.of(1, 2, 3, 4, 5, 6));
  expect(new Set(flat).size).toBe(1);
  expect(Number.isFinite(flat[0])).toBe(true);
  expect(() => lowess(Float64Array.of(1), Float64Array.of(1))).toThrow(TooFewCasesError);
});

test.each([false, true])(
  "many cases in bins stay beside the smooth at a hundred and twenty places, within a two-hundredth of an SD (rounded x %s)",
  (rounded) => {
    const random = randomStream(31);
    const n = LARGE_SMOOTH + 2000;
    const x = Float64Array.from({ length: n }, () => {
      const v = Math.exp(random.normal() / 2);
      return rounded ? Math.round(4 * v) / 4 : v;
    });
    const y = x.map((v, i) => Math.sin(2 * v) + random.normal() + (i % 50 === 0 ? 15 : 0));
    const range = x.reduce((a, b) => Math.max(a, b)) - x.reduce((a, b) => Math.min(a, b));
    // one robust round, so that the test takes no longer than it must
    const [quick, full] = [lowess(x, y, { rounds: 1 }), lowess(x, y, { rounds: 1, apart: range / 120 })];
    const sorted = quick.map((v, i) => Math.abs(v - full[i]!)).sort();
    expect(sorted[Math.floor(0.99 * n)]!).toBeLessThan(0.005);
  },
);
