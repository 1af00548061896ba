import { drawCounts, seededState } from "../draw";
import { LANES } from "../tape/tape";
import { runTape, tapeRegisters } from "../tape/run-tape";
import { batchSize, type Engine, type FillCounts, firstInput, type Part, type Problem, unitsOf } from "./problem";

/** Sums that are added to side by side: they stay in the processor meanwhile. */
const [STRIP, HALF_STRIP] = [8, 4];
/** Pairs of units whose entries stand ready at a time. Of a pair there are 16: i times the first and j times the second, i and j from 0 to 3, at 4·j + i. */
const PAIRS = 64;
const ENTRIES = 16;
const MOST_OF_ONE = 3;
/** Bits that are set in the counts of a pair when one of them is above 3. */
const MORE = 0xfcfc;

/**
 * Figures of resamples in plain TypeScript, for where WebAssembly is off: the same draws as the kernel's, figures that differ by rounding alone.
 * A resample is a count for each unit. Its sums are taken two units at a time: for a block of pairs the sixteen likeliest sums of a pair stand ready, so
 * that each resample adds one entry where it would have added two rows. (The kernel does otherwise: there an entry so far from the processor takes longer
 * than two that are near.)
 */
export class PlainEngine implements Engine {
  readonly kind = "plain";
  readonly batch: number;
  private readonly parts: PartSums[];
  private readonly registers: Float64Array;
  private readonly state = new Int32Array(4);

  constructor(private readonly problem: Problem) {
    this.batch = batchSize(problem.parts.reduce((sum, part) => sum + unitsOf(part), 0));
    this.parts = problem.parts.map((part) => new PartSums(part, this.batch));
    this.registers = tapeRegisters(problem.tape);
  }

  draw(seed: number, first: number, count: number, attempt: number, out: Float64Array, stride: number, at: number): void {
    for (const part of this.parts) part.clear(count);
    for (let r = 0; r < count; r++) {
      seededState(seed, first + r, attempt, this.state);
      for (const part of this.parts) part.draw(this.state, r);
    }
    for (const part of this.parts) part.sum(count);
    this.run(count, out, stride, at);
  }

  counted(count: number, begin: 0 | 1, fill: FillCounts, out: Float64Array, stride: number, at: number): void {
    this.parts.forEach((part, p) => {
      part.clear(count, begin);
      fill(p, (r) => part.countsOf(r));
      part.sum(count);
    });
    this.run(count, out, stride, at);
  }

  leaveOut(part: number, first: number, count: number, out: Float64Array, stride: number, at: number): void {
    this.parts.forEach((p, i) => (i === part ? p.leaveOut(first, count) : p.takeAll(count)));
    this.run(count, out, stride, at);
  }

  private run(count: number, out: Float64Array, stride: number, at: number): void {
    const { tape } = this.problem;
    const some = new Float64Array(tape.outputs * LANES);
    for (let from = 0; from < count; from += LANES) {
      this.parts.forEach((part, p) => part.gather(from, tape.inputs, firstInput(this.problem, p), this.registers));
      const lanes = Math.min(LANES, count - from);
      if (lanes === LANES) {
        runTape(tape, this.registers, out, stride, at + from);
        continue;
      }
      runTape(tape, this.registers, some, LANES, 0);
      for (let k = 0; k < tape.outputs; k++) {
        out.set(some.subarray(k * LANES, k * LANES + lanes), k * stride + at + from);
      }
    }
  }
}

/** The sums of one part for a batch of resamples. */
class PartSums {
  /** How often each unit stands in each resample. */
  readonly counts: Uint8Array;
  private readonly units: number;
  /** Numbers from one row of sums to the next: whole strips. */
  private readonly stride: number;
  private readonly rows: Float64Array;
  private readonly total: Float64Array;
  private readonly sums: Float64Array;
  private readonly room: Float64Array;
  private readonly table: Float64Array;
  private readonly list: Int32Array;
  /** The counts of two units at a time. */
  private readonly pairs: Uint16Array;
  /** Counts from one resample to the next: an even number, the one beyond the last unit 0. */
  private readonly step: number;

  constructor(
    private readonly part: Part,
    batch: number,
  ) {
    this.units = unitsOf(part);
    this.step = this.units + (this.units % 2);
    this.stride = Math.ceil(part.size / HALF_STRIP) * HALF_STRIP;
    this.total = new Float64Array(this.stride);
    this.total.set(part.total);
    const rowSize = part.width || part.size;
    this.rows = new Float64Array(this.units * rowSize);
    part.write(this.rows, 0, rowSize);
    this.counts = new Uint8Array(batch * this.step);
    this.pairs = new Uint16Array(this.counts.buffer);
    this.sums = new Float64Array((batch + LANES) * this.stride);
    this.room = new Float64Array(2 * PAIRS * this.stride);
    this.table = new Float64Array(PAIRS * ENTRIES * this.stride);
    this.list = new Int32Array(2 * PAIRS * Math.ceil(255 / MOST_OF_ONE));
  }

  clear(resamples: number, begin: 0 | 1 = 0): void {
    this.counts.fill(begin, 0, resamples * this.step);
  }

  countsOf(resample: number): Uint8Array {
    return this.counts.subarray(resample * this.step, resample * this.step + this.units);
  }

  draw(state: Int32Array, resample: number): void {
    let from = resample * this.step;
    for (const units of this.part.strata) {
      drawCounts(this.counts.subarray(from, from + units), state);
      from += units;
    }
  }

  sum(count: number): void {
    const { stride, sums, table, list } = this;
    const all = this.step / 2;
    sums.fill(0, 0, count * stride);
    for (let from = 0; from < all; from += PAIRS) {
      const many = Math.min(PAIRS, all - from);
      this.fillTable(2 * from, many);
      for (let r = 0; r < count; r++) addEntries(sums, r * stride, stride, table, list, this.listEntries(r * all + from, many));
    }
  }

  /** Where the entries stand that a resample adds. A unit that is drawn more than three times takes further ones. */
  private listEntries(first: number, many: number): number {
    const { pairs, list, stride } = this;
    const pair = ENTRIES * stride;
    let end = 0;
    let at = 0;
    for (let p = 0; p < many; p++, at += pair) {
      const counts = pairs[first + p]!;
      if ((counts & MORE) === 0) {
        list[end] = (at + Math.imul((counts | (counts >> 6)) & 15, stride)) | 0;
        end = (end + ((-counts >>> 31) | 0)) | 0; // a pair that is not drawn is written over
        continue;
      }
      let i = counts & 255;
      let j = counts >> 8;
      while (i + j > 0) {
        const x = Math.min(i, MOST_OF_ONE);
        const y = Math.min(j, MOST_OF_ONE);
        list[end++] = at + (4 * y + x) * stride;
        i -= x;
        j -= y;
      }
    }
    return end;
  }

  private fillTable(from: number, many: number): void {
    const { stride, room, table } = this;
    for (let i = 0; i < 2 * many; i++) this.products(from + i, i * stride);
    for (let p = 0; p < many; p++) {
      for (let k = 0; k < stride; k++) {
        const [x, y] = [room[2 * p * stride + k]!, room[(2 * p + 1) * stride + k]!];
        let to = p * ENTRIES * stride + k;
        for (let j = 0, base = 0; j <= MOST_OF_ONE; j++, base += y, to += 4 * stride) {
          table[to] = base;
          table[to + stride] = base + x;
          table[to + 2 * stride] = base + x + x;
          table[to + 3 * stride] = base + x + x + x;
        }
      }
    }
  }

  leaveOut(first: number, count: number): void {
    const { stride, total, room } = this;
    for (let i = 0; i < count; i++) {
      this.products(first + i, 0);
      for (let k = 0; k < stride; k++) this.sums[i * stride + k] = total[k]! - room[k]!;
    }
  }

  takeAll(count: number): void {
    for (let i = 0; i < count; i++) this.sums.set(this.total, i * this.stride);
  }

  gather(from: number, inputs: Int32Array, firstInput: number, registers: Float64Array): void {
    for (let k = 0; k < this.part.size; k++) {
      const to = inputs[firstInput + k] ?? -1;
      if (to < 0) continue;
      for (let lane = 0; lane < LANES; lane++) registers[to * LANES + lane] = this.sums[(from + lane) * this.stride + k]!;
    }
  }

  /** The products of a unit's row, or its sums; zeros for the one beyond the last. */
  private products(unit: number, at: number): void {
    const { width, size } = this.part;
    const { rows } = this;
    if (unit >= this.units) this.room.fill(0, at, at + size);
    else if (width === 0) this.room.set(rows.subarray(unit * size, (unit + 1) * size), at);
    else {
      const row = unit * width;
      for (let a = 0; a < width; a++) {
        const one = rows[row + a]!;
        for (let b = 0; b <= a; b++, at++) this.room[at] = one * rows[row + b]!;
      }
    }
  }
}

/** Adds listed entries to sums, one after the other. `| 0` says that places are whole numbers: without it this takes half as long again (bench/README.md). */
function addEntries(sums: Float64Array, first: number, stride: number, table: Float64Array, list: Int32Array, end: number): void {
  let k = 0;
  for (; k + STRIP <= stride; k = (k + STRIP) | 0) {
    const at = (first + k) | 0;
    let s0 = sums[at]!,
      s1 = sums[(at + 1) | 0]!,
      s2 = sums[(at + 2) | 0]!,
      s3 = sums[(at + 3) | 0]!,
      s4 = sums[(at + 4) | 0]!,
      s5 = sums[(at + 5) | 0]!,
      s6 = sums[(at + 6) | 0]!,
      s7 = sums[(at + 7) | 0]!;
    for (let i = 0; i < end; i = (i + 1) | 0) {
      const row = (list[i]! + k) | 0;
      s0 += table[row]!;
      s1 += table[(row + 1) | 0]!;
      s2 += table[(row + 2) | 0]!;
      s3 += table[(row + 3) | 0]!;
      s4 += table[(row + 4) | 0]!;
      s5 += table[(row + 5) | 0]!;
      s6 += table[(row + 6) | 0]!;
      s7 += table[(row + 7) | 0]!;
    }
    sums[at] = s0;
    sums[(at + 1) | 0] = s1;
    sums[(at + 2) | 0] = s2;
    sums[(at + 3) | 0] = s3;
    sums[(at + 4) | 0] = s4;
    sums[(at + 5) | 0] = s5;
    sums[(at + 6) | 0] = s6;
    sums[(at + 7) | 0] = s7;
  }
  if (k < stride) {
    const at = (first + k) | 0;
    let s0 = sums[at]!,
      s1 = sums[(at + 1) | 0]!,
      s2 = sums[(at + 2) | 0]!,
      s3 = sums[(at + 3) | 0]!;
    for (let i = 0; i < end; i = (i + 1) | 0) {
      const row = (list[i]! + k) | 0;
      s0 += table[row]!;
      s1 += table[(row + 1) | 0]!;
      s2 += table[(row + 2) | 0]!;
      s3 += table[(row + 3) | 0]!;
    }
    sums[at] = s0;
    sums[(at + 1) | 0] = s1;
    sums[(at + 2) | 0] = s2;
    sums[(at + 3) | 0] = s3;
  }
}
