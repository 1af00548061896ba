import { scaleLinear } from "d3-scale";
import fc from "fast-check";
import { labelWidth, ticksBelow, ticksBeside } from "./axis-ticks";

const SIZE = 12;
const extents = fc
  .tuple(fc.double({ min: -1, max: 1, noNaN: true }), fc.double({ min: 0.001, max: 1, noNaN: true }), fc.integer({ min: -12, max: 14 }))
  .map(([from, wide, power]) => [from * 10 ** power, (from + wide) * 10 ** power] as const);
/** What a label says, as a number. */
const read = (label: string) => {
  const [digits, power] = label
    .replace(/\u202f/g, "")
    .replace(/−/g, "-")
    .split(" × 10") as [string, string | undefined];
  const exponent = power?.replace(/⁻/g, "-").replace(/[⁰¹²³⁴⁵⁶⁷⁸⁹]/g, (c) => String("⁰¹²³⁴⁵⁶⁷⁸⁹".indexOf(c)));
  return Number(`${digits}e${exponent ?? 0}`);
};

test("law: labels below a picture never run into each other, each says its tick, and no two say the same", () =>
  fc.assert(
    fc.property(extents, fc.integer({ min: 150, max: 640 }), fc.integer({ min: 3, max: 8 }), ([low, high], width, wanted) => {
      const ticks = ticksBelow(
        scaleLinear()
          .domain([low, high])
          .range([40, 40 + width]),
        wanted,
        SIZE,
        60 + width,
      );
      expect(ticks.length).toBeGreaterThan(0);
      expect(new Set(ticks.map(({ label }) => label)).size).toBe(ticks.length);
      ticks.forEach(({ value, at, middle, label }, i) => {
        expect(Math.abs(read(label) - value)).toBeLessThanOrEqual(1e-9 * Math.max(Math.abs(low), Math.abs(high)));
        expect(at).toBeGreaterThanOrEqual(40 - 1e-9);
        expect(at).toBeLessThanOrEqual(40 + width + 1e-9);
        const before = ticks[i - 1];
        const half = labelWidth(label, SIZE) / 2;
        if (before) expect(middle - before.middle).toBeGreaterThan(half + labelWidth(before.label, SIZE) / 2);
        expect(middle - half).toBeGreaterThanOrEqual(-1e-9);
        expect(middle + half).toBeLessThanOrEqual(60 + width + 1e-9);
      });
    }),
    { numRuns: 500 },
  ));

test("law: labels beside a picture fit, by a power of ten that is said once where they would not; times it they say their ticks", () =>
  fc.assert(
    fc.property(extents, fc.integer({ min: 36, max: 60 }), ([low, high], room) => {
      const { ticks, power } = ticksBeside(scaleLinear().domain([low, high]).range([200, 10]), 5, SIZE, room); // prettier-ignore
      const times = power === "" ? 1 : read(`1 ${power}`);
      for (const { value, label } of ticks)
        expect(Math.abs(read(label) * times - value)).toBeLessThanOrEqual(1e-9 * Math.max(Math.abs(low), Math.abs(high)));
      // of numbers that their first three digits tell apart
      if (high - low > 0.05 * Math.max(Math.abs(low), Math.abs(high)))
        for (const { label } of ticks) expect(labelWidth(label, SIZE)).toBeLessThanOrEqual(room);
    }),
    { numRuns: 500 },
  ));

test("usual numbers are written as they are, thousands with a thin space; a chart's own way of writing is kept while it fits", () => {
  const labels = (low: number, high: number, print?: (v: number) => string) => ticksBelow(scaleLinear().domain([low, high]).range([0, 400]), 5, SIZE, 400, print).map(({ label }) => label); // prettier-ignore
  expect(labels(-2, 2)).toEqual(["−2", "−1", "0", "1", "2"]);
  expect(labels(0, 0.4)).toEqual(["0.0", "0.1", "0.2", "0.3", "0.4"]);
  expect(labels(0, 20_000)).toEqual(["0", "5\u202f000", "10\u202f000", "15\u202f000", "20\u202f000"]);
  expect(labels(0, 4e12)).toEqual(["0", "1 × 10¹²", "2 × 10¹²", "3 × 10¹²", "4 × 10¹²"]);
  expect(labels(0, 2, (v) => v.toPrecision(2))).toEqual(["0.0", "0.5", "1.0", "1.5", "2.0"]);
  expect(labels(0, 4e-4, (v) => v.toFixed(2))).toEqual(["0.0000", "0.0001", "0.0002", "0.0003", "0.0004"]);
  expect(labels(0, 0.4, (v) => v.toFixed(2).slice(1))).toEqual([".00", ".10", ".20", ".30", ".40"]);
});
