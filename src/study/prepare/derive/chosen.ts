import type { Recipe } from "../../model/derived";
import { choicesIn } from "../answers/choices";
import type { CategoryColumn } from "../category-column";
import { type Derivation, numberDerivation } from "./derived-column";

/** 1 where the cell holds the answer among others, 0 where it holds others only. */
export function choose(name: string, { answer, separator }: Extract<Recipe, { kind: "choice" }>, from: CategoryColumn): Derivation {
  const holds = from.levels.map((level) => (choicesIn(level, separator).includes(answer) ? 1 : 0));
  const values = Float64Array.from(from.codes, (code) => holds[code] ?? 0);
  const made = numberDerivation(name, values, from.missing);
  return holds.includes(1) ? made : { ...made, facts: { ...made.facts, unmet: [answer] } };
}

/** 1 where the column is filled, 0 where only others of its block are. @param own place of the column in the block */
export function tick(name: string, block: readonly { missing: Uint8Array }[], own: number): Derivation {
  const filled = block[own]!.missing;
  const nothing = filled.map((_, row) => (block.every(({ missing }) => missing[row] === 1) ? 1 : 0));
  return numberDerivation(
    name,
    Float64Array.from(filled, (missing) => 1 - missing),
    nothing,
  );
}
