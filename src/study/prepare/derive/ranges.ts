import { bisectRight } from "d3-array";
import type { Recipe } from "../../model/derived";
import type { NumericColumn } from "../numeric-column";
import { cellDerivation, type Derivation } from "./derived-column";

/** Numbers into named ranges; a number on an edge belongs to the range above it. */
export function cutIntoRanges(name: string, { edges, labels }: Extract<Recipe, { kind: "ranges" }>, from: NumericColumn): Derivation {
  let missingInputs = 0;
  const of = Int32Array.from(from.values, (value, row) => {
    if (!from.missing[row]) return bisectRight(edges, value);
    missingInputs++;
    return -1;
  });
  return cellDerivation(name, labels, of, { missingInputs, unmatched: [], unmatchedRows: 0 });
}
