import { LANES, Op, SINGULAR, type Tape } from "./tape";

/** Room for one run of a tape: its registers, LANES numbers each, the constants in place. */
export function tapeRegisters(tape: Tape): Float64Array {
  const registers = new Float64Array(tape.registers * LANES);
  tape.constants.registers.forEach((register, i) => registers.fill(tape.constants.values[i]!, register * LANES, (register + 1) * LANES));
  return registers;
}

/**
 * Runs a tape for LANES resamples side by side, in plain TypeScript; the kernel does the same, digit for digit (engine/assembly/kernel.ts).
 * @param registers from tapeRegisters, the inputs filled in
 * @param out output k of lane i goes to out[k · stride + from + i]
 */
export function runTape(tape: Tape, registers: Float64Array, out: Float64Array, stride: number, from: number): void {
  const { code } = tape;
  const r = registers;
  for (let at = 0; at < code.length; at += 5) {
    const op = code[at]!;
    let a = code[at + 2]! * LANES;
    if (op === Op.output) {
      const to = code[at + 1]! * stride + from;
      for (let i = 0; i < LANES; i++) out[to + i] = r[a + i]!;
      continue;
    }
    let d = code[at + 1]! * LANES;
    let b = code[at + 3]! * LANES;
    let c = code[at + 4]! * LANES;
    const end = d + LANES;
    if (op === Op.accumulate) for (; d < end; d++, a++, b++, c++) r[d] = r[c]! + r[a]! * r[b]!;
    else if (op === Op.reduce) for (; d < end; d++, a++, b++, c++) r[d] = r[c]! - r[a]! * r[b]!;
    else if (op === Op.multiply) for (; d < end; d++, a++, b++) r[d] = r[a]! * r[b]!;
    else if (op === Op.add) for (; d < end; d++, a++, b++) r[d] = r[a]! + r[b]!;
    else if (op === Op.subtract) for (; d < end; d++, a++, b++) r[d] = r[a]! - r[b]!;
    else if (op === Op.divide) for (; d < end; d++, a++, b++) r[d] = r[a]! / r[b]!;
    else if (op === Op.root) for (; d < end; d++, a++) r[d] = Math.sqrt(r[a]!);
    else for (; d < end; d++, a++, b++) r[d] = r[a]! > SINGULAR * r[b]! ? Math.sqrt(r[a]!) : NaN;
  }
}
