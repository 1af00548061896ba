import { recipeFilter, recipeInputs } from "../model/dependencies";
import { byName } from "../model/by-name";
import { DerivedVariable } from "../model/derived";
import { VariableName } from "../model/names";
import type { KeptKind } from "./kind";

/** How a variable is worked out from others. */
export const derived = {
  kind: "derived",
  list: "derived",
  schema: DerivedVariable,
  id: VariableName,
  word: "Recipe of",
  place: "responses",
  idOf: (d) => d.name,
  nameOf: (d) => d.name,
  needs: ({ recipe }) => ({ names: recipeInputs(recipe).map((name) => ({ name })), filters: [recipeFilter(recipe)] }),
  faults: ({ name }, { codebook }) => (byName(codebook, name) ? [] : [`The derived variable "${name}" has no row in the codebook.`]),
} satisfies KeptKind<"derived", "derived", DerivedVariable>;
