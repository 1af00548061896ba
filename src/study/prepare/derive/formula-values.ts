import { type Formula, FormulaFaultError, parseFormula } from "../../model/formula";
import { type CategoryColumn, levelMeant } from "../category-column";
import type { NumericColumn } from "../numeric-column";
import { type Derivation, numberDerivation } from "./derived-column";

/** What a formula can ask for. */
export interface FormulaInputs {
  rows: number;
  /** Null: nothing has this name. */
  numbers(name: string): NumericColumn | null;
  categories(name: string): CategoryColumn;
  /** Names of words rather than numbers: categories, dates, texts and respondent codes. */
  isWords(name: string): boolean;
}

/** One value for all, or one a respondent; NaN stands for none and is counted at the end. */
type Values = number | Float64Array;

/**
 * The numbers of a formula. A gap in any input gives none, but in mean, sum, min, max (which take what is there) and
 * answered (which counts it). A comparison is 1 or 0.
 * @throws FormulaFaultError with its place
 */
export function formulaValues(text: string, inputs: FormulaInputs): { values: Float64Array; missing: Uint8Array } {
  const missing = new Uint8Array(inputs.rows);
  const result = evaluate(parseFormula(text), { ...inputs, text, missing, read: new Map() });
  const values = typeof result === "number" ? new Float64Array(inputs.rows).fill(result) : result;
  return { values, missing: missing.map((m, row) => (m && Number.isNaN(values[row]!) ? 1 : 0)) };
}

/** @throws FormulaFaultError */
export function deriveByFormula(name: string, formula: string, inputs: FormulaInputs): Derivation {
  const { values, missing } = formulaValues(formula, inputs);
  return numberDerivation(name, values, missing);
}

interface Scope extends FormulaInputs {
  text: string;
  /** Rows where some input is missing. */
  missing: Uint8Array;
  /** Inputs already read, NaN where missing. */
  read: Map<string, Float64Array>;
}

function evaluate(formula: Formula, scope: Scope): Values {
  switch (formula.kind) {
    case "number":
      return formula.value;
    case "words":
      throw fault('Words can only be compared with a variable: format = "online".', formula.value, scope);
    case "name":
      return numbersOf(formula.name, scope);
    case "negative":
      return one(evaluate(formula.of, scope), (x) => -x);
    case "not":
      return one(evaluate(formula.of, scope), (x) => (Number.isNaN(x) ? NaN : truth(x === 0)));
    case "binary":
      return binary(formula, scope);
    case "call":
      return call(formula, scope);
  }
}

function numbersOf(name: string, scope: Scope): Float64Array {
  const known = scope.read.get(name);
  if (known) return known;
  if (scope.isWords(name)) throw fault(`"${name}" holds words: compare it with a value, as in ${name} = "…".`, name, scope);
  const column = scope.numbers(name);
  if (!column) throw fault(`There is no variable or scale "${name}".`, name, scope);
  const values = column.values.slice();
  for (let row = 0; row < values.length; row++) {
    if (!column.missing[row]) continue;
    scope.missing[row] = 1;
    values[row] = NaN;
  }
  scope.read.set(name, values);
  return values;
}

function binary(formula: Extract<Formula, { kind: "binary" }>, scope: Scope): Values {
  const { by } = formula;
  if (by === "=" || by === "!=") {
    const words = wordsComparison(formula, scope);
    if (words) return by === "=" ? words : one(words, (x) => 1 - x);
  }
  return two(evaluate(formula.left, scope), evaluate(formula.right, scope), OPERATIONS[by]);
}

const truth = (is: boolean) => (is ? 1 : 0);
const isTrue = (x: number) => !Number.isNaN(x) && x !== 0;
/** A comparison with a value that is not there is neither true nor false. */
const known = (a: number, b: number, is: boolean) => (Number.isNaN(a) || Number.isNaN(b) ? NaN : truth(is));

const OPERATIONS: Record<Extract<Formula, { kind: "binary" }>["by"], (a: number, b: number) => number> = {
  "+": (a, b) => a + b,
  "-": (a, b) => a - b,
  "*": (a, b) => a * b,
  "/": (a, b) => (b === 0 ? NaN : a / b),
  "^": (a, b) => (Number.isNaN(a) || Number.isNaN(b) ? NaN : a ** b),
  "=": (a, b) => known(a, b, a === b),
  "!=": (a, b) => known(a, b, a !== b),
  "<": (a, b) => known(a, b, a < b),
  "<=": (a, b) => known(a, b, a <= b),
  ">": (a, b) => known(a, b, a > b),
  ">=": (a, b) => known(a, b, a >= b),
  // what is known decides: false and unknown is false, true or unknown is true
  and: (a, b) => (a === 0 || b === 0 ? 0 : Number.isNaN(a + b) ? NaN : 1),
  or: (a, b) => (isTrue(a) || isTrue(b) ? 1 : Number.isNaN(a + b) ? NaN : 0),
};

/** `format = "online"`, either way round: 1, 0, or NaN where the answer is missing. Null: no words are compared. */
function wordsComparison({ left, right }: Extract<Formula, { kind: "binary" }>, scope: Scope): Float64Array | null {
  const [name, words] = left.kind === "name" ? [left, right] : [right, left];
  if (words.kind !== "words") return null;
  if (name.kind !== "name") throw fault("Words can only be compared with a variable.", words.value, scope);
  if (!scope.numbers(name.name)) throw fault(`There is no variable "${name.name}".`, name.name, scope);
  const column = scope.categories(name.name);
  const wanted = levelMeant(column, words.value);
  const values = new Float64Array(scope.rows);
  for (let row = 0; row < values.length; row++) {
    if (column.missing[row]) scope.missing[row] = 1;
    values[row] = column.missing[row] ? NaN : truth(column.codes[row] === wanted);
  }
  return values;
}

/** What a function makes of the values of one respondent; those that are missing are NaN. */
type RowFunction = (x: Float64Array) => number;

// plain loops: these run once a respondent, and a closure a value made the mean of six items three times slower
function there(x: Float64Array): number {
  let count = 0;
  for (let k = 0; k < x.length; k++) if (!Number.isNaN(x[k]!)) count++;
  return count;
}

/** NaN when nothing is there. */
function total(x: Float64Array): number {
  let sum = 0;
  let some = false;
  for (let k = 0; k < x.length; k++) {
    if (Number.isNaN(x[k]!)) continue;
    sum += x[k]!;
    some = true;
  }
  return some ? sum : NaN;
}

const best = (x: Float64Array, better: (a: number, b: number) => number) =>
  x.reduce((found, v) => (Number.isNaN(v) ? found : Number.isNaN(found) ? v : better(found, v)), NaN);

const FUNCTIONS: Record<Extract<Formula, { kind: "call" }>["by"], RowFunction> = {
  ln: (x) => (x[0]! > 0 ? Math.log(x[0]!) : NaN),
  log10: (x) => (x[0]! > 0 ? Math.log10(x[0]!) : NaN),
  exp: (x) => Math.exp(x[0]!),
  sqrt: (x) => (x[0]! >= 0 ? Math.sqrt(x[0]!) : NaN),
  abs: (x) => Math.abs(x[0]!),
  round: (x) => rounded(x[0]!, x.length > 1 ? x[1]! : 0),
  min: (x) => best(x, Math.min),
  max: (x) => best(x, Math.max),
  mean: (x) => total(x) / there(x),
  sum: total,
  answered: there,
  if: (x) => (Number.isNaN(x[0]!) ? NaN : x[0] !== 0 ? x[1]! : x[2]!),
};

/** Half away from zero, as people round. */
function rounded(value: number, digits: number): number {
  const unit = 10 ** digits;
  return (Math.sign(value) * Math.round(Math.abs(value) * unit)) / unit;
}

/** Applies a function row by row; of constants alone, once. */
function call(formula: Extract<Formula, { kind: "call" }>, scope: Scope): Values {
  const of = FUNCTIONS[formula.by];
  const parts = formula.of.map((part) => evaluate(part, scope));
  const x = Float64Array.from(parts, (part) => (typeof part === "number" ? part : 0));
  const columns = parts.flatMap((part, k) => (typeof part === "number" ? [] : [{ part, k }]));
  if (columns.length === 0) return of(x);
  const values = new Float64Array(scope.rows);
  for (let row = 0; row < scope.rows; row++) {
    for (const { part, k } of columns) x[k] = part[row]!;
    values[row] = of(x);
  }
  return values;
}

function one(a: Values, of: (a: number) => number): Values {
  return typeof a === "number" ? of(a) : a.map(of);
}

function two(a: Values, b: Values, of: (a: number, b: number) => number): Values {
  if (typeof a === "number") return typeof b === "number" ? of(a, b) : b.map((y) => of(a, y));
  if (typeof b === "number") return a.map((x) => of(x, b));
  const values = new Float64Array(a.length);
  for (let row = 0; row < values.length; row++) values[row] = of(a[row]!, b[row]!);
  return values;
}

function fault(message: string, word: string, scope: Scope): FormulaFaultError {
  return new FormulaFaultError(message, Math.max(0, scope.text.indexOf(word)));
}
