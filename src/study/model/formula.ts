import { CoreError } from "@/core/errors";
import jsep from "jsep";

/**
 * Formulas in ordinary mathematical notation: + − * / ^, comparisons (= ≠ < ≤ > ≥; in a row each with the next, as 18 <= age <= 30), `and`, `or`, `not`, brackets, numbers, words in
 * quotation marks, and functions. A variable stands by its name; one whose name is no plain word stands in braces: {weekly hours}.
 * Read by a maintained expression parser; nothing is ever run as code.
 */
export type Formula =
  | { kind: "number"; value: number }
  | { kind: "words"; value: string }
  | { kind: "name"; name: string }
  | { kind: "negative" | "not"; of: Formula }
  | { kind: "binary"; by: BinaryOperator; left: Formula; right: Formula }
  | { kind: "call"; by: FormulaFunction; of: Formula[] };

export type BinaryOperator = "+" | "-" | "*" | "/" | "^" | "=" | "!=" | "<" | "<=" | ">" | ">=" | "and" | "or";

/** Functions with the least and the most arguments they take. */
export const FORMULA_FUNCTIONS = {
  ln: [1, 1],
  log10: [1, 1],
  exp: [1, 1],
  sqrt: [1, 1],
  abs: [1, 1],
  round: [1, 2],
  min: [2, 200],
  max: [2, 200],
  mean: [1, 200],
  sum: [1, 200],
  answered: [1, 200],
  if: [3, 3],
} as const satisfies Record<string, readonly [number, number]>;
export type FormulaFunction = keyof typeof FORMULA_FUNCTIONS;

/** A formula that cannot be read: what is wrong, and where it stands in the text (from 0). */
export class FormulaFaultError extends CoreError {
  readonly code = "formula-fault";
  readonly details: { message: string; at: number };
  constructor(message: string, at: number) {
    super(message);
    this.details = { message, at };
  }
}

/** Other ways to write a comparison. */
const SAME: Record<string, BinaryOperator> = { "==": "=", "<>": "!=", "≠": "!=", "≤": "<=", "≥": ">=" };

const PRECEDENCE: Record<BinaryOperator, number> = {
  or: 1,
  and: 2,
  "=": 3,
  "!=": 3,
  "<": 4,
  "<=": 4,
  ">": 4,
  ">=": 4,
  "+": 5,
  "-": 5,
  "*": 6,
  "/": 6,
  "^": 8,
};

for (const op of Object.keys(jsep.binary_ops)) jsep.removeBinaryOp(op);
for (const op of Object.keys(jsep.unary_ops)) jsep.removeUnaryOp(op);
for (const literal of Object.keys(jsep.literals)) jsep.removeLiteral(literal);
for (const [op, precedence] of Object.entries(PRECEDENCE)) jsep.addBinaryOp(op, precedence, op === "^");
for (const [op, same] of Object.entries(SAME)) jsep.addBinaryOp(op, PRECEDENCE[same]);
for (const op of ["-", "+", "not"]) jsep.addUnaryOp(op);
jsep.hooks.add("gobble-token", function (env) {
  if (this.char === "(") {
    const group = this.gobbleGroup();
    // brackets matter once: −x ^ 2 is −(x ^ 2), but (−x) ^ 2 is not
    if (group) env.node = { ...group, grouped: true };
  } else if (this.char === "{") {
    const end = this.expr.indexOf("}", this.index);
    if (end < 0) this.throwError("A brace is opened and not closed");
    env.node = { type: "Identifier", name: this.expr.slice(this.index + 1, end).trim() };
    this.index = end + 1;
  }
});

/** Signs as they are typed or printed, each as long as what it becomes, so that places in the text stay right. */
const SIGNS: Record<string, string> = { "−": "-", "·": "*", "×": "*", "÷": "/" };

/** Signs in a row, and brackets within brackets or signs after one another, that a formula may have. */
const MOST_SIGNS = 20;
const MOST_DEEP = 1500;

/** How deep a tree goes, found without going deep: -1 when some value has more signs in a row than any needs. */
function depthOf(tree: jsep.Expression): number {
  let deepest = 0;
  const waiting = [{ node: tree, depth: 1, signs: 0 }];
  for (let here = waiting.pop(); here; here = waiting.pop()) {
    const { depth, signs } = here;
    deepest = Math.max(deepest, depth);
    if (signs > MOST_SIGNS) return -1;
    const e = here.node as jsep.CoreExpression;
    const below = (node: jsep.Expression, more = 0) => waiting.push({ node, depth: depth + 1, signs: more });
    if (e.type === "UnaryExpression") below(e.argument, signs + 1);
    else if (e.type === "BinaryExpression") [e.left, e.right].forEach((node) => below(node));
    else if (e.type === "CallExpression") e.arguments.forEach((node) => below(node));
  }
  return deepest;
}

/** @throws FormulaFaultError */
export function parseFormula(text: string): Formula {
  const plain = text.replace(/[−·×÷]/g, (sign) => SIGNS[sign]!);
  let tree: jsep.Expression;
  try {
    tree = jsep(plain);
  } catch (error) {
    if (error instanceof RangeError) throw new FormulaFaultError("The formula goes too deep: too many brackets within brackets.", 0);
    const { description, index } = error as { description?: string; index?: number };
    throw new FormulaFaultError(faultWords(description ?? "", plain, index ?? 0), Math.min(index ?? 0, text.length));
  }
  const depth = depthOf(tree);
  if (depth < 0) throw new FormulaFaultError(`A value has more than ${MOST_SIGNS} signs before it.`, 0);
  if (depth > MOST_DEEP) throw new FormulaFaultError("The formula goes too deep. Work a part of it out as a variable of its own.", 0);
  return translate(loosen(tree), plain);
}

interface Unary extends jsep.UnaryExpression {
  grouped?: boolean;
}

/** The parser binds signs before a value closest of all; in mathematics −x ^ 2 is −(x ^ 2), and `not a = b` is not (a = b). */
function loosen(node: jsep.Expression): jsep.Expression {
  const e = node as jsep.CoreExpression;
  if (e.type === "UnaryExpression") return { ...e, argument: loosen(e.argument) };
  if (e.type === "CallExpression") return { ...e, arguments: e.arguments.map(loosen) };
  if (e.type !== "BinaryExpression") return e;
  const left = loosen(e.left) as Unary;
  const looser = left.operator === "not" ? e.operator !== "and" && e.operator !== "or" : e.operator === "^";
  if (left.type === "UnaryExpression" && !left.grouped && looser) return { ...left, argument: loosen({ ...e, left: left.argument }) };
  return { ...e, left, right: loosen(e.right) };
}

function faultWords(description: string, text: string, at: number): string {
  if (/^Unclosed \(|Expected \)|Unclosed quote|A brace|Expected comma/.test(description))
    return /quote/.test(description)
      ? "A quotation mark is opened and not closed."
      : /brace/.test(description)
        ? "A brace is opened and not closed."
        : "A bracket is opened and not closed.";
  if (/Expected expression after|Missing unaryOp/.test(description)) return "Something is missing after this sign.";
  return at >= text.length ? "The formula ends too early." : "This cannot be read here.";
}

function translate(node: jsep.Expression, text: string): Formula {
  const fault = (message: string, word: string) => new FormulaFaultError(message, Math.max(0, text.indexOf(word)));
  const e = node as jsep.CoreExpression;
  switch (e.type) {
    case "Literal":
      if (typeof e.value === "number") return { kind: "number", value: e.value };
      return { kind: "words", value: String(e.value) };
    case "Identifier":
      return { kind: "name", name: e.name };
    case "UnaryExpression":
      if (e.operator === "+") return translate(e.argument, text);
      return { kind: e.operator === "not" ? "not" : "negative", of: translate(e.argument, text) };
    case "BinaryExpression": {
      const by = operatorOf(e);
      if (COMPARISONS.has(by)) return joined(chainOf(e), text);
      return { kind: "binary", by, left: translate(e.left, text), right: translate(e.right, text) };
    }
    case "CallExpression": {
      const name = e.callee.type === "Identifier" ? String(e.callee["name"]) : "";
      const by = name.toLowerCase();
      if (!isFunction(by)) throw fault(`There is no function "${name}". There are ${Object.keys(FORMULA_FUNCTIONS).join(", ")}.`, name);
      const [least, most] = FORMULA_FUNCTIONS[by];
      const given = e.arguments.length;
      if (given < least || given > most)
        throw fault(
          `${by} takes ${most === 1 ? "one value" : least === most ? `${least} values` : `${least} to ${most} values`}, not ${given}.`,
          name,
        );
      return { kind: "call", by, of: e.arguments.map((a) => translate(a, text)) };
    }
    default:
      throw new FormulaFaultError(
        "Two things stand side by side without a sign between them, or a sign is not known here.",
        secondPart(e, text),
      );
  }
}

const COMPARISONS: ReadonlySet<string> = new Set(["=", "!=", "<", "<=", ">", ">="]);
const operatorOf = (e: jsep.BinaryExpression) => SAME[e.operator] ?? (e.operator as BinaryOperator);

/** Comparisons in a row without brackets, as the values and the signs between them: 18 <= age <= 30. */
function chainOf(e: jsep.BinaryExpression): { values: jsep.Expression[]; signs: BinaryOperator[] } {
  const side = (node: jsep.Expression) => {
    const inner = node as jsep.BinaryExpression & { grouped?: boolean };
    const goesOn = inner.type === "BinaryExpression" && !inner.grouped && COMPARISONS.has(operatorOf(inner));
    return goesOn ? chainOf(inner) : { values: [node], signs: [] };
  };
  const [left, right] = [side(e.left), side(e.right)];
  return { values: [...left.values, ...right.values], signs: [...left.signs, operatorOf(e), ...right.signs] };
}

/** As in mathematics, each value is compared with the next, and all must hold. */
function joined({ values, signs }: ReturnType<typeof chainOf>, text: string): Formula {
  const operands = values.map((value) => translate(value, text));
  const pairs = signs.map((by, k): Formula => ({ kind: "binary", by, left: operands[k]!, right: operands[k + 1]! }));
  return pairs.reduce((left, right) => ({ kind: "binary", by: "and", left, right }));
}

const isFunction = (name: string): name is FormulaFunction => Object.hasOwn(FORMULA_FUNCTIONS, name);

/** Where the second of two parts without a sign between them begins, as far as it can be found. */
function secondPart(e: jsep.Expression, text: string): number {
  const second = (e as jsep.Compound).body?.[1];
  const word = second && (second["name"] ?? second["raw"]);
  return typeof word === "string" ? Math.max(0, text.lastIndexOf(word)) : 0;
}

/** The variables and scales a formula names, each once; none when it cannot be read. */
export function formulaNames(text: string): string[] {
  const names = new Set<string>();
  const visit = (formula: Formula): void => {
    if (formula.kind === "name") names.add(formula.name);
    else if (formula.kind === "binary") [formula.left, formula.right].forEach(visit);
    else if (formula.kind === "call") formula.of.forEach(visit);
    else if (formula.kind === "negative" || formula.kind === "not") visit(formula.of);
  };
  try {
    visit(parseFormula(text));
  } catch (error) {
    if (!(error instanceof FormulaFaultError)) throw error;
  }
  return [...names];
}

/** A name as it must stand in a formula. */
export function nameInFormula(name: string): string {
  return /^[\p{L}_$][\p{L}\d_$]*$/u.test(name) && !["and", "or", "not"].includes(name) ? name : `{${name}}`;
}
