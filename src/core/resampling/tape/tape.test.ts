import fc from "fast-check";
import { Matrix as LibraryMatrix, inverse } from "ml-matrix";
import { randomStream } from "../../random/random-stream";
import { engineFor, type EngineKind } from "../engine/choose-engine";
import { cholesky, dot, upperInverse } from "./linear-algebra";
import { runTape, tapeRegisters } from "./run-tape";
import { LANES, Op, type Tape, TapeWriter, type Value } from "./tape";

const KINDS: EngineKind[] = ["kernel", "plain"];

/** Outputs of a tape for one list of inputs, run as a resample's figures are: lane 3 of sixteen. */
function outputsOf(tape: Tape, inputs: readonly number[]): number[] {
  const registers = tapeRegisters(tape);
  tape.inputs.forEach((register, at) => {
    if (register >= 0) registers.fill(NaN, register * LANES, (register + 1) * LANES);
    if (register >= 0) registers[register * LANES + 3] = inputs[at]!;
  });
  const out = new Float64Array(tape.outputs * LANES);
  runTape(tape, registers, out, LANES, 0);
  return Array.from({ length: tape.outputs }, (_, k) => out[k * LANES + 3]!);
}

/** The same tape by an engine: the sums of one unit whose products are the inputs, taken once. */
function byEngine(kind: EngineKind, tape: Tape, inputs: readonly number[]): number[] {
  const whole = Float64Array.from(inputs);
  const part = { strata: [1], width: 0, size: inputs.length, total: whole, write: (to: Float64Array, at: number) => to.set(whole, at) };
  const out = new Float64Array(tape.outputs);
  engineFor({ parts: [part], tape }, kind).counted(1, 1, () => undefined, out, 1, 0);
  return Array.from(out);
}

/** A formula as a tree: a leaf is an input or a constant, a branch one of the tape's operations. */
type Tree = { leaf: number } | { constant: number } | { op: "add" | "subtract" | "multiply" | "divide"; a: Tree; b: Tree } | { op: "accumulate" | "reduce"; a: Tree; b: Tree; c: Tree } | { op: "root"; a: Tree }; // prettier-ignore
const INPUTS = 4;
const trees = fc.letrec<{ tree: Tree }>((tie) => ({
  tree: fc.oneof(
    { maxDepth: 6 },
    fc.record({ leaf: fc.integer({ min: 0, max: INPUTS - 1 }) }),
    fc.record({ constant: fc.constantFrom(0, 1, -1, 2, 0.1) }),
    fc.record({ op: fc.constantFrom("add" as const, "subtract" as const, "multiply" as const, "divide" as const), a: tie("tree"), b: tie("tree") }),
    fc.record({ op: fc.constantFrom("accumulate" as const, "reduce" as const), a: tie("tree"), b: tie("tree"), c: tie("tree") }),
    fc.record({ op: fc.constant("root" as const), a: tie("tree") }),
  ),
})).tree; // prettier-ignore

function written(t: TapeWriter, tree: Tree): Value {
  if ("leaf" in tree) return t.input(tree.leaf);
  if ("constant" in tree) return t.constant(tree.constant);
  if (tree.op === "root") return t.root(written(t, tree.a));
  if (tree.op === "accumulate" || tree.op === "reduce") return t[tree.op](written(t, tree.c), written(t, tree.a), written(t, tree.b));
  return t[tree.op](written(t, tree.a), written(t, tree.b));
}

/** What the formula is, without a tape. Whatever times a constant 0 is 0 there, also where it is not finite. */
function valueOf(tree: Tree, inputs: readonly number[]): number {
  if ("leaf" in tree) return inputs[tree.leaf]!;
  if ("constant" in tree) return tree.constant;
  const a = valueOf(tree.a, inputs);
  if (tree.op === "root") return Math.sqrt(a);
  const b = valueOf(tree.b, inputs);
  switch (tree.op) {
    case "add":
      return a + b;
    case "subtract":
      return a - b;
    case "multiply":
      return a * b;
    case "divide":
      return a / b;
    case "accumulate":
      return valueOf(tree.c, inputs) + a * b;
    case "reduce":
      return valueOf(tree.c, inputs) - a * b;
  }
}

test("law: a tape gives what its formula gives, digit for digit, in the kernel as well as in the plain path", () => {
  fc.assert(
    fc.property(fc.array(trees, { minLength: 1, maxLength: 5 }), fc.array(fc.double({ min: 0.1, max: 9, noNaN: true }), { minLength: INPUTS, maxLength: INPUTS }), (formulas, inputs) => {
      const writer = new TapeWriter();
      for (const formula of formulas) writer.output(written(writer, formula));
      const tape = writer.tape();
      const ours = outputsOf(tape, inputs);
      formulas.forEach((formula, k) => {
        const value = valueOf(formula, inputs);
        if (Number.isFinite(value)) expect(ours[k]! === value || Math.abs(ours[k]! - value) <= 1e-12 * Math.abs(value)).toBe(true);
      });
      for (const kind of KINDS) expect(byEngine(kind, tape, inputs)).toEqual(ours);
    }),
    { numRuns: 300 },
  ); // prettier-ignore
});

test("what is written twice is worked out once, and what no output needs not at all", () => {
  const t = new TapeWriter();
  const product = () => t.multiply(t.add(t.input(0), t.input(1)), t.constant(3));
  t.divide(t.input(0), t.input(2)); // never read
  t.output(product());
  t.output(product());
  const { code, inputs, registers } = t.tape();
  const operations = Array.from({ length: code.length / 5 }, (_, i) => code[5 * i]!);
  expect(operations).toEqual([Op.add, Op.multiply, Op.output, Op.output]);
  expect(Array.from(inputs)).toEqual([expect.any(Number), expect.any(Number), -1]);
  expect(registers).toBe(3); // two inputs and the constant: results take the place of what is read for the last time
});

test("registers of constants and of what is read later are never written over", () => {
  const t = new TapeWriter();
  const two = t.constant(2);
  const sums = [0, 1, 2].map((i) => t.multiply(t.input(i), two));
  const all = sums.reduce((sum, v) => t.add(sum, v), t.constant(0));
  for (const one of sums) t.output(t.divide(one, all));
  t.output(t.multiply(all, two));
  expect(outputsOf(t.tape(), [1, 2, 5])).toEqual([2 / 16, 4 / 16, 10 / 16, 32]);
});

test("a pivot that vanishes beside its diagonal makes all that depends on it not a number, and nothing else", () => {
  const t = new TapeWriter();
  const g = (i: number, j: number) => t.input((i * (i + 1)) / 2 + j);
  const l = cholesky(t, g, 3);
  for (const [i, j] of [[0, 0], [1, 0], [1, 1], [2, 1], [2, 2]] as const) t.output(l(i, j)); // prettier-ignore
  const tape = t.tape();
  const sound = [4, 2, 5, 2, 3, 9];
  expect(outputsOf(tape, sound).every(Number.isFinite)).toBe(true);
  // the second row is the first times a half, but for less than the eleventh digit
  for (const inputs of [[4, 2, 1, 2, 3, 9], [4, 2, 1 + 5e-11, 2, 3, 9]]) {
    for (const found of [outputsOf(tape, inputs), ...KINDS.map((kind) => byEngine(kind, tape, inputs))]) {
      expect(found.slice(0, 2)).toEqual([2, 1]);
      expect(found.slice(2).every(Number.isNaN)).toBe(true);
    }
  } // prettier-ignore
  expect(outputsOf(tape, [4, 2, 1 + 1e-9, 2, 3, 9])[2]).toBeGreaterThan(0);
});

test.each([2, 5, 9])(
  "law: the factor of a matrix times itself is the matrix, and the inverse of its triangle that of a library (%d columns)",
  (width) => {
    const random = randomStream(width);
    const rows = Array.from({ length: 3 * width }, () => Array.from({ length: width }, () => random.normal()));
    const a = new LibraryMatrix(rows).transpose().mmul(new LibraryMatrix(rows));
    const t = new TapeWriter();
    const l = cholesky(t, (i, j) => t.input((i * (i + 1)) / 2 + j), width);
    const u = (i: number, j: number) => l(j, i);
    const v = upperInverse(t, u, width);
    for (let i = 0; i < width; i++) for (let j = 0; j <= i; j++) t.output(dot(t, 0, j + 1, (k) => l(i, k), (k) => l(j, k))); // prettier-ignore
    for (let i = 0; i < width; i++) for (let j = i; j < width; j++) t.output(v(i, j));
    const packed = Array.from({ length: width }, (_, i) => Array.from({ length: i + 1 }, (__, j) => a.get(i, j))).flat();
    const found = outputsOf(t.tape(), packed);
    packed.forEach((value, k) => expect(found[k]).toBeCloseTo(value, 10));
    const upper = LibraryMatrix.zeros(width, width);
    const factor = new TapeWriter();
    const again = cholesky(factor, (i, j) => factor.input((i * (i + 1)) / 2 + j), width);
    for (let i = 0; i < width; i++) for (let j = 0; j <= i; j++) factor.output(again(i, j));
    outputsOf(factor.tape(), packed).forEach((value, k) => {
      const i = Math.floor((Math.sqrt(8 * k + 1) - 1) / 2);
      upper.set(k - (i * (i + 1)) / 2, i, value);
    });
    const expected = inverse(upper);
    let at = packed.length;
    for (let i = 0; i < width; i++) for (let j = i; j < width; j++) expect(found[at++]).toBeCloseTo(expected.get(i, j), 9);
  },
);
