import fc from "fast-check";
import { layoutScree } from "./layout-scree";
import { layoutIntervals } from "./layout-intervals";
import { layoutRise } from "./layout-rise";

test("the rise is drawn to scale: bars touch, widths go as ΔR², ticks stand at their values", () => {
  const { bars, top, ticks } = layoutRise(
    [
      { R2: 0.06, change: 0.06 },
      { R2: 0.3, change: 0.24 },
      { R2: 0.34, change: 0.04 },
    ],
    240,
  );
  expect(bars[0]!.before).toBeCloseTo(0, 9);
  bars.forEach((bar, k) => {
    expect(bar.before + bar.added).toBeCloseTo(bar.end, 9);
    if (k > 0) expect(bar.before).toBeCloseTo(bars[k - 1]!.end, 9);
  });
  expect(bars[1]!.added / bars[2]!.added).toBeCloseTo(6, 9);
  expect(bars[2]!.end).toBeCloseTo((0.34 / top) * 240, 9);
  for (const { at, value } of ticks) expect(at).toBeCloseTo((value / top) * 240, 9);
});

test("nothing explained is drawn as nothing", () => {
  expect(layoutRise([{ R2: 0, change: 0 }], 200).bars[0]).toEqual({ before: 0, added: 0, end: 0, interval: null });
  expect(layoutRise([], 200).bars).toEqual([]);
});

test("law: intervals stay inside their frame, in order, on one scale with zero", () => {
  const estimate = fc
    .tuple(fc.double({ min: -50, max: 50, noNaN: true }), fc.double({ min: 0, max: 20, noNaN: true }))
    .map(([e, h]) => ({ estimate: e, lower: e - h, upper: e + h }));
  fc.assert(
    fc.property(fc.array(estimate, { minLength: 1, maxLength: 8 }), (list) => {
      const marks = layoutIntervals(list, 66);
      marks.forEach((mark, i) => {
        for (const x of [mark.from, mark.dot, mark.to, mark.zero]) expect(x >= 3.999 && x <= 62.001).toBe(true);
        expect(mark.from <= mark.dot && mark.dot <= mark.to).toBe(true);
        expect(mark.zero).toBe(marks[0]!.zero);
        expect(mark.excludesZero).toBe(list[i]!.lower > 0 || list[i]!.upper < 0);
      });
    }),
  );
});

describe("scree", () => {
  const frame = { width: 600, height: 200, left: 40, right: 80, top: 10, bottom: 30 };
  test("larger eigenvalues stand higher, all inside the frame, and the labels of the lines never meet", () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 9, noNaN: true }), { minLength: 3, maxLength: 60 }), (values) => {
        const eigenvalues = [...values].sort((a, b) => b - a);
        const random = eigenvalues.map((_, i) => 1.5 - i / eigenvalues.length);
        const layout = layoutScree(eigenvalues, random, frame);
        eigenvalues.forEach((value, i) => {
          expect(layout.y(value)).toBeGreaterThanOrEqual(frame.top - 1e-9);
          expect(layout.y(value)).toBeLessThanOrEqual(frame.height - frame.bottom + 1e-9);
          if (i > 0) expect(layout.y(value)).toBeGreaterThanOrEqual(layout.y(eigenvalues[i - 1]!));
        });
        expect(Math.abs(layout.labels.own - layout.labels.random)).toBeGreaterThanOrEqual(15 - 1e-9);
        const gaps = layout.places.slice(1).map((place, i) => layout.x(place) - layout.x(layout.places[i]!));
        for (const gap of gaps) expect(gap).toBeGreaterThanOrEqual(15 - 1e-9);
      }),
    );
  });
});
