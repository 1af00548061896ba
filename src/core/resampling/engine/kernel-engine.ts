import { seededState } from "../draw";
import { LANES, Op } from "../tape/tape";
import { batchSize, blockRows, type Engine, type FillCounts, firstInput, type Part, type Problem, unitsOf } from "./problem";

/** What assembly/kernel.ts gives away. Addresses are bytes. */
interface Kernel {
  readonly memory: WebAssembly.Memory;
  draw(states: number, counts: number, stride: number, units: number, room: number): void;
  sum(...args: number[]): void;
  leaveOut(...args: number[]): void;
  gather(sums: number, strip: number, stripSums: number, inputs: number, count: number, registers: number): void;
  run(code: number, end: number, registers: number, out: number, stride: number): void;
}

/** Streams that are drawn from side by side. */
const SIDE_BY_SIDE = 4;
const LANE_BYTES = LANES * 8;
const PAGE = 65536;
/** The module keeps its own data below: from 1024 on, a few dozen bytes. */
const OWN_DATA = 4096;
/** Room for draws that are not counted yet. */
const DRAWN = 1024;
/** Masks of eight rows. */
const MASKS = 256;
/** A strip of sums that stays in the processor's registers: 16-byte words, an even number. */
const [LEAST_STRIP, MOST_STRIP] = [4, 14];

interface PartPlace {
  strata: readonly number[];
  width: number;
  size: number;
  units: number;
  /** Bytes from one resample's counts to the next one's. */
  stride: number;
  strips: number;
  strip: number;
  /** Bytes of the sums of a resample. */
  bytes: number;
  rowBytes: number;
  blockRows: number;
  rows: number;
  total: number;
  counts: number;
  sums: number;
  room: number;
  table: number;
  list: number;
  lengths: number;
  inputs: number;
}

/** Lays out memory: places one after the other, each at a multiple of 64. */
class Layout {
  end: number;
  constructor(from: number) {
    this.end = from;
  }
  place(bytes: number): number {
    const at = Math.ceil(this.end / 64) * 64;
    this.end = at + bytes;
    return at;
  }
}

/** Figures of resamples in WebAssembly with SIMD: what plain-engine.ts does, two numbers at a time, the same digits. */
export class KernelEngine implements Engine {
  readonly kind = "kernel";
  readonly batch: number;
  private readonly kernel: Kernel;
  /** Of the problem no more is kept: its rows stand in the module's memory. */
  private readonly outputs: number;
  private readonly parts: PartPlace[];
  private readonly states: number;
  private readonly drawn: number;
  private readonly patterns: number;
  private readonly registers: number;
  private readonly code: number;
  private readonly codeEnd: number;
  private readonly values: number;
  private readonly bytes: Uint8Array;
  private readonly words: Int32Array;
  private readonly numbers: Float64Array;
  private readonly state = new Int32Array(4);

  constructor(module: WebAssembly.Module, problem: Problem) {
    const { tape } = problem;
    this.outputs = tape.outputs;
    this.kernel = new WebAssembly.Instance(module).exports as unknown as Kernel;
    this.batch = batchSize(problem.parts.reduce((sum, part) => sum + unitsOf(part), 0));
    const layout = new Layout(OWN_DATA);
    this.states = layout.place(64);
    this.drawn = layout.place(DRAWN);
    this.patterns = layout.place(MASKS * 8);
    this.registers = layout.place(tape.registers * LANE_BYTES);
    this.code = layout.place(tape.code.length * 4);
    this.codeEnd = this.code + tape.code.length * 4;
    this.values = layout.place(tape.outputs * this.batch * 8);
    this.parts = problem.parts.map((part) => this.partPlace(part, layout));
    this.kernel.memory.grow(Math.max(0, Math.ceil(layout.end / PAGE) + 1 - this.kernel.memory.buffer.byteLength / PAGE));
    const { buffer } = this.kernel.memory;
    this.bytes = new Uint8Array(buffer);
    this.words = new Int32Array(buffer);
    this.numbers = new Float64Array(buffer);
    this.fill(problem);
  }

  draw(seed: number, first: number, count: number, attempt: number, out: Float64Array, stride: number, at: number): void {
    this.clearCounts(count);
    for (let r = 0; r < count; r += SIDE_BY_SIDE) {
      for (let s = 0; s < SIDE_BY_SIDE; s++) {
        seededState(seed, first + r + s, attempt, this.state);
        for (let word = 0; word < 4; word++) this.words[this.states / 4 + word * SIDE_BY_SIDE + s] = this.state[word]!;
      }
      for (const { strata, counts, stride: step } of this.parts) {
        let from = counts + r * step;
        for (const units of strata) {
          this.kernel.draw(this.states, from, step, units, this.drawn);
          from += units;
        }
      }
    }
    this.sum(count);
    this.run(count, out, stride, at);
  }

  counted(count: number, begin: 0 | 1, fill: FillCounts, out: Float64Array, stride: number, at: number): void {
    this.clearCounts(count, begin);
    this.parts.forEach(({ counts, stride: step, units }, part) => {
      fill(part, (r) => this.bytes.subarray(counts + r * step, counts + r * step + units));
    });
    this.sum(count);
    this.run(count, out, stride, at);
  }

  leaveOut(part: number, first: number, count: number, out: Float64Array, stride: number, at: number): void {
    this.parts.forEach((p, i) => {
      const entry = p.strip * 16;
      if (i === part) {
        this.kernel.leaveOut(p.rows + first * p.rowBytes, p.width, count, p.total, p.sums, p.strips, p.strip, count * entry, p.room);
        return;
      }
      for (let s = 0; s < p.strips; s++) {
        const from = p.total + s * entry;
        for (let r = 0; r < count; r++) this.bytes.copyWithin(p.sums + (s * count + r) * entry, from, from + entry);
      }
    });
    this.run(count, out, stride, at);
  }

  /** Streams are drawn from a few at a time, so a few resamples beyond the last are counted too. */
  private clearCounts(count: number, begin: 0 | 1 = 0): void {
    const resamples = Math.ceil(count / SIDE_BY_SIDE) * SIDE_BY_SIDE;
    for (const { counts, stride: step, units } of this.parts) {
      this.bytes.fill(begin, counts, counts + resamples * step);
      // rows beyond the last are held once: neither missing nor repeated
      if (step > units) for (let r = 0; r < resamples; r++) this.bytes.fill(1, counts + r * step + units, counts + (r + 1) * step);
    }
  }

  private sum(count: number): void {
    for (const p of this.parts) {
      this.kernel.sum(p.rows, p.width, p.units, p.counts, p.stride, count, p.total, p.sums, p.strips, p.strip, p.blockRows, p.room, p.table, p.list, p.lengths, this.patterns); // prettier-ignore
    }
  }

  private run(count: number, out: Float64Array, stride: number, at: number): void {
    for (let from = 0; from < count; from += LANES) {
      for (const p of this.parts) {
        const entry = p.strip * 16;
        this.kernel.gather(p.sums + from * entry, p.strip, count * entry, p.inputs, p.size, this.registers);
      }
      this.kernel.run(this.code, this.codeEnd, this.registers, this.values + from * 8, this.batch * 8);
    }
    for (let k = 0; k < this.outputs; k++) {
      const start = this.values / 8 + k * this.batch;
      out.set(this.numbers.subarray(start, start + count), k * stride + at);
    }
  }

  private partPlace(part: Part, layout: Layout): PartPlace {
    const units = unitsOf(part);
    const stride = Math.ceil(units / 8) * 8;
    const words = Math.ceil(part.size / 2);
    const strips = Math.ceil(words / MOST_STRIP);
    const strip = Math.max(LEAST_STRIP, Math.ceil(words / strips / 2) * 2);
    const bytes = strips * strip * 16;
    const rowBytes = part.width === 0 ? bytes : part.width * 8 + 8;
    const many = blockRows(strip * 16);
    return {
      strata: part.strata, width: part.width, size: part.size, units, stride, strips, strip, bytes, rowBytes,
      blockRows: many,
      rows: layout.place(units * rowBytes),
      total: layout.place(bytes),
      counts: layout.place(this.batch * stride),
      sums: layout.place((this.batch + LANES) * bytes),
      room: layout.place(many * bytes + 16),
      table: layout.place(many * bytes),
      // a resample holds as many rows as there are: at most all of one block are listed as missing and as many as all of it as repeated
      list: layout.place(this.batch * (many + Math.min(units, 255 * many)) + 8),
      lengths: layout.place(this.batch * 8),
      inputs: layout.place(part.size * 4),
    }; // prettier-ignore
  }

  private fill(problem: Problem): void {
    const { tape } = problem;
    const { code } = tape;
    const to = this.code / 4;
    for (let at = 0; at < code.length; at += 5) {
      this.words[to + at] = code[at]!;
      const registersFrom = code[at] === Op.output ? 2 : 1;
      for (let k = 1; k < 5; k++) this.words[to + at + k] = code[at + k]! * (k < registersFrom ? 1 : LANE_BYTES);
    }
    tape.constants.registers.forEach((register, i) => {
      const start = (this.registers + register * LANE_BYTES) / 8;
      this.numbers.fill(tape.constants.values[i]!, start, start + LANES);
    });
    for (let mask = 0; mask < MASKS; mask++) {
      let next = this.patterns + mask * 8;
      for (let bit = 0; bit < 8; bit++) if ((mask >> bit) & 1) this.bytes[next++] = bit;
    }
    problem.parts.forEach((part, i) => {
      const p = this.parts[i]!;
      const from = firstInput(problem, i);
      for (let k = 0; k < part.size; k++) {
        const register = tape.inputs[from + k] ?? -1;
        this.words[p.inputs / 4 + k] = register < 0 ? -1 : register * LANE_BYTES;
      }
      part.write(this.numbers, p.rows / 8, p.rowBytes / 8);
      this.numbers.set(part.total, p.total / 8);
    });
  }
}
