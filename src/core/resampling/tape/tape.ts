/** A number on the tape: its place in the order of the operations. */
export type Value = number;

/** What the tape's machine can do. Each is one correctly rounded operation, or two in the order written, so that every machine gives the same digits. */
export const Op = {
  /** a + b */
  add: 0,
  /** a − b */
  subtract: 1,
  /** a · b */
  multiply: 2,
  /** a / b */
  divide: 3,
  /** √a */
  root: 4,
  /** c + a · b */
  accumulate: 5,
  /** c − a · b */
  reduce: 6,
  /** √a when a is more than a share of b, not a number otherwise */
  pivot: 7,
  /** Writes a to the output dst. */
  output: 8,
} as const;

/** A pivot that falls below this share of its diagonal makes a resample singular (docs/methods.md, “Bootstrap intervals”). */
export const SINGULAR = 1e-10;

/** So many resamples run on the tape side by side. */
export const LANES = 16;

/** A formula as a list of operations on numbered registers: the same list runs in the kernel and in the plain path. */
export interface Tape {
  /** [op, dst, a, b, c] one after the other; dst, a, b and c are registers. */
  readonly code: Int32Array;
  readonly registers: number;
  /** Register of each input. */
  readonly inputs: Int32Array;
  /** Registers that hold a constant throughout, and the constants. */
  readonly constants: { readonly registers: Int32Array; readonly values: Float64Array };
  readonly outputs: number;
}

interface Operation {
  op: number;
  a: Value;
  b: Value;
  c: Value;
}

const NOTHING = -1;
const [INPUT, CONSTANT] = [-1, -2];

/**
 * Writes a formula down once, to be run for many resamples. What is written twice is worked out once; what no output needs is left out.
 * Sources: value numbering and registers by last use, as in Aho, Lam, Sethi & Ullman (2007), Compilers, 8.5 and 8.8.
 */
export class TapeWriter {
  private readonly operations: Operation[] = [];
  /** Operations by their latest source. */
  private readonly known: Value[][] = [];
  private readonly constants: number[] = [];
  private readonly outs: Value[] = [];

  /** The `at`-th number a resample is given. */
  input(at: number): Value {
    return this.put(INPUT, at);
  }

  constant(value: number): Value {
    const at = this.constants.findIndex((known) => Object.is(known, value));
    return this.put(CONSTANT, at >= 0 ? at : this.constants.push(value) - 1);
  }

  add(a: Value, b: Value): Value {
    if (this.is(a, 0)) return b;
    if (this.is(b, 0)) return a;
    return this.put(Op.add, a, b);
  }

  subtract(a: Value, b: Value): Value {
    return this.is(b, 0) ? a : this.put(Op.subtract, a, b);
  }

  multiply(a: Value, b: Value): Value {
    if (this.is(a, 1)) return b;
    if (this.is(b, 1)) return a;
    if (this.is(a, 0) || this.is(b, 0)) return this.constant(0);
    return this.put(Op.multiply, a, b);
  }

  divide(a: Value, b: Value): Value {
    return this.is(b, 1) ? a : this.put(Op.divide, a, b);
  }

  root(a: Value): Value {
    return this.put(Op.root, a);
  }

  /** sum + a·b */
  accumulate(sum: Value, a: Value, b: Value): Value {
    if (this.is(a, 0) || this.is(b, 0)) return sum;
    if (this.is(a, 1) || this.is(b, 1) || this.is(sum, 0)) return this.add(sum, this.multiply(a, b));
    return this.put(Op.accumulate, a, b, sum);
  }

  /** sum − a·b */
  reduce(sum: Value, a: Value, b: Value): Value {
    if (this.is(a, 0) || this.is(b, 0)) return sum;
    return this.put(Op.reduce, a, b, sum);
  }

  /** The root of a pivot, beside its diagonal: not a number where the pivot vanishes, and so is all that depends on it. */
  pivot(value: Value, diagonal: Value): Value {
    return this.put(Op.pivot, value, diagonal);
  }

  /** One more number the tape gives, in this order. */
  output(value: Value): void {
    this.outs.push(value);
  }

  tape(): Tape {
    const needed = new Uint8Array(this.operations.length);
    for (const out of this.outs) needed[out] = 1;
    for (let v = this.operations.length - 1; v >= 0; v--) {
      if (needed[v]) for (const from of this.sources(v)) needed[from] = 1;
    }
    return new Registers(this.operations, needed, this.outs, this.constants, (v) => this.sources(v)).tape();
  }

  private sources(value: Value): Value[] {
    const { op, a, b, c } = this.operations[value]!;
    return op < 0 ? [] : [a, b, c].filter((v) => v !== NOTHING);
  }

  private is(value: Value, constant: number): boolean {
    const { op, a } = this.operations[value]!;
    return op === CONSTANT && this.constants[a] === constant;
  }

  private put(op: number, a: Value, b = NOTHING, c = NOTHING): Value {
    // what was written before is found by its sources: few operations share one
    const near = this.known[Math.max(a, b, c)] ?? (this.known[Math.max(a, b, c)] = []);
    for (const value of near) {
      const known = this.operations[value]!;
      if (known.op === op && known.a === a && known.b === b && known.c === c) return value;
    }
    near.push(this.operations.push({ op, a, b, c }) - 1);
    return this.operations.length - 1;
  }
}

/** Gives each value a register until its last use; the fewer there are, the nearer they stay to the processor. */
class Registers {
  private readonly free: number[] = [];
  private count = 0;
  private readonly of = new Map<Value, number>();

  constructor(
    private readonly operations: readonly Operation[],
    private readonly needed: Uint8Array,
    private readonly outs: readonly Value[],
    private readonly constants: readonly number[],
    private readonly sources: (value: Value) => Value[],
  ) {}

  tape(): Tape {
    const { operations, needed, outs } = this;
    const last = new Int32Array(operations.length).fill(-1);
    for (let v = 0; v < operations.length; v++) if (needed[v]) for (const from of this.sources(v)) last[from] = v;
    const places = new Map<Value, number[]>();
    outs.forEach((value, at) => places.set(value, [...(places.get(value) ?? []), at]));
    const constants: [number, number][] = [];
    const inputs: number[] = [];
    for (let v = 0; v < operations.length; v++) {
      const { op, a } = operations[v]!;
      if (op === INPUT) inputs[a] = needed[v] ? this.take(v) : NOTHING;
      if (op === CONSTANT && needed[v]) constants.push([this.take(v), this.constants[a]!]);
    }
    const code: number[] = [];
    const write = (value: Value) => {
      for (const at of places.get(value) ?? []) code.push(Op.output, at, this.of.get(value)!, 0, 0);
    };
    for (let v = 0; v < operations.length; v++) {
      if (!needed[v]) continue;
      const { op, a, b, c } = operations[v]!;
      if (op < 0) {
        write(v);
        continue;
      }
      const from = [a, b, c].map((value) => (value === NOTHING ? 0 : this.of.get(value)!));
      // an operation may write where it reads: it does so lane by lane
      for (const source of new Set(this.sources(v))) if (last[source] === v && operations[source]!.op !== CONSTANT) this.give(source);
      code.push(op, this.take(v), ...from);
      write(v);
      if (last[v] === -1) this.give(v);
    }
    return {
      code: Int32Array.from(code),
      registers: this.count,
      inputs: Int32Array.from(inputs, (register) => register ?? NOTHING),
      constants: { registers: Int32Array.from(constants, ([r]) => r), values: Float64Array.from(constants, ([, value]) => value) },
      outputs: outs.length,
    };
  }

  private take(value: Value): number {
    const register = this.free.pop() ?? this.count++;
    this.of.set(value, register);
    return register;
  }

  private give(value: Value): void {
    this.free.push(this.of.get(value)!);
  }
}
