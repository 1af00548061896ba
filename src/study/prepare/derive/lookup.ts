import type { Recipe } from "../../model/derived";
import type { CategoryColumn } from "../category-column";
import { cellDerivation, type Derivation } from "./derived-column";

const MOST_SHOWN = 50;

/** Value by value; every value that the table does not mention is counted, whatever becomes of it. */
export function lookUp(name: string, recipe: Extract<Recipe, { kind: "lookup" }>, from: CategoryColumn): Derivation {
  const targets = new Map(recipe.table.flatMap(({ values, to }) => values.map((value) => [value, to] as const)));
  const { otherwise } = recipe;
  const cells = from.levels.map((level) => {
    const to = targets.get(level);
    if (to !== undefined) return to;
    return otherwise.kind === "keep" ? level : otherwise.kind === "value" ? otherwise.value : null;
  });
  const counts = new Float64Array(from.levels.length);
  const of = new Int32Array(from.codes.length).fill(-1);
  let missingInputs = 0;
  for (let row = 0; row < of.length; row++) {
    if (from.missing[row]) {
      missingInputs++;
      continue;
    }
    of[row] = from.codes[row]!;
    counts[from.codes[row]!]!++;
  }
  const unmatched = from.levels
    .map((value, i) => ({ value, count: counts[i]! }))
    .filter(({ value, count }) => count > 0 && !targets.has(value))
    .sort((a, b) => b.count - a.count);
  const unmatchedRows = unmatched.reduce((sum, { count }) => sum + count, 0);
  return cellDerivation(name, cells, of, { missingInputs, unmatched: unmatched.slice(0, MOST_SHOWN), unmatchedRows });
}

/** 1 where the answer is one of those named, else 0. */
export function indicate(name: string, equals: readonly string[], from: CategoryColumn): Derivation {
  const wanted = new Set(equals);
  const cells = from.levels.map((level) => (wanted.has(level) ? "1" : "0"));
  const of = from.codes.map((code, row) => (from.missing[row] ? -1 : code));
  const missingInputs = from.missing.reduce((sum, m) => sum + m, 0);
  return cellDerivation(name, cells, of, { missingInputs, unmatched: [], unmatchedRows: 0 });
}
