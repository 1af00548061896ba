import type { Recipe } from "../../model/derived";
import { type CategoryColumn, levelMeant } from "../category-column";
import { cellDerivation, type Derivation } from "./derived-column";

const MOST_SHOWN = 50;

/** Value by value; every value that the table does not mention is counted, whatever becomes of it. */
export function lookUp(name: string, recipe: Extract<Recipe, { kind: "lookup" }>, from: CategoryColumn): Derivation {
  const named = recipe.table.flatMap(({ values, to }) => values.map((value) => ({ value, to, at: levelMeant(from, value) })));
  const targets = new Map([...named].reverse().map(({ at, to }) => [at, to])); // of a value said twice the first holds
  const { otherwise } = recipe;
  const cells = from.levels.map((level, i) => {
    const to = targets.get(i);
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
    .map((value, i) => ({ value, count: counts[i]!, named: targets.has(i) }))
    .filter(({ count, named }) => count > 0 && !named)
    .map(({ value, count }) => ({ value, count }))
    .sort((a, b) => b.count - a.count);
  const unmatchedRows = unmatched.reduce((sum, { count }) => sum + count, 0);
  const unmet = named.filter(({ at }) => at < 0 || counts[at] === 0).map(({ value }) => value);
  return cellDerivation(name, cells, of, from.decimal, { missingInputs, unmatched: unmatched.slice(0, MOST_SHOWN), unmatchedRows, unmet });
}

/** 1 where the answer is one of those named, else 0. */
export function indicate(name: string, equals: readonly string[], from: CategoryColumn): Derivation {
  const meant = equals.map((value) => levelMeant(from, value));
  const cells = from.levels.map((_, i) => (meant.includes(i) ? "1" : "0"));
  const of = from.codes.map((code, row) => (from.missing[row] ? -1 : code));
  const missingInputs = from.missing.reduce((sum, m) => sum + m, 0);
  const met = new Set(of);
  const unmet = equals.filter((_, k) => !met.has(meant[k]!) || meant[k] === -1);
  return cellDerivation(name, cells, of, from.decimal, { missingInputs, unmatched: [], unmatchedRows: 0, unmet });
}
