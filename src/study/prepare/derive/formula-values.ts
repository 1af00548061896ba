import { type Formula, FormulaFaultError, parseFormula } from "../../model/formula";
import type { CategoryColumn } from "../category-column";
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
  const result = evaluate(parseFormula(text), { ...inputs, text, missing });
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
}

function evaluate(formula: Formula, scope: Scope): Values {
  switch (formula.kind) {
    case "number":
      return formula.value;
    case "words":
      throw fault("Words can only be compared with a variable: format = \"online\".", formula.value, scope);
    case "name":
      return numbersOf(formula.name, scope);
    case "negative":
      return map([evaluate(formula.of, scope)], scope, ([x]) => -x!);
    case "not":
      return map([evaluate(formula.of, scope)], scope, ([x]) => (Number.isNaN(x!) ? NaN : x === 0 ? 1 : 0));
    case "binary":
      return binary(formula, scope);
    case "call":
      return call(formula, scope);
  }
}

function numbersOf(name: string, scope: Scope): Float64Array {
  if (scope.isWords(name)) throw fault(`"${name}" holds words: compare it with a value, as in ${name} = "…".`, name, scope);
  const column = scope.numbers(name);
  if (!column) throw fault(`There is no variable or scale "${name}".`, name, scope);
  return column.values.map((value, row) => {
    if (!column.missing[row]) return value;
    scope.missing[row] = 1;
    return NaN;
  });
}

function binary(formula: Extract<Formula, { kind: "binary" }>, scope: Scope): Values {
  const { by } = formula;
  if (by === "=" || by === "!=") {
    const words = wordsComparison(formula, scope);
    if (words) return by === "=" ? words : words.map((x) => 1 - x);
  }
  return map([evaluate(formula.left, scope), evaluate(formula.right, scope)], scope, OPERATIONS[by]);
}

const truth = (is: boolean) => (is ? 1 : 0);
const compare =
  (is: (a: number, b: number) => boolean) =>
  ([a, b]: readonly number[]) =>
    Number.isNaN(a!) || Number.isNaN(b!) ? NaN : truth(is(a!, b!));

const OPERATIONS: Record<Extract<Formula, { kind: "binary" }>["by"], (x: readonly number[]) => number> = {
  "+": ([a, b]) => a! + b!,
  "-": ([a, b]) => a! - b!,
  "*": ([a, b]) => a! * b!,
  "/": ([a, b]) => (b === 0 ? NaN : a! / b!),
  "^": ([a, b]) => (Number.isNaN(a!) || Number.isNaN(b!) ? NaN : a! ** b!),
  "=": compare((a, b) => a === b),
  "!=": compare((a, b) => a !== b),
  "<": compare((a, b) => a < b),
  "<=": compare((a, b) => a <= b),
  ">": compare((a, b) => a > b),
  ">=": compare((a, b) => a >= b),
  // what is known decides: false and unknown is false, true or unknown is true
  and: ([a, b]) => (a === 0 || b === 0 ? 0 : Number.isNaN(a! + b!) ? NaN : 1),
  or: ([a, b]) => (isTrue(a!) || isTrue(b!) ? 1 : Number.isNaN(a! + b!) ? NaN : 0),
};

const isTrue = (x: number) => !Number.isNaN(x) && x !== 0;

/** `format = "online"`, either way round: 1, 0, or NaN where the answer is missing. Null: no words are compared. */
function wordsComparison({ left, right }: Extract<Formula, { kind: "binary" }>, scope: Scope): Float64Array | null {
  const [name, words] = left.kind === "name" ? [left, right] : [right, left];
  if (words.kind !== "words") return null;
  if (name.kind !== "name") throw fault("Words can only be compared with a variable.", words.value, scope);
  if (!scope.numbers(name.name)) throw fault(`There is no variable "${name.name}".`, name.name, scope);
  const column = scope.categories(name.name);
  const wanted = column.levels.indexOf(words.value);
  return Float64Array.from(column.codes, (code, row) => {
    if (!column.missing[row]) return truth(code === wanted);
    scope.missing[row] = 1;
    return NaN;
  });
}

const some = (x: readonly number[]) => x.filter((v) => !Number.isNaN(v));
const orNone = (x: readonly number[], of: (there: number[]) => number) => {
  const there = some(x);
  return there.length === 0 ? NaN : of(there);
};

const FUNCTIONS: Record<Extract<Formula, { kind: "call" }>["by"], (x: readonly number[]) => number> = {
  ln: ([x]) => (x! > 0 ? Math.log(x!) : NaN),
  log10: ([x]) => (x! > 0 ? Math.log10(x!) : NaN),
  exp: ([x]) => Math.exp(x!),
  sqrt: ([x]) => (x! >= 0 ? Math.sqrt(x!) : NaN),
  abs: ([x]) => Math.abs(x!),
  round: ([x, digits = 0]) => Math.round(x! * 10 ** digits) / 10 ** digits,
  min: (x) => orNone(x, (there) => Math.min(...there)),
  max: (x) => orNone(x, (there) => Math.max(...there)),
  mean: (x) => orNone(x, (there) => there.reduce((sum, v) => sum + v, 0) / there.length),
  sum: (x) => orNone(x, (there) => there.reduce((sum, v) => sum + v, 0)),
  answered: (x) => some(x).length,
  if: ([test, yes, no]) => (Number.isNaN(test!) ? NaN : test !== 0 ? yes! : no!),
};

function call(formula: Extract<Formula, { kind: "call" }>, scope: Scope): Values {
  return map(
    formula.of.map((part) => evaluate(part, scope)),
    scope,
    FUNCTIONS[formula.by],
  );
}

/** Applies a function of numbers row by row; of constants alone, once. */
function map(parts: readonly Values[], scope: Scope, of: (x: readonly number[]) => number): Values {
  if (parts.every((part) => typeof part === "number")) return of(parts);
  const values = new Float64Array(scope.rows);
  const x = parts.map((part) => (typeof part === "number" ? part : 0));
  for (let row = 0; row < scope.rows; row++) {
    for (let k = 0; k < parts.length; k++) {
      const part = parts[k]!;
      if (typeof part !== "number") x[k] = part[row]!;
    }
    values[row] = of(x);
  }
  return values;
}

function fault(message: string, word: string, scope: Scope): FormulaFaultError {
  return new FormulaFaultError(message, Math.max(0, scope.text.indexOf(word)));
}
