import { randomStream } from "../../random/random-stream";
import { drawCounts, seededState } from "../draw";
import { packedLength } from "../figures/whitened-rows";
import { TapeWriter } from "../tape/tape";
import { engineFor, type EngineKind } from "./choose-engine";
import { batchSize, type Part, type Problem, unitsOf } from "./problem";

const KINDS: [EngineKind][] = [["kernel"], ["plain"]];

/** Made-up rows, and the part they make. */
function madeUp(strata: number[], width: number, seed: number): { part: Part; rows: number[][] } {
  const random = randomStream(seed);
  const units = strata.reduce((sum, n) => sum + n, 0);
  const rows = Array.from({ length: units }, () => Array.from({ length: width }, () => random.normal()));
  const size = packedLength(width);
  const total = Float64Array.from(sumsBy(rows, () => 1));
  const write: Part["write"] = (to, at, step) => rows.forEach((row, i) => to.set(row, at + i * step));
  return { part: { strata, width, size, total, write }, rows };
}

/** Σ times · row · rowᵀ, lower triangle row by row, the plainest way. */
function sumsBy(rows: readonly number[][], times: (unit: number) => number): number[] {
  const width = rows[0]!.length;
  return Array.from({ length: width }, (_, a) =>
    Array.from({ length: a + 1 }, (__, b) => rows.reduce((sum, row, i) => sum + times(i) * row[a]! * row[b]!, 0)),
  ).flat();
}

/** A tape that gives back the sums themselves. */
function sumsOf(parts: readonly Part[]): Problem {
  const writer = new TapeWriter();
  const size = parts.reduce((sum, part) => sum + part.size, 0);
  for (let k = 0; k < size; k++) writer.output(writer.input(k));
  return { parts, tape: writer.tape() };
}

const expectSums = (found: ArrayLike<number>, expected: readonly number[]) =>
  expected.forEach((value, k) => expect(Math.abs(found[k]! - value)).toBeLessThanOrEqual(1e-11 * Math.max(1, Math.abs(value))));

describe.each(KINDS)("sums of resamples (%s)", (kind) => {
  // one to several strips of sums; fewer units than a block, whole blocks, a rest of one
  test.each([
    [2, 1],
    [2, 7],
    [3, 40],
    [5, 129],
    [7, 1000],
    [8, 113],
    [9, 256],
    [14, 333],
    [17, 65],
  ])("law: %d numbers a row, %d units: each unit as often as its replicate draws it", (width, units) => {
    const { part, rows } = madeUp([units], width, width * units);
    const engine = engineFor(sumsOf([part]), kind);
    const count = 21; // more than a run of the tape, no multiple of it
    const out = new Float64Array(part.size * count);
    engine.draw(5, 100, count, 0, out, count, 0);
    const state = new Int32Array(4);
    for (const r of [0, 3, 15, 16, 20]) {
      const counts = new Uint8Array(units);
      seededState(5, 100 + r, 0, state);
      drawCounts(counts, state);
      expectSums(out.filter((_, i) => i % count === r), sumsBy(rows, (i) => counts[i]!)); // prettier-ignore
    }
  });

  test("law: a unit may be taken up to 255 times", () => {
    const { part, rows } = madeUp([11], 4, 1);
    const engine = engineFor(sumsOf([part]), kind);
    const times = [0, 1, 2, 3, 4, 5, 9, 77, 254, 255, 0];
    const out = new Float64Array(part.size);
    engine.counted(1, 0, (_, countsOf) => countsOf(0).set(times), out, 1, 0);
    expectSums(
      out,
      sumsBy(rows, (i) => times[i]!),
    );
    engine.counted(1, 0, () => undefined, out, 1, 0); // counts are empty again
    expectSums(
      out,
      sumsBy(rows, () => 0),
    );
  });

  test("law: units that come as sums already, and parts beside one another, each from its own stretch of the stream", () => {
    const [first, second] = [madeUp([5, 9], 3, 2), madeUp([12], 6, 3)];
    const packed = second.rows.map((row) => sumsBy([row], () => 1));
    const summed: Part = { ...second.part, width: 0, write: (to, at, step) => packed.forEach((sums, i) => to.set(sums, at + i * step)) };
    const engine = engineFor(sumsOf([first.part, summed]), kind);
    const out = new Float64Array(first.part.size + summed.size);
    engine.draw(1, 7, 1, 2, out, 1, 0);
    const state = new Int32Array(4);
    seededState(1, 7, 2, state);
    const drawn = [5, 9, 12].map((units) => {
      const counts = new Uint8Array(units);
      drawCounts(counts, state);
      return Array.from(counts);
    });
    const own = [...drawn[0]!, ...drawn[1]!];
    expectSums(out, [...sumsBy(first.rows, (i) => own[i]!), ...sumsBy(second.rows, (i) => drawn[2]![i]!)]);
    // leaving a unit of one part out leaves the other whole
    engine.leaveOut(1, 4, 1, out, 1, 0);
    expectSums(out, [...sumsBy(first.rows, () => 1), ...sumsBy(second.rows, (i) => (i === 4 ? 0 : 1))]);
  });

  test("figures go where they are asked for, and nowhere else", () => {
    const { part } = madeUp([20], 2, 9);
    const engine = engineFor(sumsOf([part]), kind);
    const out = new Float64Array(3 * 40).fill(-7);
    engine.draw(2, 0, 5, 0, out, 40, 30);
    const alone = new Float64Array(3 * 5);
    engine.draw(2, 0, 5, 0, alone, 5, 0);
    for (let k = 0; k < 3; k++) {
      expect(Array.from(out.subarray(k * 40, k * 40 + 30)).every((v) => v === -7)).toBe(true);
      expect(out.subarray(k * 40 + 30, k * 40 + 35)).toEqual(alone.subarray(k * 5, k * 5 + 5));
      expect(Array.from(out.subarray(k * 40 + 35, (k + 1) * 40)).every((v) => v === -7)).toBe(true);
    }
  });
});

test("a batch is what fits in memory, a multiple of sixteen, however many units there are", () => {
  for (const units of [1, 100, 50_000, 1_000_000, 40_000_000]) {
    const batch = batchSize(units);
    expect(batch % 16).toBe(0);
    expect(batch === 16 || batch * units <= 64 * 2 ** 20).toBe(true);
    expect(batch).toBeGreaterThanOrEqual(16);
  }
  expect(unitsOf(madeUp([3, 4], 2, 1).part)).toBe(7);
});
