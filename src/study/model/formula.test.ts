import fc from "fast-check";
import { type Formula, formulaNames, FormulaFaultError, nameInFormula, parseFormula } from "./formula";

/** What a formula of numbers alone is worth, by a few lines of its own. */
function worth(f: Formula): number {
  if (f.kind === "number") return f.value;
  if (f.kind === "negative") return -worth(f.of);
  if (f.kind === "not") return worth(f.of) === 0 ? 1 : 0;
  if (f.kind !== "binary") throw new Error(f.kind);
  const [a, b] = [worth(f.left), worth(f.right)];
  const truth = {
    "=": a === b,
    "!=": a !== b,
    "<": a < b,
    "<=": a <= b,
    ">": a > b,
    ">=": a >= b,
    and: a !== 0 && b !== 0,
    or: a !== 0 || b !== 0,
  };
  if (f.by in truth) return truth[f.by as keyof typeof truth] ? 1 : 0;
  return { "+": a + b, "-": a - b, "*": a * b, "/": a / b, "^": a ** b }[f.by as "+"];
}

describe("notation as mathematics has it", () => {
  test.each<[string, number]>([
    ["1 + 2 * 3", 7],
    ["(1 + 2) * 3", 9],
    ["10 - 4 - 3", 3],
    ["24 / 4 / 2", 3],
    ["2 ^ 3 ^ 2", 512],
    ["-3 ^ 2", -9],
    ["(-3) ^ 2", 9],
    ["2 ^ -1", 0.5],
    ["-2 * -3", 6],
    ["2 − 3 × 4 ÷ 2 · 1", -4],
    ["1e3 / .5", 2000],
    ["3 ≥ 2 and 2 ≤ 1 or 4 ≠ 5", 1],
    ["not 1 = 2", 1],
    ["not 0 + 1 = 0", 1],
    ["not (1 = 1) or 0", 0],
    ["1 < 2 = 1", 0],
    ["1 < 2 = 2", 1],
    ["(1 < 2) = 1", 1],
    ["18 <= 20 <= 30", 1],
    ["18 <= 41 <= 30", 0],
    ["30 >= 20 > 20", 0],
    ["3 = 3 = 3", 1],
    ["3 = 3 = 1", 0],
    ["not 1 < 2 < 3", 0],
    ["1 < 2 < 3 and 4 < 5", 1],
    ["2 == 2 and 3 <> 4", 1],
    ["+5", 5],
  ])("%s is %p", (text, value) => expect(worth(parseFormula(text))).toBe(value));

  test("law: any sum, difference, product and quotient in brackets is what the language itself makes of it", () => {
    const tree: fc.Arbitrary<string> = fc.letrec<{ node: string }>((tie) => ({
      node: fc.oneof(
        { maxDepth: 5 },
        fc.integer({ min: 1, max: 99 }).map(String),
        fc.tuple(tie("node"), fc.constantFrom("+", "-", "*", "/"), tie("node")).map(([a, op, b]) => `(${a} ${op} ${b})`),
        fc.tuple(tie("node"), fc.constantFrom("+", "-", "*"), fc.integer({ min: 1, max: 9 })).map(([a, op, b]) => `(${a} ${op} ${b})`),
      ),
    })).node;
    fc.assert(fc.property(tree, (text) => expect(worth(parseFormula(text))).toEqual(Function(`return ${text}`)() as number))); // a test may run code; the application never does
  });
});

test("variables are named once each; names that are no plain word stand in braces; functions are no names", () => {
  expect(formulaNames("mean(SC1, SC2) + {weekly hours} / größe - SC1 and format = 'online'")).toEqual([
    "SC1",
    "SC2",
    "weekly hours",
    "größe",
    "format",
  ]);
  for (const name of ["SC1", "weekly hours", "and", "2nd", "a.b", "größe"])
    expect(formulaNames(`${nameInFormula(name)} + 1`)).toEqual([name]);
});

describe("a fault is told with its place", () => {
  test.each<[string, number, RegExp]>([
    ["(a + b", 6, /bracket is opened/],
    ["a + ", 4, /missing after/],
    ["ln(x", 4, /bracket is opened/],
    ["a + foo(b)", 4, /no function "foo"/],
    ["round(a, 1, 2)", 0, /1 to 2 values, not 3/],
    ["if(a, 1)", 0, /3 values, not 2/],
    ["a b", 2, /side by side/],
    ["{a + b", 0, /brace is opened/],
    ['a = "x', 6, /quotation mark/],
    ["a..b", 2, /cannot be read/],
    ["", 0, /./],
    [`${"-".repeat(3999)}a`, 0, /more than 20 signs/],
    [`${"(".repeat(3000)}a${")".repeat(3000)}`, 0, /too deep/],
    ["constructor", -1, /./],
  ])("%p", (text, at, words) => {
    let fault: unknown = null;
    try {
      parseFormula(text);
    } catch (error) {
      fault = error;
    }
    if (at < 0) return expect(fault).toBeNull(); // a name like any other
    expect(fault).toBeInstanceOf(FormulaFaultError);
    expect((fault as FormulaFaultError).message).toMatch(words);
    expect((fault as FormulaFaultError).details.at).toBe(at);
  });

  test("law: whatever is typed is read, or refused with a place inside the text; nothing else is thrown", () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 30, unit: fc.constantFrom(..."ab1.+-*/^()=<>!{},'\" ≥not") }), (text) => {
        try {
          parseFormula(text);
        } catch (error) {
          expect(error).toBeInstanceOf(FormulaFaultError);
          const { at } = (error as FormulaFaultError).details;
          expect(at >= 0 && at <= text.length).toBe(true);
        }
      }),
      { numRuns: 1000 },
    );
  });
});
