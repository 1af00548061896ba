import { bisectRight } from "d3-array";
import type { Recipe } from "../../model/derived";
import type { NumericColumn } from "../numeric-column";
import { cellDerivation, type Derivation } from "./derived-column";

/** Numbers into named ranges; a number on an edge belongs to the range above it. */
export function cutIntoRanges(name: string, { edges, labels }: Extract<Recipe, { kind: "ranges" }>, from: NumericColumn): Derivation {
  let missingInputs = 0;
  const of = new Int32Array(from.values.length);
  for (let row = 0; row < of.length; row++) {
    if (from.missing[row]) missingInputs++;
    of[row] = from.missing[row] ? -1 : bisectRight(edges, from.values[row]!);
  }
  return cellDerivation(name, labels, of, ".", { missingInputs, unmatched: [], unmatchedRows: 0, unmet: [] });
}
